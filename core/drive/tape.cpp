#include "core/drive/tape.h"

#include <algorithm>

namespace lacquer {

namespace {

// Behind all that came no later.
template <class Event>
typename std::vector<Event>::iterator place_for(std::vector<Event>& events, double at) {
    return std::upper_bound(events.begin(), events.end(), at,
                            [](double time, const Event& event) { return time < event.at; });
}

}  // namespace

void sort_tape(Tape& tape) {
    sort_cues(tape.cues);
    std::stable_sort(tape.changes.begin(), tape.changes.end(),
                     [](const Change& a, const Change& b) { return a.at < b.at; });
}

void add_to_tape(Tape& tape, Cue cue) { tape.cues.insert(place_for(tape.cues.own(), cue.at), std::move(cue)); }

void add_to_tape(Tape& tape, Change change) {
    const auto place = place_for(tape.changes.own(), change.at);
    for (auto same = place; same != tape.changes.begin() && (same - 1)->at == change.at;) {
        --same;
        if (same->name != change.name) continue;
        *same = std::move(change);
        return;
    }
    tape.changes.insert(place, std::move(change));
}

double end_of(const Tape& tape) {
    const double cues = tape.cues.empty() ? 0 : tape.cues.back().at;
    return tape.changes.empty() ? cues : std::max(cues, tape.changes.back().at);
}

Changes changes_of(const Tape& tape, std::string_view name) {
    Changes found;
    for (const Change& change : tape.changes) {
        if (change.name == name) found.push_back(change);
    }
    return found;
}

}  // namespace lacquer
