// Gradients and curves: values at a few places, mixed in between, looked up as a picture of one row.
#pragma once

#include <array>
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

/// Entries of a table; the first stands for the place 0, the last for 1.
inline constexpr int table_width = 1024;

/// Where in a table to sample (0..1 across) for the place t.
constexpr float table_place(float t) { return t * (1023.0F / 1024.0F) + 0.5F / 1024.0F; }

/// The share of the way that an easing has gone after the share 0..1 of it.
using StopEasing = std::function<double(const std::string& easing, double share)>;

/// The table: between two stops as `mix` says, opacity evenly where colours are; beyond the ends it stays. Stops at the
/// same place make an edge. Without stops it is 0 with opacity 1. A stop's own easing is asked of `eased`, and takes
/// the place of `smooth` and `hold`.
Picture table_of(std::vector<Stop> stops, StopMix mix = StopMix::straight, const StopEasing& eased = {});

}  // namespace lacquer
