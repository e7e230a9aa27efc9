#include "core/picture/transfer.h"

#include <bit>
#include <cmath>
#include <limits>

namespace lacquer {

double srgb_encode(double linear) {
    return linear <= 0.0031308 ? 12.92 * linear : 1.055 * std::pow(linear, 1.0 / 2.4) - 0.055;
}

double srgb_decode(double encoded) {
    return encoded <= 0.04045 ? encoded / 12.92 : std::pow((encoded + 0.055) / 1.055, 2.4);
}

const std::array<float, 256>& srgb_decode_table() {
    static const std::array<float, 256> table = [] {
        std::array<float, 256> made{};
        for (std::size_t k = 0; k < made.size(); ++k) {
            made[k] = static_cast<float>(srgb_decode(static_cast<double>(k) / 255.0));
        }
        return made;
    }();
    return table;
}

SrgbEncoder::SrgbEncoder() {
    for (std::size_t k = 0; k < 255; ++k) {
        threshold_[k] = static_cast<float>(srgb_decode((static_cast<double>(k) + 0.5) / 255.0));
    }
    threshold_[255] = std::numeric_limits<float>::infinity();
    std::int32_t level = 0;
    for (std::uint32_t i = 0; i < count_; ++i) {
        const float lowest = std::bit_cast<float>(lowest_bits + (i << shift));
        while (lowest >= threshold_[static_cast<std::size_t>(level)]) ++level;
        start_[i] = level;
    }
}

}  // namespace lacquer
