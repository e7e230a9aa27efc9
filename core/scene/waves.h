// The swells that the sea is made of.
#pragma once

#include <array>

namespace lacquer {

/// A wave train: its phase at (x, z) is x * x + z * z + rate * seconds. The rate follows from the length by deep
/// water's rule, the square of it being g times the wave number (Airy 1845).
struct Swell {
    float x;
    float z;
    float rate;
    float share;  ///< of the height
};

inline constexpr std::array<Swell, 4> swells = {{{0.34F, 0.21F, 1.98F, 0.52F},
                                                 {-0.42F, 0.61F, 2.69F, 0.27F},
                                                 {1.10F, 0.75F, 3.61F, 0.14F},
                                                 {-0.93F, 1.96F, 4.61F, 0.07F}}};

}  // namespace lacquer
