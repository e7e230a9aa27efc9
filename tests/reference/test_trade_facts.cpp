// Facts of the trade that the demo finishes and their operations must hold to. All of them: common practice, no source.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "core/finish/edits.h"
#include "tests/support/finishes.h"
#include "tests/support/operations.h"

using namespace lacquer;

namespace {

constexpr int side = 120;

// A demo with dials held at these values, drawn small.
Picture drawn(const std::string& name, const HeldDials& held, const std::string& step = "", double time = 0,
              int width = side, int height = side, const std::shared_ptr<const Tape>& tape = nullptr) {
    RenderRequest request;
    request.tape = tape;
    request.checked = test::checked(test::demo_named(name));
    for (const CheckedStep& known : request.checked->steps) {
        if (known.fault) FAIL(known.name << ": " << to_text(*known.fault));
    }
    request.finish_path = test::demo_path(name);
    request.frame_width = width;
    request.frame_height = height;
    request.time = time;
    request.held = held;
    request.steps = {step};
    WorkerPool pool(2);
    Renderer renderer(pool);
    Result<Frame> frame = renderer.render(request, Cancel());
    if (!frame) FAIL(to_text(frame.fault()));
    REQUIRE(frame->notices.empty());
    return std::move(frame->steps.at(0).picture);
}

Picture ground_of(const std::string& name, const std::string& ground, int width = side, int height = side) {
    RenderRequest request;
    Finish finish = test::demo_named(name);
    finish.coats = {Coat{"Plain", "", true, false, {Step{"plain", ground, "", true, false, {}}}, {}}};
    request.checked = test::checked(finish);
    request.finish_path = test::demo_path(name);
    request.frame_width = width;
    request.frame_height = height;
    request.steps = {""};
    WorkerPool pool(2);
    Renderer renderer(pool);
    Result<Frame> frame = renderer.render(request, Cancel());
    REQUIRE(frame);
    return std::move(frame->steps.at(0).picture);
}

double opacity_of(const Picture& picture) {
    double sum = 0;
    for (std::size_t i = 3; i < picture.data.size(); i += 4) sum += static_cast<double>(picture.data[i]);
    return sum;
}

const std::vector<std::string> dissolves = {"dissolve", "dissolve:cells", "dissolve:swirl", "dissolve:wipe",
                                            "dissolve:torn_wipe"};

}  // namespace

TEST_CASE("a dissolve at 0 is exactly whole and at 1 exactly gone, rim included, for every noise") {
    for (const std::string& name : dissolves) {
        const Picture crab = ground_of(name, "crab");
        for (const double rim : {0.0, 0.09, 0.5}) {
            for (const double time : {0.0, 3.3}) {
                INFO(name << " with a rim of " << rim << " at " << time);
                CHECK(drawn(name, {{"amount", {0}}, {"rim_width", {rim}}}, "", time).data == crab.data);
                CHECK(opacity_of(drawn(name, {{"amount", {1}}, {"rim_width", {rim}}}, "", time)) == 0.0);
            }
        }
    }
}

TEST_CASE("a dissolve only ever loses, and evenly") {
    for (const std::string& name : dissolves) {
        // Large enough for an even pace to have a fine table.
        constexpr int wide_side = 480;
        const double whole = opacity_of(drawn(name, {{"amount", {0}}}, "", 0, wide_side, wide_side));
        double before = whole;
        for (double amount = 0.1; amount < 1; amount += 0.2) {
            const double now =
                opacity_of(drawn(name, {{"amount", {amount}}, {"rim_width", {0.01}}}, "", 0, wide_side, wide_side));
            INFO(name << " at " << amount);
            CHECK(now <= before);
            // In each step the same share of the crab goes. A plain wipe goes by its way instead.
            if (name != "dissolve:wipe") CHECK(now / whole == Approx(1 - amount).margin(0.03));
            before = now;
        }
    }
}

TEST_CASE("the rim lies within what is still opaque, and shows none of the sprite's own colour unless asked") {
    const Picture burnt = drawn("dissolve", {{"amount", {0.5}}, {"own_colour", {0}}});
    const Picture rim = drawn("dissolve", {{"amount", {0.5}}, {"own_colour", {0}}}, "rim");
    const Picture lost = drawn("dissolve", {{"amount", {0.5}}}, "lost");
    std::size_t rims = 0;
    for (int y = 0; y < side; ++y) {
        for (int x = 0; x < side; ++x) {
            REQUIRE(rim.at(x, y)[0] * lost.at(x, y)[0] == 0.0F);
            if (rim.at(x, y)[0] != 1.0F) continue;
            ++rims;
            REQUIRE(burnt.at(x, y)[0] == Approx(3.2));
            REQUIRE(burnt.at(x, y)[2] == Approx(0.25));
        }
    }
    CHECK(rims > 50);
}

TEST_CASE("a rim wider than everything at amount 0 is an outline") {
    const Picture picture = drawn("dissolve-outline", {{"amount", {0}}});
    const Picture crab = ground_of("dissolve-outline", "crab");
    CHECK(opacity_of(picture) > 1.1 * opacity_of(crab));
    for (int y = 0; y < side; ++y) {
        for (int x = 0; x < side; ++x) {
            // The crab itself is as it was.
            if (crab.at(x, y)[3] == 1.0F) REQUIRE(picture.at(x, y)[1] == Approx(crab.at(x, y)[1]).margin(1e-6));
        }
    }
    CHECK(opacity_of(drawn("dissolve-outline", {{"amount", {1}}})) == 0.0);
}

TEST_CASE("at rest no brightness burns, white included; at the end all has gone, black too") {
    const Finish finish = test::demo_named("brightness-burn");
    const double rest = find_dial(finish, "rest")->value[0];
    const double end = find_dial(finish, "end")->value[0];
    // The rest value is 1 plus the widest band.
    CHECK(rest == Approx(1 + std::max(find_dial(finish, "inner")->value[0], find_dial(finish, "outer")->value[0])));
    CHECK(end < 0);
    const Picture scene = ground_of("brightness-burn", "scene", 160, 90);
    CHECK(drawn("brightness-burn", {{"edge", {rest}}}, "", 0, 160, 90).data == scene.data);
    // Before the delay has passed it is at rest by itself.
    CHECK(drawn("brightness-burn", {}, "", 0.49, 160, 90).data == scene.data);
    const Picture burnt = drawn("brightness-burn", {{"edge", {end}}}, "", 0, 160, 90);
    for (std::size_t i = 0; i < burnt.data.size(); ++i) REQUIRE(burnt.data[i] == (i % 4 == 3 ? 1.0F : 0.0F));
    // A rate a second: after the delay and one second it has fallen by the rate.
    const Picture half = drawn("brightness-burn", {{"rest", {1.3}}, {"rate", {0.5}}}, "gone", 1.5, 160, 90);
    const Picture same = drawn("brightness-burn", {{"edge", {0.8}}}, "gone", 0, 160, 90);
    CHECK(half.data == same.data);
}

TEST_CASE("a ring blur with one reading is shifted by the radius, with two it is two half-bright copies") {
    const auto line = [](const std::string& call, int x) {
        return test::picture_of({{"view", "vec4(vec3(step(abs(pixel.x - 50), 0.2)), 1)"}, {"soft", call}}, 100, 8)
            .at(x, 4)[0];
    };
    CHECK(line("ring_blur(view, 12, 1)", 38) == Approx(1).margin(1e-5));
    CHECK(line("ring_blur(view, 12, 1)", 50) == Approx(0).margin(1e-5));
    CHECK(line("ring_blur(view, 12, 2)", 38) == Approx(0.5).margin(1e-5));
    CHECK(line("ring_blur(view, 12, 2)", 62) == Approx(0.5).margin(1e-5));
    CHECK(line("ring_blur(view, 12, 2)", 50) == Approx(0).margin(1e-5));
    // Radius 0 changes nothing; test_neighbours.cpp holds it, and the kept brightness for any count, to the bit.
    const Picture scene = ground_of("daze", "scene", 160, 90);
    CHECK(drawn("daze", {{"radius", {0}}}, "dazed", 0, 160, 90).data == scene.data);
}

TEST_CASE("averages of dark paint round down to black without the gain") {
    const std::string dark = "vec4(vec3(0.04, 0.05, 0.03) + 0.01 * uv.x, 1)";
    const Picture plain = test::picture_of({{"view", dark}, {"flat", "coarsen(view, 0.1, 0, 1)"}}, 40, 10);
    const Picture lit =
        test::picture_of({{"view", dark}, {"lit", "gain(view, 4)"}, {"flat", "coarsen(lit, 0.1, 0, 1)"}}, 40, 10);
    for (std::size_t i = 0; i < plain.data.size(); ++i) {
        if (i % 4 == 3) continue;
        REQUIRE(plain.data[i] == 0.0F);
        REQUIRE(lit.data[i] >= 0.1F - 1e-6F);
    }
    CHECK(drawn("flat-paint", {{"boost", {0}}, {"warmth", {0}}, {"hardness", {1}}}, "flat", 0, 160, 90).at(80, 45)[0] ==
          0.0F);
}

TEST_CASE("a broken mirror of amplitude 0 is the picture") {
    const Picture scene = ground_of("broken-mirror", "scene", 160, 90);
    CHECK(drawn("broken-mirror", {{"harm", {0}}}, "", 1.7, 160, 90).data == scene.data);
    CHECK(drawn("broken-mirror", {{"harm", {1}}, {"reach", {0}}}, "", 1.7, 160, 90).data == scene.data);
    CHECK(drawn("broken-mirror", {{"harm", {1}}}, "", 1.7, 160, 90).data != scene.data);
    // Noise is the same all over a tile.
    const Picture places = drawn("broken-mirror", {{"harm", {0.8}}, {"count", {4}}}, "places", 0, 160, 90);
    const float shift = places.at(45, 30)[0] - 45.5F / 160;
    CHECK(places.at(70, 40)[0] - 70.5F / 160 == Approx(shift).margin(1e-5));
}

TEST_CASE("a blink repeats every pi over its speed, and depth and rate of a pulse leave each other alone") {
    // Its own tape switches both off and on.
    const auto untouched = std::make_shared<const Tape>();
    const auto seen = [&](double speed, double time) {
        return drawn("blink-and-pulse", {{"speed", {speed}}}, "seen", time, 4, 4, untouched).data[0];
    };
    for (const double speed : {1.0, 3.0, 7.5}) {
        for (const double time : {0.1, 0.37, 1.2}) {
            CHECK(seen(speed, time) == Approx(seen(speed, time + M_PI / speed)).margin(1e-4));
            CHECK(seen(speed, time) == Approx(std::fabs(std::sin(speed * time))).margin(1e-4));
        }
    }
    const auto share = [&](double depth, double rate, double time) {
        return drawn("blink-and-pulse", {{"depth", {depth}}, {"rate", {rate}}}, "share", time, 4, 4, untouched).data[0];
    };
    CHECK(share(0.5, 2, 0.25) == Approx(0.5).margin(1e-5));
    CHECK(share(1, 2, 0.25) == Approx(1).margin(1e-5));
    CHECK(share(0.5, 4, 0.125) == Approx(0.5).margin(1e-5));
    CHECK(share(0.8, 0, 0.3) == 0.0F);
    CHECK(share(0.8, 0, 5.3) == 0.0F);
    // Each switched off alone.
    const Picture crab = ground_of("blink-and-pulse", "crab");
    CHECK(drawn("blink-and-pulse", {{"blinks", {0}}, {"pulses", {0}}}, "", 0.7).data == crab.data);
}

TEST_CASE("a glow leaves a picture without anything above its threshold untouched") {
    const std::string view = "vec4(value_noise(uv * 9), uv, 0.7)";
    const Picture plain = test::picture_of({{"view", view}}, 96, 64);
    CHECK(test::picture_of({{"view", view}, {"made", "glow(view, 1.0, 0.5, 30, 3)"}}, 96, 64).data == plain.data);
    // Around one bright spot it falls off without a step: no blocks.
    const Picture spot = test::picture_of(
        {{"view", "vec4(vec3(8 * step(length(pixel - 150), 4.5)), 1)"}, {"made", "glow(view, 1, 0.2, 24, 1)"}}, 300,
        300);
    float steepest = 0;
    for (int x = 160; x < 290; ++x) {
        CHECK(spot.at(x + 1, 150)[0] <= spot.at(x, 150)[0] + 1e-5F);
        steepest = std::max(steepest, spot.at(x, 150)[0] - spot.at(x + 1, 150)[0]);
    }
    CHECK(spot.at(165, 150)[0] > 0.001F);
    CHECK(steepest < 0.15F * spot.at(160, 150)[0]);
}

TEST_CASE("everyday transitions are exactly the first picture at 0 and exactly the second at 1") {
    for (const std::string name : {"everyday-crossfade", "everyday-wipe", "everyday-cut"}) {
        INFO(name);
        CHECK(drawn(name, {{"amount", {0}}}, "", 0, 160, 90).data == ground_of(name, "scene", 160, 90).data);
        CHECK(drawn(name, {{"amount", {1}}}, "", 0, 160, 90).data == ground_of(name, "chart", 160, 90).data);
    }
    for (const std::string name : {"everyday-fade", "everyday-desaturate", "everyday-grade"}) {
        INFO(name);
        CHECK(drawn(name, {{"amount", {0}}}, "", 0, 160, 90).data == ground_of(name, "scene", 160, 90).data);
        CHECK(drawn(name, {{"amount", {1}}}, "", 0, 160, 90).data != ground_of(name, "scene", 160, 90).data);
    }
    CHECK(drawn("everyday-flash", {}, "", 0, 160, 90).data == ground_of("everyday-flash", "scene", 160, 90).data);
}
