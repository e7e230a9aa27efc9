// Things that happen in play.
#pragma once

#include <string>
#include <vector>

namespace lacquer {

/// One cue: what happened, when (seconds) and how strongly (0..1; 0 is no cue at all).
struct Cue {
    std::string name;
    double at = 0;
    double strength = 1;

    friend bool operator==(const Cue&, const Cue&) = default;
};

/// Cues in the order of their times.
using Cues = std::vector<Cue>;

/// Puts the cues in order of time; those at one time keep their order.
void sort_cues(Cues& cues);

}  // namespace lacquer
