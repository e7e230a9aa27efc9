// What is measured over the range of a dial, held to plain arithmetic.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <filesystem>

#include "core/finish/edits.h"
#include "core/finish/variants.h"
#include "core/inspect/even_pace.h"
#include "core/inspect/measure.h"
#include "core/inspect/report.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::finish_of;
using test::with_dial;
using test::with_scene;

namespace {

Finish small(Finish finish, int width = 192, int height = 108) {
    finish.frame_width = width;
    finish.frame_height = height;
    return finish;
}

struct Bench {
    WorkerPool pool{2};
    Renderer renderer{pool};
    Cancel cancel;

    RenderRequest request(const Finish& finish, const std::string& path = {}) const {
        RenderRequest request;
        request.checked = test::checked(finish);
        request.finish_path = path;
        for (const CheckedStep& step : request.checked->steps) {
            INFO(step.name);
            if (step.fault) FAIL(to_text(*step.fault));
        }
        return request;
    }

    Measured one(const Finish& finish, const std::string& dial, const std::string& id, const std::string& path = {}) {
        const std::vector<Measured> all =
            measure(request(finish, path), renderer, cancel, whole_range(*find_dial(finish, dial)), {false, {id}});
        REQUIRE(all.size() == 1);
        return all.front();
    }
};

double number(const Measured& measured, const std::string& name) {
    for (const auto& [each, value] : measured.numbers) {
        if (each == name) return value;
    }
    INFO(measured.words);
    FAIL("no number " << name);
    return 0;
}

}  // namespace

// A line that crosses the frame evenly: plain arithmetic.
TEST_CASE("a wipe along an axis has an even pace within one column") {
    Bench bench;
    const Finish wipe = small(with_dial(finish_of({{"cut", "vec4(vec3(1), step(gone, uv.x))"}}), "gone", 0, 1));
    const Measured pace = bench.one(wipe, "gone", "pace");
    INFO(pace.words);
    CHECK(pace.verdict == Verdict::passes);
    CHECK(number(pace, "largest deviation") < 1.0 / 192);
    CHECK(pace.mends.empty());
}

// The share of values below a threshold is the distribution function, by its definition.
TEST_CASE("a threshold on a noise gives that noise's own histogram") {
    Bench bench;
    const Finish finish = small(with_dial(
        finish_of({{"pattern", "value_noise(uv * 9)"}, {"cut", "vec4(vec3(1), step(gone, pattern))"}}), "gone", 0, 1));
    const Measured pace = bench.one(finish, "gone", "pace");
    CHECK(pace.verdict == Verdict::falls_short);
    Picture noise = test::draw(finish, "pattern", 192, 108).picture;
    std::sort(noise.data.begin(), noise.data.end());
    REQUIRE(pace.curves.front().points.size() > 40);
    for (const auto& [value, share] : pace.curves.front().points) {
        const auto below = std::lower_bound(noise.data.begin(), noise.data.end(), static_cast<float>(value));
        const double wanted = static_cast<double>(below - noise.data.begin()) / static_cast<double>(noise.data.size());
        CHECK(share == Approx(wanted).margin(1e-9));
    }
}

TEST_CASE("even the pace brings a threshold on any noise within 1 % of even, also once more, also on another range") {
    Bench bench;
    for (const char* noise :
         {"value_noise(uv * 9)", "gradient_noise(uv * 6) * 0.5 + 0.5", "cells(0.2)", "mottle(0.2)", "pow(uv.x, 3.0)"}) {
        for (const double most : {1.0, 2.0}) {
            INFO(noise << " to " << most);
            const Finish finish =
                small(with_dial(finish_of({{"pattern", noise},
                                           {"cut", "vec4(vec3(1), step((gone + 1) / " + std::to_string(most + 1) +
                                                       " * 1.2 - 0.1, pattern))"}}),
                                "gone", -1, most));
            const Measured before = bench.one(finish, "gone", "pace");
            REQUIRE(before.mends.size() == 1);
            const Result<Finish> evened = before.mends.front().apply(finish);
            REQUIRE(evened);
            const Measured after = bench.one(*evened, "gone", "pace");
            INFO(after.words);
            CHECK(number(after, "largest deviation") < 0.01);
            // The curve can be edited, and evened again: it is changed, not laid on another.
            Finish bent = *evened;
            for (Ground& ground : bent.grounds) {
                auto* curve = ground.as<CurveGround>();
                REQUIRE(curve != nullptr);
                CHECK(curve->stops.list.size() <= 64);
                curve->stops.list = {{0, {0, 0, 0, 1}, {}}, {0.5, {0.8, 0, 0, 1}, {}}, {1, {1, 0, 0, 1}, {}}};
            }
            const Measured uneven = bench.one(bent, "gone", "pace");
            REQUIRE(uneven.mends.size() == 1);
            const Result<Finish> again = uneven.mends.front().apply(bent);
            REQUIRE(again);
            CHECK(again->grounds.size() == 1);
            CHECK(step_count(*again) == step_count(*evened));
            CHECK(number(bench.one(*again, "gone", "pace"), "largest deviation") < 0.01);
        }
    }
}

TEST_CASE("even the pace brings every dissolve, with any of its noises, within 1 % of even") {
    Bench bench;
    for (const char* demo :
         {"dissolve", "dissolve:cells", "dissolve:swirl", "dissolve:wipe", "dissolve:torn_wipe", "dissolve-outline"}) {
        INFO(demo);
        const Finish finish = test::demo_named(demo);
        const Measured before = bench.one(finish, "amount", "pace", test::demo_path(demo));
        REQUIRE(before.mends.size() == 1);
        const Result<Finish> evened = before.mends.front().apply(finish);
        REQUIRE(evened);
        const Measured after = bench.one(*evened, "amount", "pace", test::demo_path(demo));
        INFO(after.words);
        CHECK(number(after, "largest deviation") < 0.01);
    }
}

TEST_CASE("even the pace finds free names, and evens a range that was changed since then anew") {
    Bench bench;
    const Finish finish = small(
        with_dial(finish_of({{"gone_even", "0.5"}, {"cut", "vec4(vec3(1), step(gone * gone, uv.x))"}}), "gone", 0, 1));
    const Measured pace = bench.one(finish, "gone", "pace");
    REQUIRE(pace.mends.size() == 1);
    Result<Finish> evened = pace.mends.front().apply(finish);
    REQUIRE(evened);
    CHECK(find_step(*evened, "gone_even")->formula == "0.5");
    CHECK(find_step(*evened, "gone_even_2") != nullptr);
    CHECK(number(bench.one(*evened, "gone", "pace"), "largest deviation") < 0.01);
    Finish wider = *evened;
    wider.dials[0].most = 1.5;
    const Measured uneven = bench.one(wider, "gone", "pace");
    REQUIRE(uneven.mends.size() == 1);
    const Result<Finish> again = uneven.mends.front().apply(wider);
    REQUIRE(again);
    CHECK(number(bench.one(*again, "gone", "pace"), "largest deviation") < 0.01);
    const auto renamed = rename(*again, "gone", "lost");
    REQUIRE(renamed);
    CHECK(number(bench.one(*renamed, "lost", "pace"), "largest deviation") < 0.01);
}

TEST_CASE("a way to and fro has no pace") {
    Bench bench;
    const Finish empty = with_dial(finish_of({{"cut", "gone"}}), "gone", 0, 1);
    const Result<Finish> no_way = even_the_pace(empty, whole_range(empty.dials[0]), Way());
    REQUIRE_FALSE(no_way);
    CHECK(no_way.fault().id == "edit.pace");
    const Finish swings =
        small(with_dial(finish_of({{"cut", "vec4(vec3(sin(turn * 20) + turn * 0.1), 1)"}}), "turn", 0, 1));
    const Measured swing = bench.one(swings, "turn", "pace");
    CHECK(swing.verdict == Verdict::says_nothing);
    CHECK(swing.words.find("to and fro") != std::string::npos);
}

TEST_CASE("dead travel is found within 1 %, and cut") {
    Bench bench;
    const Finish late = small(with_dial(finish_of({{"cut", "vec4(vec3(1), step(gone / 0.7, uv.x))"}}), "gone", 0, 1));
    const Measured dead = bench.one(late, "gone", "dead_travel");
    INFO(dead.words);
    CHECK(dead.verdict == Verdict::falls_short);
    CHECK(number(dead, "from") == Approx(0.7).margin(0.01));
    CHECK(number(dead, "to") == Approx(1));
    REQUIRE(dead.mends.size() == 1);
    const Result<Finish> cut = dead.mends.front().apply(late);
    REQUIRE(cut);
    CHECK(cut->dials[0].most == Approx(0.7).margin(0.01));
    CHECK(bench.one(*cut, "gone", "dead_travel").verdict == Verdict::passes);
    const Finish early =
        small(with_dial(finish_of({{"cut", "vec4(vec3(1), step((gone - 0.3) / 0.7, uv.x))"}}), "gone", 0, 1));
    CHECK(number(bench.one(early, "gone", "dead_travel"), "to") == Approx(0.3).margin(0.01));
    const Finish middle = small(with_dial(
        finish_of({{"cut", "vec4(vec3(1), step(min(gone, 0.3) + max(gone - 0.61, 0.0), uv.x))"}}), "gone", 0, 1));
    const Measured between = bench.one(middle, "gone", "dead_travel");
    CHECK(number(between, "from") == Approx(0.3).margin(0.01));
    CHECK(number(between, "to") == Approx(0.61).margin(0.01));
    CHECK(between.mends.empty());
}

TEST_CASE("a cut range takes the dial's value and the response that drives it along") {
    Finish finish = with_dial(finish_of({{"cut", "vec4(vec3(1), step(gone / 0.7, uv.x))"}}), "gone", 0, 1, "burn");
    finish.responses.push_back({"burn", "sweep", "", {{"from", 0.0}, {"to", 1.0}, {"seconds", 2.0}}});
    finish.dials[0].value = {1, 0, 0};
    Bench bench;
    const Measured dead = bench.one(small(finish), "gone", "dead_travel");
    REQUIRE(dead.mends.size() == 1);
    const Result<Finish> cut = dead.mends.front().apply(finish);
    REQUIRE(cut);
    CHECK(cut->dials[0].value[0] == Approx(0.7).margin(0.01));
    CHECK(number_of(cut->responses[0], "to") == cut->dials[0].most);
    CHECK(number_of(cut->responses[0], "from") == 0.0);
}

TEST_CASE("a jump is found where it is, and a steep way is none") {
    Bench bench;
    const Finish jumps = small(with_dial(
        finish_of({{"cut", "vec4(vec3(1), step(gone > 0.37 ? gone * 0.5 + 0.4 : gone * 0.5, uv.x))"}}), "gone", 0, 1));
    const Measured jump = bench.one(jumps, "gone", "jump");
    INFO(jump.words);
    CHECK(jump.verdict == Verdict::falls_short);
    CHECK(number(jump, "at") == Approx(0.37).margin(0.001));
    CHECK(number(jump, "largest") == Approx(0.4).margin(0.02));
    const Finish steep =
        small(with_dial(finish_of({{"cut", "vec4(vec3(1), 1 - smoothstep(0.45, 0.55, gone))"}}), "gone", 0, 1));
    CHECK(bench.one(steep, "gone", "jump").verdict == Verdict::passes);
}

TEST_CASE("rest and end count pixels of the whole frame") {
    Bench bench;
    const Finish clean =
        small(with_scene(with_dial(finish_of({{"cut", "vec4(scene.rgb, scene.a * step(gone, uv.x * 0.99 + 0.005))"}}),
                                   "gone", 0, 1)),
              321, 181);
    CHECK(bench.one(clean, "gone", "rest").verdict == Verdict::passes);
    const Measured end = bench.one(clean, "gone", "end");
    INFO(end.words);
    CHECK(end.verdict == Verdict::passes);
    CHECK(number(end, "of") == 321 * 181);
    // The last column stays, the first pixel is another.
    const Finish unclean =
        small(with_scene(with_dial(finish_of({{"cut",
                                               "vec4(pixel.x + pixel.y < 2.0 ? scene.rgb + 0.1 : scene.rgb, scene.a * "
                                               "step(gone, uv.x + 1.0 / 321))"}}),
                                   "gone", 0, 1)),
              321, 181);
    const Measured left = bench.one(unclean, "gone", "end");
    INFO(left.words);
    CHECK(left.verdict == Verdict::falls_short);
    CHECK(number(left, "left") == 181);
    CHECK(left.words.find("the first at 320, 0") != std::string::npos);
    const Measured rest = bench.one(unclean, "gone", "rest");
    INFO(rest.words);
    CHECK(rest.verdict == Verdict::falls_short);
    CHECK(number(rest, "largest difference") == Approx(0.1).margin(1e-5));
    CHECK(number(rest, "pixels") >= 1);
}

// C12 of the trade's own check values, common practice, no source: white does not burn at 1 plus the widest band.
TEST_CASE("the brightness burn's rest value is 1 plus its widest band") {
    Bench bench;
    for (const double band : {0.1, 0.25}) {
        Finish finish = with_dial(finish_of({{"scene", "vec4(vec3(uv.x), 1)"}}), "edge", -0.5, 2);
        finish = small(with_scene(finish_of({{"light", "uv.x * 321.0 / 320.0 - 0.5 / 320.0"},
                                             {"picture", "vec4(vec3(light), scene.a)"},
                                             {"burnt", "edge < light + " + std::to_string(band) +
                                                           " ? vec4(0, 0, 0, scene.a) : scene"}})),
                       321, 90);
        finish = with_dial(finish, "edge", -0.5, 2);
        const Measured rest = bench.one(finish, "edge", "rest_value");
        INFO(rest.words);
        CHECK(number(rest, "rest") == Approx(1 + band).margin(0.001));
        CHECK(number(rest, "burnt") == Approx(band).margin(0.001));
        REQUIRE(rest.mends.size() == 1);
        const Result<Finish> set = rest.mends.front().apply(finish);
        REQUIRE(set);
        CHECK(set->dials[0].most == Approx(1 + band).margin(0.001));
        CHECK(bench.one(*set, "edge", "rest_value").verdict == Verdict::passes);
    }
}

TEST_CASE("what leaves 0..1 or is no number is told with the value at which it does") {
    Bench bench;
    const Finish clear = small(with_dial(finish_of({{"cut", "vec4(vec3(1), 1.2 - gone)"}}), "gone", 0, 1));
    const Measured range = bench.one(clear, "gone", "range");
    INFO(range.words);
    CHECK(range.verdict == Verdict::falls_short);
    CHECK(number(range, "at") == 0);
    CHECK(range.words.find("opacity leaves 0..1") != std::string::npos);
    const Finish broken = small(
        with_dial(finish_of({{"cut", "vec4(vec3(1), 1.0 / max(0.5 - gone, 0.0) > 0 ? 1 : 0)"}, {"out", "cut / gone"}}),
                  "gone", 0, 1));
    CHECK(bench.one(broken, "gone", "range").words.find("isn't a number") != std::string::npos);
    const Finish good = small(with_dial(finish_of({{"cut", "vec4(vec3(1), gone)"}}), "gone", 0, 1));
    CHECK(bench.one(good, "gone", "range").verdict == Verdict::passes);
}

TEST_CASE("a dial that does nothing is found; whole values have no pace") {
    Bench bench;
    Finish finish =
        small(with_dial(with_dial(finish_of({{"cut", "vec4(vec3(gone), 1)"}}), "gone", 0, 1), "idle", 0, 1));
    CHECK(bench.one(finish, "gone", "seen").verdict == Verdict::passes);
    CHECK(bench.one(finish, "idle", "seen").verdict == Verdict::falls_short);
    CHECK(bench.one(finish, "idle", "dead_travel").verdict == Verdict::says_nothing);
    finish.dials[0].kind = DialKind::integer;
    finish.dials[0].most = 7;
    CHECK(bench.one(finish, "gone", "pace").verdict == Verdict::says_nothing);
    CHECK(bench.one(finish, "gone", "seen").verdict == Verdict::passes);
    finish.dials[0].kind = DialKind::toggle;
    CHECK(bench.one(finish, "gone", "seen").verdict == Verdict::passes);
    finish.dials[0].kind = DialKind::colour;
    finish.coats[0].steps[0].formula = "vec4(gone, 1)";
    CHECK(bench.one(finish, "gone", "seen").verdict == Verdict::passes);
}

TEST_CASE("what holds in one frame shape and not in another is told with the shape") {
    Bench bench;
    // Clear of the middle by a third of the width: the sides of a portrait frame are nearer.
    const Finish finish =
        small(with_scene(with_dial(finish_of({{"far", "length((uv - 0.5) * vec2(aspect, 1.0))"},
                                              {"cut", "vec4(scene.rgb, scene.a * (far < 1.03 - gone ? 1 : 0))"}}),
                                   "gone", 0, 1.04)));
    const RenderRequest request = bench.request(finish);
    const Sweep sweep = whole_range(finish.dials[0]);
    const auto here = measure(request, bench.renderer, bench.cancel, sweep, {false, {"rest"}});
    const auto everywhere = measure(request, bench.renderer, bench.cancel, sweep, {true, {"rest"}});
    REQUIRE(everywhere.size() == 1);
    INFO(here[0].words << " / " << everywhere[0].words);
    CHECK(here[0].verdict == Verdict::passes);
    CHECK(everywhere[0].verdict == Verdict::falls_short);
    CHECK(everywhere[0].shape == "21:9");
}

TEST_CASE("promises are kept, broken, or unknown; a measure that can't be is no kept promise") {
    Bench bench;
    Finish finish = small(with_dial(finish_of({{"cut", "vec4(vec3(1), step(gone * gone, uv.x))"}}), "gone", 0, 1));
    const auto falls_short = [&] {
        return report_of(bench.request(finish), bench.renderer, bench.cancel, {}).falls_short();
    };
    CHECK_FALSE(falls_short());
    finish.dials[0].promises = {"seen", "jump"};
    CHECK_FALSE(falls_short());
    finish.dials[0].promises = {"pace"};
    CHECK(falls_short());
    finish.dials[0].promises = {"rest"};
    CHECK(falls_short());
    finish.dials[0].promises = {"gait"};
    CHECK(falls_short());
}

TEST_CASE("every demo, with every variant, keeps what it promises") {
    Bench bench;
    std::size_t promises = 0;
    for (const auto& entry : std::filesystem::directory_iterator(LACQUER_SOURCE "/demo/finishes")) {
        const std::string name = entry.path().stem().string();
        const Finish finish = test::demo_named(name);
        std::vector<std::string> variants = {""};
        for (const Variant& variant : finish.variants) variants.push_back(variant.name);
        for (const std::string& variant : variants) {
            INFO(name << " " << variant);
            RenderRequest request = bench.request(switch_variant(finish, variant), entry.path().string());
            // A quarter of the frame, so that this takes no minutes.
            request.frame_width = finish.frame_width / 4;
            request.frame_height = finish.frame_height / 4;
            request.time = liveliest_moment(*request.checked, finish.tape);
            const InspectReport report =
                report_of(request, bench.renderer, bench.cancel, {false, false, {}, {"nothing else"}});
            CHECK(report.unknown_promises.empty());
            for (const DialReport& dial : report.dials) {
                for (const Measured& one : dial.measured) {
                    INFO(dial.dial << ": " << one.title << ": " << one.words);
                    CHECK(one.verdict == Verdict::passes);
                    ++promises;
                }
            }
        }
    }
    CHECK(promises > 100);
}

TEST_CASE("a measure that is called off gives what it has") {
    WorkerPool pool(1);
    Renderer renderer(pool);
    Cancel cancel;
    cancel.request();
    const Finish finish = small(with_dial(finish_of({{"cut", "vec4(vec3(gone), 1)"}}), "gone", 0, 1));
    RenderRequest request;
    request.checked = test::checked(finish);
    CHECK(measure(request, renderer, cancel, whole_range(finish.dials[0])).empty());
    CHECK(measure(request, renderer, Cancel(), {"nobody", 0, 1, {}}).empty());
}

TEST_CASE("a sweep over a part of the range is measured, and offers no curve that would flatten the rest") {
    Bench bench;
    const Finish finish =
        small(with_dial(finish_of({{"cut", "vec4(vec3(1), step(gone * gone, uv.x))"}}), "gone", 0, 1));
    const auto part =
        measure(bench.request(finish), bench.renderer, bench.cancel, {"gone", 0.25, 0.75, {}}, {false, {"pace"}, {}});
    REQUIRE(part.size() == 1);
    CHECK(part[0].verdict == Verdict::falls_short);
    CHECK(part[0].mends.empty());
}
