// Tapes, signals and tracks.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/drive/signal.h"
#include "core/drive/tape.h"
#include "core/drive/tape_edits.h"
#include "core/drive/track.h"

using namespace lacquer;

TEST_CASE("a tape keeps its order, and one value for a moment") {
    Tape tape;
    add_to_tape(tape, Cue{"hit", 2});
    add_to_tape(tape, Cue{"touch", 1});
    add_to_tape(tape, Cue{"again", 2});
    REQUIRE(tape.cues.size() == 3);
    CHECK(tape.cues[0].name == "touch");
    CHECK(tape.cues[2].name == "again");
    add_to_tape(tape, Change{"hull", 1, {50, 0, 0}});
    add_to_tape(tape, Change{"wind", 1, {2, 0, 0}});
    add_to_tape(tape, Change{"hull", 1, {40, 0, 0}});
    add_to_tape(tape, Change{"hull", 0.5, {90, 0, 0}});
    REQUIRE(tape.changes.size() == 3);
    CHECK(changes_of(tape, "hull") == Changes{{"hull", 0.5, {90, 0, 0}}, {"hull", 1, {40, 0, 0}}});
    CHECK(end_of(tape) == 2);
    CHECK(end_of(Tape()) == 0);
    CHECK(Tape().empty());
}

TEST_CASE("a track knows its value and its integral at any time") {
    Track track(2);
    track.change(1, 5);
    track.change(1, 4);  // the last one at a moment counts
    track.change(3, 4);  // no change
    track.change(4, 0);
    CHECK(track.moments() == std::vector<double>{0, 1, 4});
    CHECK(track.value(-1) == 2);
    CHECK(track.value(0.999) == 2);
    CHECK(track.value(1) == 4);
    CHECK(track.value(99) == 0);
    CHECK(track.integral(0) == 0);
    CHECK(track.integral(1) == 2);
    CHECK(track.integral(2) == 6);
    CHECK(track.integral(9) == 14);
    CHECK(track.integral(-1) == -2);
}

TEST_CASE("a signal holds what it is given to its range") {
    Signal hull{"hull", SignalKind::integer, 0, 100};
    CHECK(signal_value(hull, {61.7, 0, 0})[0] == 62);
    CHECK(signal_value(hull, {-20, 0, 0})[0] == 0);  // damage beyond zero is zero
    CHECK(signal_value(hull, {1e9, 0, 0})[0] == 100);
    CHECK(signal_value(hull, {std::nan(""), 0, 0})[0] == 0);
    hull.kind = SignalKind::toggle;
    CHECK(signal_value(hull, {0.3, 0, 0})[0] == 1);
    hull.kind = SignalKind::place;
    CHECK(signal_value(hull, {-1, 2, 9}) == std::array<double, 3>{0, 1, 0});
}

TEST_CASE("a zone is round whatever the shape of the frame") {
    const Zone zone{"keeper", 0.5, 0.5, 0.25};
    CHECK(is_within(zone, 0.5 + 0.24 / 2, 0.5, 2));  // a frame twice as wide as high
    CHECK_FALSE(is_within(zone, 0.5 + 0.26 / 2, 0.5, 2));
    CHECK(is_within(zone, 0.5, 0.74, 2));
    CHECK(is_within(zone, 0.74, 0.5, 0.5));
    CHECK_FALSE(is_within(zone, 0.5, 0.5 + 0.26 / 2, 0.5));
}

TEST_CASE("what is on a tape is moved, copied, taken out and made stronger") {
    Tape tape;
    tape.cues = {{"a", 1, 0.5}, {"b", 2, 0.5}, {"a", 3, 0.5}};
    tape.changes = {{"hull", 1.5, {50, 0, 0}}};
    const TapeEvents two = {{true, 0}, {false, 0}};
    EditedTape edited = moved_events(tape, two, 1.25);
    CHECK(edited.tape.cues[1] == Cue{"a", 2.25, 0.5});
    CHECK(edited.tape.changes[0].at == 2.75);
    CHECK(edited.events == TapeEvents{{false, 0}, {true, 1}});
    // All by the same: the first one stops them at 0.
    edited = moved_events(tape, two, -9);
    CHECK(edited.tape.cues[0].at == 0);
    CHECK(edited.tape.changes[0].at == 0.5);
    edited = copied_events(tape, {{true, 1}}, 0.5);
    CHECK(edited.tape.cues.size() == 4);
    CHECK(edited.tape.cues[2] == Cue{"b", 2.5, 0.5});
    CHECK(edited.events == TapeEvents{{true, 2}});
    CHECK(without_events(tape, two).changes.empty());
    CHECK(without_events(tape, two).cues.size() == 2);
    edited = with_strength(tape, {{true, 0}, {true, 1}}, 0.4);
    CHECK(edited.tape.cues[0].strength == Approx(0.9));
    CHECK(edited.tape.cues[2].strength == 0.5);
    CHECK(with_strength(tape, {{true, 0}}, -9).tape.cues[0].strength == 0.01);
    CHECK(with_strength(tape, {{true, 99}}, 1).tape == tape);
    CHECK(with_cue(tape, 0, {"a", 2.5, 1}).tape.cues[1] == Cue{"a", 2.5, 1});
    CHECK(with_change(tape, 0, {"hull", 0.5, {9, 0, 0}}).tape.changes[0].value[0] == 9);
}
