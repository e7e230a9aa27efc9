// A recording of play: the cues, and what signals and dials were set to.
#pragma once

#include <array>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/shared_list.h"
#include "core/drive/cue.h"

namespace lacquer {

/// Most cues, and most changes, that one tape takes.
inline constexpr std::size_t max_tape_events = 200'000;

/// A signal or a dial that was set, in seconds; it stays so until it is set again. A number has the first part, a place
/// two, a colour three.
struct Change {
    std::string name = {};
    double at = 0;
    std::array<double, 3> value{};

    friend bool operator==(const Change&, const Change&) = default;
};

/// Changes in the order of their times.
using Changes = SharedList<Change>;

struct Tape {
    Cues cues = {};
    Changes changes = {};

    bool empty() const { return cues.empty() && changes.empty(); }
    friend bool operator==(const Tape&, const Tape&) = default;
};

/// Puts all in order of time; what came at one time keeps its order.
void sort_tape(Tape& tape);

/// Puts a cue, or a change, where its time is. A change at the very time of another of that name takes its place.
void add_to_tape(Tape& tape, Cue cue);
void add_to_tape(Tape& tape, Change change);

/// The time of the last thing on it, in seconds; 0 for an empty tape.
double end_of(const Tape& tape);

/// The changes of one signal or dial.
Changes changes_of(const Tape& tape, std::string_view name);

}  // namespace lacquer
