// Integer hashes with good avalanche that cost a few instructions.
// Source: M. Jarzynski and M. Olano, "Hash Functions for GPU Rendering", JCGT 9(3), 2020, listings of `pcg` and
// `pcg3d`.
#pragma once

#include <array>
#include <cstdint>

namespace lacquer {

/// One word to one word.
constexpr std::uint32_t pcg(std::uint32_t v) {
    const std::uint32_t state = v * 747796405U + 2891336453U;
    const std::uint32_t word = ((state >> ((state >> 28U) + 4U)) ^ state) * 277803737U;
    return (word >> 22U) ^ word;
}

/// Three words to three words.
constexpr std::array<std::uint32_t, 3> pcg3d(std::array<std::uint32_t, 3> v) {
    for (std::uint32_t& word : v) word = word * 1664525U + 1013904223U;
    auto stir = [&v] {
        v[0] += v[1] * v[2];
        v[1] += v[2] * v[0];
        v[2] += v[0] * v[1];
    };
    stir();
    for (std::uint32_t& word : v) word ^= word >> 16U;
    stir();
    return v;
}

/// A hash word as a number in [0, 1): its upper 24 bits, so that every value is exact in single precision.
constexpr float unit_from_hash(std::uint32_t word) { return static_cast<float>(word >> 8U) * (1.0F / 16777216.0F); }

}  // namespace lacquer
