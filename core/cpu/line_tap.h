// Where numbers of a line are read, at a distance that may lie between two of its pixels.
#pragma once

#include <cmath>
#include <cstddef>

namespace lacquer {

/// Numbers at one place before or after the middle, mixed of two neighbours.
struct LineTap {
    const float* near = nullptr;
    const float* next = nullptr;  ///< not looked at where its share is 0
    float share = 0;              ///< of the next one
};

/// What a tap reads at one place.
inline float read_one(const LineTap& tap, std::size_t at) {
    if (tap.share == 0.0F) return tap.near[at];
    return tap.near[at] * (1.0F - tap.share) + tap.next[at] * tap.share;
}

/// A distance in drawn pixels: rounded to 1/256 of one, as in all reading of pictures.
struct LineOffset {
    int whole = 0;
    float share = 0;  ///< of the next one
};

inline LineOffset line_offset(double drawn) {
    const double rounded = std::floor(drawn * 256 + 0.5) / 256;
    const double whole = std::floor(rounded);
    return {static_cast<int>(whole), static_cast<float>(rounded - whole)};
}

}  // namespace lacquer
