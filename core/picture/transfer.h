// The sRGB transfer function between linear light and display values. Source: IEC 61966-2-1.
#pragma once

#include <array>
#include <bit>
#include <cstdint>

namespace lacquer {

/// Linear light to display value; 0..1 to 0..1, larger values follow the same curve, negative ones its straight part.
double srgb_encode(double linear);

/// Display value to linear light; the inverse of `srgb_encode`.
double srgb_decode(double encoded);

/// Linear light of each 8-bit display value.
const std::array<float, 256>& srgb_decode_table();

/// Turns linear light into the nearest 8-bit display value by a table: as exact as the formula and much faster.
class SrgbEncoder {
public:
    SrgbEncoder();
    /// Below 0 and NaN give 0, above 1 gives 255.
    std::uint8_t operator()(float linear) const {
        if (!(linear >= std::bit_cast<float>(lowest_bits))) return 0;
        if (linear >= 1.0F) return 255;
        // A table cell spans 1/256 of its value, the thresholds lie wider apart: at most one of them is inside.
        const std::int32_t level = start_[(std::bit_cast<std::uint32_t>(linear) - lowest_bits) >> shift];
        return static_cast<std::uint8_t>(level + (linear >= threshold_[static_cast<std::size_t>(level)] ? 1 : 0));
    }

    // The table, for those who look up many at once: a number's bits, less the lowest, shifted, are its cell; there
    // stands the level at which the cell starts, and beside the level where it turns into the next.
    static constexpr std::uint32_t lowest_bits = 0x39000000U;  ///< of 2^-13, below the first change
    static constexpr int shift = 15;
    const std::int32_t* starts() const { return start_.data(); }
    const float* thresholds() const { return threshold_.data(); }

private:
    static constexpr std::uint32_t count_ = (0x3F800000U - lowest_bits) >> shift;
    std::array<std::int32_t, count_> start_{};
    std::array<float, 256> threshold_{};  // threshold_[k] is where k turns into k + 1
};

}  // namespace lacquer
