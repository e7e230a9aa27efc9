// Numbers of 16 bits, IEEE 754 binary16.
#pragma once

#include <cstdint>

namespace lacquer {

/// The nearest half, ties to even; beyond 65504 it is infinite.
std::uint16_t half_from(float number);
/// The same number.
float float_from(std::uint16_t half);

}  // namespace lacquer
