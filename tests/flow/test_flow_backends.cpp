// Ticks that a graphics driver draws: their pictures stay there, and are those that this processor draws.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/finish/file.h"
#include "core/picture/half.h"
#include "tests/support/finishes.h"
#include "tests/support/player.h"

using namespace lacquer;
using test::Player;
using test::same_bits;
using test::tick_time;

namespace {

Finish loop_of_two() {
    Finish finish = test::finish_of({{"carried", "previous(smoke, uv + vec2(0.01, -0.02))"},
                                     {"smoke", "mix(carried * 0.97, vec4(uv, time, 1), step(length(uv - 0.5), 0.2))"},
                                     {"shown", "smoke.rgb"}});
    finish.frame_width = 48;
    finish.frame_height = 32;
    for (Step& step : finish.coats[0].steps.own()) {
        if (step.name != "shown") step.ticking.width = 4;
    }
    return finish;
}

void draw_by(Player& player, Backend backend) {
    const auto notice = player.renderer().use(backend);
    if (notice) FAIL(to_text(*notice));
}

double largest_difference(const Picture& a, const Picture& b) {
    REQUIRE(a.data.size() == b.data.size());
    double largest = 0;
    for (std::size_t i = 0; i < a.data.size(); ++i)
        largest = std::max(largest, std::fabs(static_cast<double>(a.data[i]) - static_cast<double>(b.data[i])));
    return largest;
}

double mean_difference(const Picture& a, const Picture& b) {
    REQUIRE(a.data.size() == b.data.size());
    double sum = 0;
    for (std::size_t i = 0; i < a.data.size(); ++i)
        sum += std::fabs(static_cast<double>(a.data[i]) - static_cast<double>(b.data[i]));
    return sum / static_cast<double>(a.data.size());
}

}  // namespace

TEST_CASE("two seconds of a loop are the same picture by strips and by shaders") {
    Player strips(loop_of_two());
    Player shaders(loop_of_two());
    draw_by(shaders, Backend::gpu);
    for (const std::int64_t tick : {0, 1, 7, 8, 9, 60, 120}) {
        INFO(tick);
        CHECK(largest_difference(strips.picture(tick_time(tick)), shaders.picture(tick_time(tick))) < 2e-3);
    }
}

TEST_CASE("with a driver, too, the state is the same to the last bit whichever way it is reached") {
    Player straight(loop_of_two());
    draw_by(straight, Backend::gpu);
    std::map<std::int64_t, Picture> pictures;
    for (std::int64_t tick = 0; tick <= 40; ++tick) pictures.emplace(tick, straight.picture(tick_time(tick)));
    Player jumping(loop_of_two());
    draw_by(jumping, Backend::gpu);
    for (const std::int64_t tick : {40, 39, 3, 17, 16, 15, 8, 40, 0, 33})
        REQUIRE(same_bits(jumping.picture(tick_time(tick)), pictures.at(tick)));
    // Going back replays no more than what lies between two that are kept.
    const std::int64_t back = straight.frame(tick_time(39)).ticks;
    CHECK(back > 0);
    CHECK(back <= 2 * Simulation::ticks_between_fetches);
    CHECK(straight.frame(tick_time(40)).ticks == 1);
}

TEST_CASE("single points, small pictures and checkpoints see what lies with the driver") {
    Player player(loop_of_two());
    draw_by(player, Backend::gpu);
    const Picture whole = player.picture(tick_time(21));
    player.request.points = {{5, 7}, {30, 20}};
    const Frame points = player.frame(tick_time(21));
    CHECK(points.ticks == 0);
    for (std::size_t i = 0; i < 2; ++i) {
        const auto& point = player.request.points[i];
        CHECK(points.steps[0].picture.at(static_cast<int>(i), 0)[0] ==
              Approx(whole.at(point.x, point.y)[0]).margin(1e-6));
    }
    player.request.points.clear();
    player.request.small_grounds = true;
    player.request.width = 24;
    player.request.height = 16;
    player.request.frame_width = 48;
    player.request.frame_height = 32;
    const Picture small = player.picture(tick_time(22));
    CHECK(small.width == 24);
    CHECK(small.at(12, 8)[2] == Approx(22.0 / 60).margin(0.02));
    player.request.small_grounds = false;
    player.request.width = player.request.height = 0;
    const Result<Checkpoint> checkpoint = player.renderer().checkpoint(player.request, Cancel());
    REQUIRE(checkpoint);
    CHECK(are_here(checkpoint->state.now));
    const Picture later = player.picture(tick_time(50));
    Player other(loop_of_two());
    draw_by(other, Backend::gpu);
    other.request = player.request;
    const Result<Checkpoint> read = checkpoint_from(to_bytes(*checkpoint), "a");
    REQUIRE(read);
    REQUIRE(other.renderer().take_checkpoint(other.request, *read));
    const Frame from_there = other.frame(tick_time(50));
    CHECK(from_there.ticks == 50 - 22);
    CHECK(same_bits(from_there.steps[0].picture, later));
}

TEST_CASE("another thing that draws goes on from what is kept") {
    Player player(loop_of_two());
    draw_by(player, Backend::gpu);
    (void)player.picture(tick_time(30));
    draw_by(player, Backend::cpu);
    const Frame frame = player.frame(tick_time(31));
    CHECK(frame.ticks > 0);
    CHECK(frame.ticks <= Simulation::ticks_between_fetches);
    Player strips(loop_of_two());
    CHECK(largest_difference(frame.steps[0].picture, strips.picture(tick_time(31))) < 2e-3);
    draw_by(player, Backend::gpu);
    CHECK(largest_difference(player.picture(tick_time(60)), strips.picture(tick_time(60))) < 2e-3);
}

TEST_CASE("steps that keep halves are rounded alike by whatever draws") {
    Finish finish = loop_of_two();
    for (Step& step : finish.coats[0].steps.own()) step.ticking.half = step.ticking.width > 0;
    Player strips(finish);
    Player shaders(finish);
    draw_by(shaders, Backend::gpu);
    for (const std::int64_t tick : {5, 30}) {
        const Picture picture = shaders.picture(tick_time(tick), "smoke");
        CHECK(largest_difference(strips.picture(tick_time(tick), "smoke"), picture) < 4e-3);
        CHECK(std::all_of(picture.data.begin(), picture.data.end(),
                          [](float value) { return float_from(half_from(value)) == value; }));
    }
}

// A loop carries on whatever differs: a mean is held to, not single pixels.
TEST_CASE("the demos' loops are the same by either back end") {
    for (const char* name : {"chimney-smoke", "lamp-flame", "wake", "phosphor-sea", "walked-clear"}) {
        INFO(name);
        const std::string path = test::demo_path(name);
        const Result<OpenedFinish> file = load_finish(path);
        REQUIRE(file);
        Player strips(file->finish);
        Player shaders(file->finish);
        draw_by(shaders, Backend::gpu);
        for (Player* player : {&strips, &shaders}) {
            player->request.finish_path = path;
            player->request.frame_width = 160;
            player->request.frame_height = 90;
        }
        const Picture by_strips = strips.picture(1);
        const Picture by_shaders = shaders.picture(1);
        CHECK(mean_difference(by_strips, by_shaders) < 1e-3);
    }
}
