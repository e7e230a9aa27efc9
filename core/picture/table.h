// Gradients and curves: values at a few places, mixed in between, looked up as a picture of one row.
#pragma once

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <functional>
#include <string>
#include <vector>

#include "core/picture/picture.h"

namespace lacquer {

/// What a gradient or curve has at a place: a colour in linear light with straight opacity, or a height in value[0].
struct Stop {
    double at = 0;
    std::array<double, 4> value{0, 0, 0, 1};
    std::string easing = {};  ///< how the way to the next stop is spread; empty for the way of all
    friend bool operator==(const Stop&, const Stop&) = default;
};

/// How a table goes from one stop to the next.
enum class StopMix : std::uint8_t {
    straight,  ///< evenly: colours in linear light, heights along a line
    display,   ///< colours evenly in display values, by the sRGB curve
    oklab,     ///< colours evenly to the eye (B. Ottosson, "A perceptual color space for image processing", 2020)
    smooth,    ///< setting off and arriving gently: 3t^2 - 2t^3
    hold       ///< each value until the next stop
};

/// How many cells of equal length a table has from 0 to 1. A thousand, so that places of up to three decimals lie
/// between two cells.
inline constexpr int table_cells = 1000;
/// Entries of a table: what it has where a cell begins and where it ends, which differ at an edge; and twice what it
/// has from 1 on.
inline constexpr int table_width = 2 * (table_cells + 1);

/// By so much of a cell a place may lie before it and still count as its beginning: rounding must not miss an edge.
/// Less than what samples are rounded to.
inline constexpr float table_slack = 1.0F / 1024.0F;

/// Where in a table to sample (0..1 across) for the place t, so that no sample mixes two cells.
inline float table_place(float t) {
    const float along = t * static_cast<float>(table_cells);
    const float cell = std::min(std::max(std::floor(along + table_slack), 0.0F), static_cast<float>(table_cells));
    return (cell + along + 0.5F) * (1.0F / static_cast<float>(table_width));
}

/// The share of the way that an easing has gone after the share 0..1 of it.
using StopEasing = std::function<double(const std::string& easing, double share)>;

/// The table: between two stops as `mix` says, opacity evenly where colours are; beyond the ends it stays. Stops at the
/// same place, and ways that jump, make an edge; a place with an edge is rounded to a whole cell. Without stops it is 0
/// with opacity 1. A stop's own easing is asked of `eased`, and takes the place of `smooth` and `hold`.
Picture table_of(std::vector<Stop> stops, StopMix mix = StopMix::straight, const StopEasing& eased = {});

/// What a table has at the place t, for painting it.
std::array<double, 4> table_value(const Picture& table, double t);

}  // namespace lacquer
