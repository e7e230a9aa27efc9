// Changes to what is on a tape: moving, copying, taking out, stronger and weaker.
#pragma once

#include <cstddef>
#include <vector>

#include "core/drive/tape.h"

namespace lacquer {

/// One thing on a tape: a cue or a change, by its place among them.
struct TapeEvent {
    bool is_cue = true;
    std::size_t index = 0;
    friend bool operator==(const TapeEvent&, const TapeEvent&) = default;
    friend bool operator<(const TapeEvent& a, const TapeEvent& b) {
        return a.is_cue != b.is_cue ? !a.is_cue : a.index < b.index;
    }
};
using TapeEvents = std::vector<TapeEvent>;

/// A changed tape, and where what was changed stands on it now.
struct EditedTape {
    Tape tape;
    TapeEvents events;
};

/// Moves events by seconds, all by the same: none goes before 0.
EditedTape moved_events(const Tape& tape, const TapeEvents& events, double by);
/// The same with copies; what was there stays.
EditedTape copied_events(const Tape& tape, const TapeEvents& events, double by);
/// Takes events out.
Tape without_events(const Tape& tape, const TapeEvents& events);
/// Makes cues stronger or weaker, held to 0.01..1: a cue of strength 0 is none.
EditedTape with_strength(const Tape& tape, const TapeEvents& events, double by);
/// Puts a changed event in its place; it is moved to where its time is.
EditedTape with_cue(const Tape& tape, std::size_t index, Cue cue);
EditedTape with_change(const Tape& tape, std::size_t index, Change change);

}  // namespace lacquer
