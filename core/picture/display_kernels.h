// What the eye gets of linear light, whole vectors at a time; compiled once for each instruction set.
#pragma once

#include <cstddef>
#include <cstdint>

namespace lacquer {

/// Turns `count` pixels of 1, 3 or 4 numbers into R G B A bytes: one number as grey, as it stands; colours, multiplied
/// by `gain`, by the sRGB curve of IEC 61966-2-1 as `SrgbEncoder` has it; opacity as it stands, 255 where there is
/// none. What lies outside 0..1 is held to it; NaN is 0. True if all numbers are finite.
bool show_pixels(const float* from, int channels, float gain, std::uint8_t* to, std::size_t count);

}  // namespace lacquer
