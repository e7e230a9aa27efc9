// A finish against a tape: signals, arguments that are formulas, and what they may not read.
#include "core/finish/play.h"

#include <catch2/catch.hpp>
#include <chrono>
#include <cmath>
#include <random>

#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/steps_text.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

Dial driven(const std::string& name, const std::string& formula) {
    Dial dial;
    dial.name = dial.code_name = name;
    dial.formula = formula;
    dial.most = 100;
    return dial;
}

Finish with_hull() {
    Finish finish;
    finish.signals = {{"hull", SignalKind::integer, 0, 100, {100, 0, 0}}};
    return finish;
}

double value(const Finish& finish, const std::string& name, double time, std::size_t part = 0) {
    const DriveValues values = drive_values(*test::checked(finish), time, finish.tape);
    REQUIRE(values.contains(name));
    return setting_from(values.at(name))[part];
}

}  // namespace

TEST_CASE("90 of 100 health is 0.9, by the signal's share or by dividing whole numbers") {
    // Common practice, no source: the quotient of whole numbers must not be rounded.
    Finish finish = with_hull();
    finish.tape.changes = {{"hull", 1, {90, 0, 0}}};
    finish.dials = {driven("health", "hull / hull.most"), driven("share", "hull.share")};
    CHECK(value(finish, "health", 0) == 1);
    CHECK(value(finish, "health", 1) == Approx(0.9).epsilon(1e-7));
    CHECK(value(finish, "share", 1) == static_cast<double>(0.9F));
    finish.tape.changes[0].value = {-40, 0, 0};
    CHECK(value(finish, "health", 2) == 0);
}

TEST_CASE("responses and signals add, multiply and switch in a dial's formula") {
    Finish finish = with_hull();
    finish.signals.push_back({"storm", SignalKind::toggle});
    finish.signals.push_back({"keeper", SignalKind::place, 0, 1, {0.25, 0.5, 0}});
    finish.cues = {{"hit"}};
    finish.responses = {{"blow", "strike", "hit", {{"rise", 0.0}, {"stay", 5.0}}}};
    finish.dials = {driven("much", "storm ? blow * 10.0 + hull : keeper.x")};
    finish.tape.cues = {{"hit", 1}};
    finish.tape.changes = {{"storm", 2, {1, 0, 0}}, {"hull", 3, {40, 0, 0}}, {"keeper", 0.5, {0.75, 0.1, 0}}};
    CHECK(value(finish, "much", 0) == 0.25);
    CHECK(value(finish, "much", 1) == 0.75);
    CHECK(value(finish, "much", 2) == 110);
    CHECK(value(finish, "much", 3) == 50);
}

TEST_CASE("a strike's outputs tell of the cue that it answers") {
    Finish finish;
    finish.cues = {{"touch"}};
    finish.responses = {{"ring", "clock", "touch", {}}};
    finish.dials = {driven("x", "ring.place.x"), driven("down", "ring.direction.y"), driven("of", "ring.object")};
    finish.tape.cues = {{"touch", 1, 0.5, 90, 0.3, 0.6, 4}};
    CHECK(value(finish, "x", 2) == Approx(0.3));
    CHECK(value(finish, "down", 2) == Approx(1));
    CHECK(value(finish, "of", 2) == 4);
    CHECK(value(finish, "ring.strength", 0.5) == 0);
}

TEST_CASE("an argument may be a formula over signals and dials that stand still, and nothing else") {
    Finish finish = with_hull();
    finish.cues = {{"hit"}};
    Dial still;
    still.name = still.code_name = "strength_factor";
    still.value = {0.5, 0, 0};
    finish.dials = {still, driven("moving", "blow")};
    const auto with = [&](const std::string& formula) {
        Finish changed = finish;
        changed.responses = {
            {"blow", "strike", "hit", {{"most", formula}, {"rise", 0.0}, {"stay", 9.0}, {"least", 0.0}}}};
        return changed;
    };
    Finish good = with("strength_factor * (1 - hull.share)");
    good.tape.cues = {{"hit", 1}, {"hit", 3}};
    good.tape.changes = {{"hull", 2, {20, 0, 0}}, {"hull", 4, {0, 0, 0}}};
    CHECK(test::checked(good)->faults.empty());
    CHECK(value(good, "blow", 1.5) == 0);
    CHECK(value(good, "blow", 2.5) == 0);  // it was read when the cue came
    CHECK(value(good, "blow", 5) == Approx(0.4));
    const HeldDials held = {{"strength_factor", {1, 0, 0}}};
    CHECK(setting_from(drive_values(*test::checked(good), 5, good.tape, held).at("blow"))[0] == Approx(0.8));
    // A dial that was set on the tape holds from then on.
    good.tape.changes.push_back({"strength_factor", 2.5, {0.25, 0, 0}});
    sort_tape(good.tape);
    CHECK(value(good, "blow", 5) == Approx(0.2));
    CHECK(value(good, "strength_factor", 2) == 0.5);
    CHECK(value(good, "strength_factor", 2.5) == 0.25);

    for (const char* wrong : {"moving", "blow", "time", "hul", "hull +", "vec2(1, 2)"}) {
        INFO(wrong);
        const auto checked = test::checked(with(wrong));
        REQUIRE_FALSE(checked->faults.empty());
        CHECK(checked->faults[0].place.where == "blow");
        CHECK(checked->faults[0].message.starts_with("most: "));
        CHECK(std::isfinite(value(with(wrong), "blow", 1)));
    }
    CHECK(test::checked(with("hul"))->faults[0].mend == "did you mean hull?");
    CHECK(test::checked(with("moving"))->faults[0].id == "lang.out-of-reach");
}

TEST_CASE("a response that listens to no known cue is told, with the nearest") {
    Finish finish;
    finish.cues = {{"hit"}, {"lamp_out"}};
    finish.responses = {{"blow", "strike", "hot", {}}, {"rain", "gate", "hit", {{"until", std::string("lamp_ot")}}}};
    const auto checked = test::checked(finish);
    REQUIRE(checked->faults.size() == 2);
    CHECK(checked->faults[0].id == "finish.cue");
    CHECK(checked->faults[0].mend == "did you mean hit?");
    CHECK(checked->faults[1].mend == "did you mean lamp_out?");
}

TEST_CASE("a response has only the outputs of its kind, and says which") {
    Finish finish;
    finish.responses = {{"gusts", "wave", "", {}}, {"shake", "jolt", "", {}}};
    finish.dials = {driven("a", "gusts.presence"), driven("b", "shake.x + shake.turn"), driven("c", "shake.spin")};
    const auto checked = test::checked(finish);
    REQUIRE(checked->dials[0].fault);
    CHECK(checked->dials[0].fault->message == "'gusts' has no presence");
    CHECK_FALSE(checked->dials[1].fault);
    REQUIRE(checked->dials[2].fault);
    CHECK(checked->dials[2].fault->mend.starts_with("it has direction, object, place, presence"));
}

TEST_CASE("renaming follows into arguments, zones and the tape") {
    Finish finish = with_hull();
    finish.cues = {{"hit"}, {"calm"}};
    finish.signals.push_back({"keeper", SignalKind::place});
    finish.signals.push_back({"in_spray", SignalKind::toggle, 0, 1, {}, "", "", {"keeper", 0.5, 0.5, 0.3}});
    finish.responses = {
        {"rain", "gate", "hit", {{"when", std::string("hull < 20.0 || in_spray")}, {"until", std::string("calm")}}}};
    finish.tape.changes = {{"hull", 1, {9, 0, 0}}};
    finish.tape.cues = {{"calm", 2}};
    finish = *rename(*rename(finish, "hull", "boat hull"), "keeper", "warden");
    finish = rename_cue(finish, "calm", "lull");
    CHECK(std::get<std::string>(finish.responses[0].settings["when"]) == "boat_hull < 20.0 || in_spray");
    CHECK(std::get<std::string>(finish.responses[0].settings["until"]) == "lull");
    CHECK(finish.signals[2].zone.of == "warden");
    CHECK(finish.tape.changes[0].name == "boat_hull");
    CHECK(finish.tape.cues[0].name == "lull");
    CHECK(finish.cues[1].name == "lull");
    CHECK(users_of(finish, "boat_hull") == std::vector<std::string>{"rain"});
    CHECK_FALSE(rename(finish, "warden", "boat hull"));
    CHECK(test::checked(finish)->faults.empty());
}

TEST_CASE("steps that are copied take along the signals behind them") {
    Finish finish = with_hull();
    finish.signals.push_back({"keeper", SignalKind::place});
    finish.signals.push_back({"in_spray", SignalKind::toggle, 0, 1, {}, "", "", {"keeper", 0.5, 0.5, 0.3}});
    finish.cues = {{"hit"}, {"calm"}, {"other"}};
    finish.responses = {{"rain", "gate", "hit", {{"when", std::string("in_spray")}, {"until", std::string("calm")}}}};
    finish.dials = {driven("wet", "rain * hull.share")};
    finish = *add_step(finish, "", {"mist", "wet * uv.x", "", true, false, {}});
    const std::string text = steps_as_text(finish, "", {"mist"});
    const Result<StepEdit> pasted = paste_text(Finish(), "", "", text);
    REQUIRE(pasted);
    CHECK(pasted->finish.signals.size() == 3);
    CHECK(pasted->finish.cues.size() == 2);
    CHECK(pasted->finish.responses == finish.responses);
}

TEST_CASE("a tape of 20,000 cues is asked anywhere at once") {
    Finish finish = with_hull();
    finish.cues = {{"hit"}};
    finish.length = 3600;
    for (const ResponseKind& kind : response_kinds())
        finish.responses.push_back({"r_" + std::string(kind.name), std::string(kind.name), "hit", {}});
    finish.responses.push_back({"health", "chase", "", {{"signal", std::string("hull.share")}}});
    std::mt19937 random(5);
    std::uniform_real_distribution<double> any(0, 3600);
    for (int i = 0; i < 20000; ++i) {
        finish.tape.cues.push_back({"hit", any(random), 0.5});
        if (i % 10 == 0) finish.tape.changes.push_back({"hull", any(random), {any(random) / 36, 0, 0}});
    }
    sort_tape(finish.tape);
    const Play play(test::checked(finish), finish.tape);
    const auto begin = std::chrono::steady_clock::now();
    double sum = 0;
    constexpr int times = 200;
    for (int i = 0; i < times; ++i) sum += setting_from(play.values(any(random)).at("r_strike"))[0];
    const double seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
    CHECK(std::isfinite(sum));
    // A sixtieth of a second is a frame; a hundredth of that leaves room for slow and busy machines.
    CHECK(seconds / times < 1.0 / 60 / 5);
}
