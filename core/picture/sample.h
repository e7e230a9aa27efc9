// Reading a picture between its pixels: the one definition that every back end follows.
#pragma once

#include <array>

#include "core/picture/picture.h"

namespace lacquer {

/// The colour of a 4-channel `picture` at (u, v), 0..1 across and down, linear between pixel centres, held at the
/// borders. Positions are rounded to 1/256 pixel, so that a picture read at its own pixel centres comes back exactly.
/// NaN reads the first column or row. An empty picture is black with opacity 1.
std::array<float, 4> sample_linear(const Picture& picture, float u, float v);

/// `picture` averaged down so that neither side is larger than asked for: each new pixel is the mean of what it covers.
Picture shrink_to(const Picture& picture, int width, int height);

}  // namespace lacquer
