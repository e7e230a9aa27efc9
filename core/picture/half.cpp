#include "core/picture/half.h"

#include <bit>

namespace lacquer {

namespace {

constexpr std::uint32_t half_infinity = 0x7C00U;

}  // namespace

std::uint16_t half_from(float number) {
    const auto bits = std::bit_cast<std::uint32_t>(number);
    const std::uint32_t sign = bits >> 16U & 0x8000U;
    const std::uint32_t size = bits & 0x7FFFFFFFU;
    if (size > 0x7F800000U) return static_cast<std::uint16_t>(sign | half_infinity | 0x0200U);
    // From 65520 on the nearest half would be 65536, which there isn't.
    if (size >= 0x477FF000U) return static_cast<std::uint16_t>(sign | half_infinity);
    if (size < 0x38800000U) {
        // Below the smallest normal half they lie 2^-24 apart: adding 0.5 leaves the sum's last bits at just that
        // distance.
        const float shifted = std::bit_cast<float>(size) + 0.5F;
        return static_cast<std::uint16_t>(sign | (std::bit_cast<std::uint32_t>(shifted) - 0x3F000000U));
    }
    const std::uint32_t odd = size >> 13U & 1U;
    const std::uint32_t rounded = size + 0x0FFFU + odd;
    return static_cast<std::uint16_t>(sign | (rounded - 0x38000000U) >> 13U);
}

float float_from(std::uint16_t half) {
    const std::uint32_t sign = (half & 0x8000U) << 16U;
    const std::uint32_t size = half & 0x7FFFU;
    if (size >= half_infinity) return std::bit_cast<float>(sign | 0x7F800000U | (size & 0x03FFU) << 13U);
    if (size < 0x0400U) {
        const float tiny = static_cast<float>(size) * 0x1p-24F;
        return std::bit_cast<float>(std::bit_cast<std::uint32_t>(tiny) | sign);
    }
    return std::bit_cast<float>(sign | ((size << 13U) + 0x38000000U));
}

}  // namespace lacquer
