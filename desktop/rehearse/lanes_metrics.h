// Sizes of the lanes, in pixels.
#pragma once

namespace lacquer::lanes {

inline constexpr int names_width = 150;
inline constexpr int right_margin = 12;
inline constexpr int rule_height = 24;
inline constexpr int cues_height = 40;
inline constexpr int closed_height = 28;
inline constexpr int open_height = 72;
/// Lanes that move and are open without being asked for.
inline constexpr int opened_by_themselves = 3;
inline constexpr int flag_height = 14;

}  // namespace lacquer::lanes
