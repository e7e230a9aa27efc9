// Pictures that are kept as the bytes of their files: a quarter of the memory, and the same numbers when they are read.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>

#include "core/picture/picture.h"

namespace lacquer {

/// The number that each byte of a colour stands for, and of opacity.
const std::array<float, 256>& colour_numbers(Coding coding);
const std::array<float, 256>& opacity_numbers();

/// `count` pixels of R G B A bytes as 4 numbers each.
void decode_pixels(const std::uint8_t* from, Coding coding, float* to, std::size_t count);

/// The picture as numbers; what holds numbers comes back as it is.
Picture decoded(Picture picture);

/// Bytes that a pixel of 4 channels takes in memory.
constexpr int bytes_a_pixel(Coding coding) { return coding == Coding::numbers ? 16 : 4; }

/// Bytes that the pixels take in memory.
std::size_t bytes_held(const Picture& picture);

}  // namespace lacquer
