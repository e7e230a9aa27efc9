// How two drawn pictures differ, as somebody who looks at them would count it.
#pragma once

#include <cstddef>
#include <optional>

#include "core/render/frame.h"

namespace lacquer {

/// Half a level of an 8-bit picture: less cannot be seen.
inline constexpr float seen_difference = 1.0F / 510;

/// A difference between two pictures of one size.
struct Difference {
    float largest = 0;  ///< of any part of any pixel, colours times their opacity; infinite where only one is a number
    int x = 0;          ///< where that is, pixels
    int y = 0;
    std::size_t seen = 0;  ///< pixels whose difference can be seen
};

/// The largest difference of two pixels' parts, colours times their opacity. A number counts as a grey, a missing
/// opacity as 1.
float pixel_difference(const float* a, int channels_a, const float* b, int channels_b);

/// Nothing for pictures of unlike sizes.
std::optional<Difference> difference(const Picture& a, const Picture& b);

/// Share of the pixels that are there in `picture` and differ from it.
double share_changed(const DrawnStep& now, const DrawnStep& picture);

/// Share of the frame's pixels with some opacity; 1 for what has none.
double share_opaque(const DrawnStep& now);

}  // namespace lacquer
