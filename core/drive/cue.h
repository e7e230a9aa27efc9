// Things that happen in play.
#pragma once

#include <string>

#include "core/base/shared_list.h"

namespace lacquer {

/// One cue: what happened, when (seconds), how strongly (0..1; 0 is no cue at all), in which direction (degrees
/// clockwise from the right of the picture), where (coordinates of the frame, 0..1 from the top left) and to which
/// object (its number; 0 for none).
struct Cue {
    std::string name = {};
    double at = 0;
    double strength = 1;
    double direction = 0;
    double x = 0.5;
    double y = 0.5;
    int object = 0;

    friend bool operator==(const Cue&, const Cue&) = default;
};

/// Cues in the order of their times.
using Cues = SharedList<Cue>;

/// Puts the cues in order of time; those at one time keep their order.
void sort_cues(Cues& cues);

}  // namespace lacquer
