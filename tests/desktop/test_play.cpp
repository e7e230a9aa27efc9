// Time and cues, with a clock that the test turns.
#include <catch2/catch.hpp>

#include "desktop/rehearse/cue_pads.h"
#include "desktop/rehearse/time_rule.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

TEST_CASE("time plays by the clock, loops, pauses and steps by frames") {
    BenchWindow bench(test::demo_path());
    bench.key(Qt::Key_Space);
    REQUIRE(bench.playing().playing());
    bench.clock += 1.25;
    bench.wait_for([&] { return bench.playing().time() > 1.2; });
    CHECK(bench.playing().time() == Approx(1.25));
    bench.clock += 5;
    bench.wait_for([&] { return bench.playing().time() < 1; });
    CHECK(bench.playing().time() == Approx(0.25));
    bench.key(Qt::Key_Space);
    CHECK_FALSE(bench.playing().playing());
    bench.clock += 9;
    bench.key(Qt::Key_Period);
    CHECK(bench.playing().time() == Approx(16.0 / 60));
    bench.key(Qt::Key_Comma);
    bench.key(Qt::Key_Comma);
    CHECK(bench.playing().time() == Approx(14.0 / 60));
    bench.key(Qt::Key_Home);
    CHECK(bench.playing().time() == 0);
}

TEST_CASE("the time rule is scrubbed by the mouse, and the stage follows") {
    BenchWindow bench(test::demo_path());
    TimeRule& rule = bench.window().time_rule();
    bench.drag(&rule, QPoint(rule.x_of(0.1), 30), QPoint(rule.x_of(0.8), 30));
    CHECK(bench.playing().time() == Approx(0.8).margin(0.02));
    CHECK(qRed(bench.stage_pixel(3, 3)) > 60);
    bench.click(&rule, QPoint(rule.x_of(0), 30));
    CHECK(bench.playing().time() == 0);
}

TEST_CASE("a pressed cue closes the edge in and opens it again; a second one takes over without a jump") {
    BenchWindow bench(test::demo_path());
    bench.action("clear_tape");
    const QRgb rest = bench.stage_pixel(8, 8);
    bench.playing().set_time(1);
    CuePads& pads = bench.window().cue_pads();
    bench.drag(&pads, pads.strength_area(0).center(),
               QPoint(pads.strength_area(0).right(), pads.strength_area(0).center().y()));
    CHECK(bench.document().finish().cues[0].strength == 1);
    bench.click(&pads, pads.pad_area(0).topLeft() + QPoint(20, 10));
    REQUIRE(bench.document().finish().tape.cues.size() == 1);
    CHECK(bench.document().finish().tape.cues[0] == Cue{"hit", 1, 1, 20});
    bench.playing().set_time(1.2);
    CHECK(qRed(bench.stage_pixel(8, 8)) > qRed(rest) + 40);
    const double radius = setting_from(bench.playing().values().at("radius"))[0];
    bench.key(Qt::Key_1);
    CHECK(bench.document().finish().tape.cues.size() == 2);
    CHECK(setting_from(bench.playing().values().at("radius"))[0] == radius);
    bench.playing().set_time(4);
    CHECK(bench.stage_pixel(8, 8) == rest);
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(bench.document().finish().tape.cues.size() == 1);
}

TEST_CASE("a cue on the rule is chosen and taken off the tape") {
    BenchWindow bench(test::demo_path());
    TimeRule& rule = bench.window().time_rule();
    const Cues before = bench.document().finish().tape.cues;
    bench.click(&rule, QPoint(rule.x_of(before[1].at), 17));
    rule.setFocus();
    bench.key(Qt::Key_Delete);
    REQUIRE(bench.document().finish().tape.cues.size() == before.size() - 1);
    CHECK(bench.document().finish().tape.cues[1] == before[2]);
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(bench.document().finish().tape.cues == before);
}
