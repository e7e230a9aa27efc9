// How many drops live over time, for lanes and plots.
#pragma once

#include <string>
#include <vector>

#include "core/finish/play.h"

namespace lacquer {

/// How many drops of a ground live at evenly spaced moments from one to another, both included, in seconds; at least
/// two. Of very many drops not every sample is counted anew, so that the window never waits.
std::vector<float> drop_counts(const Play& play, const std::string& ground, double from, double to, int samples);

}  // namespace lacquer
