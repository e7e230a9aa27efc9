#include "core/drive/tape_edits.h"

#include <algorithm>

namespace lacquer {

namespace {

bool has(const TapeEvents& events, bool is_cue, std::size_t index) {
    return std::find(events.begin(), events.end(), TapeEvent{is_cue, index}) != events.end();
}

// The chosen events by themselves.
Tape chosen(const Tape& tape, const TapeEvents& events) {
    Tape part;
    for (std::size_t i = 0; i < tape.cues.size(); ++i) {
        if (has(events, true, i)) part.cues.push_back(tape.cues[i]);
    }
    for (std::size_t i = 0; i < tape.changes.size(); ++i) {
        if (has(events, false, i)) part.changes.push_back(tape.changes[i]);
    }
    return part;
}

// Adds them and finds where they came to stand.
EditedTape with_events(Tape tape, const Tape& added) {
    for (const Cue& cue : added.cues) add_to_tape(tape, cue);
    for (const Change& change : added.changes) add_to_tape(tape, change);
    EditedTape edited{std::move(tape), {}};
    const auto find = [&](const auto& all, const auto& wanted, bool is_cue) {
        for (std::size_t i = all.size(); i-- > 0;) {
            if (all[i] != wanted || has(edited.events, is_cue, i)) continue;
            edited.events.push_back({is_cue, i});
            return;
        }
    };
    for (const Cue& cue : added.cues) find(edited.tape.cues, cue, true);
    for (const Change& change : added.changes) find(edited.tape.changes, change, false);
    std::sort(edited.events.begin(), edited.events.end());
    return edited;
}

Tape shifted(Tape part, double by) {
    for (const Cue& cue : part.cues) by = std::max(by, -cue.at);
    for (const Change& change : part.changes) by = std::max(by, -change.at);
    for (Cue& cue : part.cues) cue.at += by;
    for (Change& change : part.changes) change.at += by;
    return part;
}

}  // namespace

Tape without_events(const Tape& tape, const TapeEvents& events) {
    Tape left;
    for (std::size_t i = 0; i < tape.cues.size(); ++i) {
        if (!has(events, true, i)) left.cues.push_back(tape.cues[i]);
    }
    for (std::size_t i = 0; i < tape.changes.size(); ++i) {
        if (!has(events, false, i)) left.changes.push_back(tape.changes[i]);
    }
    return left;
}

EditedTape moved_events(const Tape& tape, const TapeEvents& events, double by) {
    return with_events(without_events(tape, events), shifted(chosen(tape, events), by));
}

EditedTape copied_events(const Tape& tape, const TapeEvents& events, double by) {
    return with_events(tape, shifted(chosen(tape, events), by));
}

EditedTape with_strength(const Tape& tape, const TapeEvents& events, double by) {
    EditedTape edited{tape, events};
    for (const TapeEvent& event : events) {
        if (!event.is_cue || event.index >= tape.cues.size()) continue;
        double& strength = edited.tape.cues[event.index].strength;
        strength = std::clamp(strength + by, 0.01, 1.0);
    }
    return edited;
}

EditedTape with_cue(const Tape& tape, std::size_t index, Cue cue) {
    return with_events(without_events(tape, {{true, index}}), {{std::move(cue)}, {}});
}

EditedTape with_change(const Tape& tape, std::size_t index, Change change) {
    return with_events(without_events(tape, {{false, index}}), {{}, {std::move(change)}});
}

}  // namespace lacquer
