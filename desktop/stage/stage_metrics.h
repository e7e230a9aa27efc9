// Distances of the stage, for all that paints on it.
#pragma once

namespace lacquer {

inline constexpr int stage_margin = 16;
inline constexpr int pill_height = 22;

}  // namespace lacquer
