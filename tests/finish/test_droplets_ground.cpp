// Droplets in a finish: its file, its checks, its names.
#include <catch2/catch.hpp>

#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/ground_edits.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/play.h"
#include "core/finish/steps_text.h"
#include "tests/support/finishes.h"
#include "tests/support/player.h"

using namespace lacquer;
using Id = DropNumberId;

namespace {

Finish with_drops(const std::vector<std::pair<std::string, std::string>>& steps) {
    Finish finish = test::finish_of(steps);
    finish.frame_width = 64;
    finish.frame_height = 36;
    DropletsGround drops;
    drops.drops.number(Id::rate) = {6, 6, {}};
    drops.drops.number(Id::life) = {3, 3, {}};
    finish.grounds.push_back(Ground{"drops", drops});
    return finish;
}

Droplets& drops_in(Finish& finish) { return finish.grounds[0].as<DropletsGround>()->drops; }

}  // namespace

TEST_CASE("droplets are kept in their file as they are, and only what isn't usual stands there") {
    Finish finish = with_drops({});
    Droplets& drops = drops_in(finish);
    drops.shape = DropShape::splash;
    drops.number(Id::size) = {0.01, 0.5, {}};
    drops.number(Id::wind_x).formula = "gale * 2";
    drops.number(Id::bounce) = {0.5, 0.5, {}};
    drops.born_while = "outside";
    drops.cue = "hit";
    drops.ends_near = "keeper";
    drops.tint = "ember";
    drops.size_curve = "swell";
    drops.by_strength = false;
    drops.settled = true;
    drops.field = DropField::jittered;
    drops.place = DropPlace::border;
    drops.leaves = DropLeaves::wraps;
    drops.facing = DropFacing::along;
    drops.blend = DropBlend::larger;
    drops.seed = 77;
    drops.columns = 4;
    drops.rows = 2;
    drops.cell_rate = 12;
    finish.grounds[0].as<DropletsGround>()->picture = "a/b.png";
    const std::string text = finish_to_text(finish);
    const auto again = finish_from_text(text, "a.lacquer");
    REQUIRE(again);
    CHECK(again->notices.empty());
    CHECK(again->finish == finish);
    CHECK(text.find("\"size\": [0.01, 0.5]") != std::string::npos);
    CHECK(text.find("opacity_over_end") == std::string::npos);
    CHECK(text.find("\"spin\"") == std::string::npos);
}

TEST_CASE("what stands wrongly among droplets is told, and the rest is read") {
    for (const char* wrong :
         {R"("droplets": "blob")", R"("rate": [1, 2])", R"("rate": -1)", R"("life": [1, 2, 3])", R"("life": 1e300)",
          R"("size": true)", R"("size": [0, "a"])", R"("place": "nowhere")", R"("cells": [0, 1, 1])",
          R"("cells": [5000, 5000, 1])", R"("most": 1e9)", R"("settled": 4)", R"("cue": 3)", R"("bounce": 1)"}) {
        INFO(wrong);
        const auto read = finish_from_text(
            std::string(R"({"format": 1, "grounds": [{"name": "drops", "droplets": "ring", "fall": 0.25, )") + wrong +
                "}]}",
            "x.lacquer");
        REQUIRE(read);
        CHECK(read->notices.size() == 1);
        const auto* drops = read->finish.grounds.at(0).as<DropletsGround>();
        REQUIRE(drops != nullptr);
        CHECK(drops->drops.number(Id::fall).from == 0.25);
    }
}

TEST_CASE("formulas and names of droplets are checked, and follow what is renamed") {
    Finish finish = with_drops({{"a", "drops.rgb * drops.count + drops_age"}});
    Droplets& drops = drops_in(finish);
    drops.number(Id::rate).formula = "nothing";
    drops.born_while = "1 + 1";
    drops.cue = "hit";
    drops.ends_near = "keeper";
    drops.tint = "ember";
    const auto broken = test::checked(finish);
    CHECK(broken->faults.size() == 5);
    for (const Fault& fault : broken->faults) CHECK(fault.place.where == "drops");
    CHECK(std::count_if(broken->faults.begin(), broken->faults.end(),
                        [](const Fault& fault) { return fault.id == "finish.droplets"; }) == 2);
    CHECK_FALSE(find_step(*broken, "a")->fault);
    drops.number(Id::rate).formula = "wet * 2";
    drops.born_while = "outside";
    finish.cues = {{"hit"}};
    finish.signals = {
        {"wet"}, {.name = "outside", .kind = SignalKind::toggle}, {.name = "keeper", .kind = SignalKind::place}};
    finish.grounds.push_back(Ground{"ember", GradientGround{}});
    CHECK(test::checked(finish)->faults.empty());
    for (const auto& [from, to] :
         {std::pair{"wet", "damp"}, {"outside", "out"}, {"keeper", "mate"}, {"ember", "glow_of"}, {"drops", "rain"}}) {
        Result<Finish> renamed = rename(finish, from, to);
        REQUIRE(renamed);
        finish = std::move(*renamed);
    }
    finish = rename_cue(finish, "hit", "blow");
    CHECK(test::checked(finish)->faults.empty());
    CHECK(finish.coats[0].steps[0].formula == "rain.rgb * rain.count + rain_age");
    CHECK(drops_in(finish).cue == "blow");
    CHECK(drops_in(finish).number(Id::rate).formula == "damp * 2");
    CHECK(users_of(finish, "damp") == std::vector<std::string>{"rain"});
    CHECK(users_of(finish, "glow_of") == std::vector<std::string>{"rain"});
    CHECK(readers_of(finish, "glow_of") == std::vector<std::string>{"rain"});
    // A copied step takes along what its droplets go by.
    const std::string text = steps_as_text(finish, "", {"a"});
    for (const char* name : {"damp", "out", "mate", "glow_of", "blow"}) {
        INFO(name);
        CHECK(text.find('"' + std::string(name) + '"') != std::string::npos);
    }
}

TEST_CASE("formulas know how many drops live now and in the long run, dials, too") {
    Finish finish = with_drops({{"a", "vec2(drops.count, drops.steady)"}});
    Dial dial;
    dial.name = dial.code_name = "twice";
    dial.most = 100;
    dial.formula = "drops.count * 2";
    finish.dials = {dial};
    test::Player player(finish);
    CHECK(player.picture(1.01).at(3, 3)[0] == 7);
    CHECK(player.picture(1.01).at(3, 3)[1] == 18);
    CHECK(player.picture(20).at(3, 3)[0] == 18);
    CHECK(drive_values(*test::checked(finish), 20, {}).at("twice").parts[0] == 36);
}

TEST_CASE("steps read what droplets are, both back ends alike, small and at single points, too") {
    Finish finish =
        with_drops({{"a", "mix(vec4(0, 0, 0, 1), drops, drops.a) + vec4(drops_push, drops_age, drops_seed) * 0.25"},
                    {"b", "vec3(drops_place, texture(drops, uv * 0.5 + 0.2).a)"}});
    drops_in(finish).settled = true;
    drops_in(finish).number(Id::size) = {0.3, 0.6, {}};
    drops_in(finish).number(Id::speed) = {0.1, 0.2, {}};
    test::Player strips(finish);
    test::Player shaders(finish);
    REQUIRE_FALSE(shaders.renderer().use(Backend::gpu));
    for (const char* step : {"a", "b"}) {
        const Picture one = strips.picture(2.3, step);
        const Picture other = shaders.picture(2.3, step);
        REQUIRE(one.data.size() == other.data.size());
        double sum = 0;
        for (std::size_t i = 0; i < one.data.size(); ++i) {
            REQUIRE(one.data[i] == Approx(other.data[i]).margin(2e-3));
            sum += static_cast<double>(std::fabs(one.data[i]));
        }
        CHECK(sum > 100);
    }
    const Picture whole = strips.picture(2.3, "b");
    strips.request.points = {{31, 17}};
    CHECK(strips.picture(2.3, "b").data[0] == whole.at(31, 17)[0]);
    strips.request.points.clear();
    strips.request.small_grounds = true;
    strips.request.frame_width = 64;
    strips.request.frame_height = 36;
    strips.request.width = 32;
    strips.request.height = 18;
    CHECK(strips.picture(2.3, "a").width == 32);
}

TEST_CASE("a picture that is missing, too small, or of too many drops is told") {
    Finish finish = with_drops({{"a", "drops"}});
    drops_in(finish).shape = DropShape::picture;
    finish.grounds[0].as<DropletsGround>()->picture = "/nowhere/drop.png";
    test::Player player(finish);
    Frame frame = player.frame(1);
    REQUIRE(frame.notices.size() == 1);
    CHECK(frame.notices[0].place.where == "drops");
    finish.grounds[0].as<DropletsGround>()->picture = picture_path(test::demo_path(), "../pictures/crab-claw-left.png");
    drops_in(finish).number(Id::size) = {20, 20, {}};
    drops_in(finish).number(Id::largest) = {4, 4, {}};
    player.request.frame_width = 1600;
    player.request.frame_height = 900;
    player.set(finish);
    frame = player.frame(1);
    REQUIRE(frame.notices.size() == 1);
    CHECK(frame.notices[0].id == "droplets.enlarged");
    player.request.frame_width = player.request.frame_height = 32;
    Finish many = with_drops({{"a", "drops"}});
    drops_in(many).number(Id::rate) = {1e9, 1e9, {}};
    player.set(many);
    frame = player.frame(1);
    REQUIRE(frame.notices.size() == 1);
    CHECK(frame.notices[0].id == "droplets.many");
}

TEST_CASE("droplets that leave trails from tick to tick are the same whichever way a moment is reached") {
    Finish finish = with_drops({{"trail", "max(previous(trail) * 0.95, drops.a)"}, {"shown", "vec3(trail)"}});
    drops_in(finish).number(Id::size) = {0.2, 0.3, {}};
    drops_in(finish).number(Id::speed).formula = "pace * 0.5";
    finish.coats[0].steps.own()[0].ticking.width = 1;
    Dial dial;
    dial.name = dial.code_name = "pace";
    dial.value = {1, 0, 0};
    finish.dials = {dial};
    test::Player played(finish);
    Picture last;
    for (std::int64_t tick = 0; tick <= 90; ++tick) last = played.picture(test::tick_time(tick));
    test::Player sought(finish);
    CHECK(test::same_bits(sought.picture(test::tick_time(90)), last));
    // Another pace leaves other trails.
    finish.dials[0].value = {0.2, 0, 0};
    played.set(finish);
    const Picture slower = played.picture(test::tick_time(90));
    CHECK_FALSE(test::same_bits(slower, last));
    CHECK(test::same_bits(test::Player(finish).picture(test::tick_time(90)), slower));
}

TEST_CASE("a place that a tape throws out of the frame is held to it, and ends no drop that it doesn't come near") {
    Finish finish = with_drops({});
    Droplets& drops = drops_in(finish);
    drops.number(Id::rate) = {0, 0, {}};
    drops.field = DropField::random;
    drops.number(Id::reach) = {0.01, 0.01, {}};
    drops.number(Id::apart) = {0.1, 0.1, {}};
    drops.ends_near = "keeper";
    finish.signals = {{.name = "keeper", .kind = SignalKind::place}};
    const double huge = 1e300;
    Tape tape;
    tape.changes = {
        {"keeper", 1, {huge, -huge, 0}}, {"keeper", 2, {-huge, huge, 0}}, {"keeper", 3, {std::nan(""), huge, 0}}};
    const Play play(test::checked(finish), tape);
    const double all = play.drop_count("drops", 0.5);
    CHECK(all > 20);
    // From one corner to the other across the frame some are met, and no more than lie there.
    CHECK(play.drop_count("drops", 10) > all / 2);
}
