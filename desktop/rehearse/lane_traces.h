// What values were and will be, for lanes, cards and plots: one source for all.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "core/finish/play.h"

namespace lacquer {

/// A value at evenly spaced moments: one line, or two for what has two parts.
struct LaneTrace {
    std::vector<std::vector<float>> lines;
    float least = 0;
    float most = 0;

    bool moves() const { return most > least; }
};
using LaneTraces = std::map<std::string, LaneTrace, std::less<>>;

/// The ground of droplets whose count goes by this name; empty for other names.
std::string counted_drops(const std::string& name);

/// The traces of these names from one moment to another, both included, in seconds. At least two samples.
LaneTraces lane_traces(const Play& play, const std::vector<std::string>& names, double from, double to, int samples);

}  // namespace lacquer
