// What the files of the emitter share.
#pragma once

#include <algorithm>
#include <cstdint>
#include <limits>
#include <vector>

#include "core/base/hash.h"
#include "core/droplets/emitter.h"

namespace lacquer {

/// Moments are sums of parts of a second: what is this near to a birth or an end is at it.
inline constexpr double drop_slack = 1e-9;

/// Seconds; what lives longer is no longer looked at.
inline constexpr double longest_looked_at = 600;

/// The drops of a fixed field, beside which there are streams of births (`emitter.cpp`).
inline constexpr std::uint32_t field_stream = 0xF1;

/// One drop before anything is worked out about it.
struct Emitter::Birth {
    double at = 0;
    std::uint32_t stream = 0;
    std::int64_t index = 0;
    const Cue* cue = nullptr;  ///< of a burst
    Vector2 place;             ///< of a field, shares of the frame
    double life = 0;
    double ends = 0;  ///< when its end began; infinite if it has not
    double ending = 0;
    double field_end = std::numeric_limits<double>::infinity();

    double random(std::uint32_t seed, std::uint32_t channel) const {
        const auto low = static_cast<std::uint32_t>(index & 0xFFFFFFFF);
        const auto high = static_cast<std::uint32_t>(static_cast<std::uint64_t>(index) >> 32U);
        return static_cast<double>(unit_from_hash(pcg3d({seed ^ pcg(stream), low, channel ^ pcg(high)})[0]));
    }
};

/// The frame, in pixels and in shorter sides.
struct Emitter::Frame {
    double width = 1;
    double height = 1;
    double side = 1;

    Frame(int wide, int high) : width(wide), height(high), side(std::min(wide, high)) {}
    Vector2 in_sides(double x, double y) const { return {x * width / side, y * height / side}; }
};

/// The fixed field, and when the place in play came near to each drop of it.
struct Emitter::Field {
    double aspect = 0;
    std::vector<Vector2> places;  // shares of the frame
    std::vector<double> reached;  // seconds; infinite where it never came near
};

}  // namespace lacquer
