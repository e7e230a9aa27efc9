// Source: K. Perlin, "Improving Noise", SIGGRAPH 2002, and its reference implementation: permutation and values from
// memory; (3.14, 42, 7) -> 0.13691995878400012 is printed in many places.
#include <array>
#include <catch2/catch.hpp>

#include "core/lang/noise.h"

using namespace lacquer;

namespace {

constexpr std::array<std::uint8_t, 256> permutation = {
    151, 160, 137, 91,  90,  15,  131, 13,  201, 95,  96,  53,  194, 233, 7,   225, 140, 36,  103, 30,  69,  142,
    8,   99,  37,  240, 21,  10,  23,  190, 6,   148, 247, 120, 234, 75,  0,   26,  197, 62,  94,  252, 219, 203,
    117, 35,  11,  32,  57,  177, 33,  88,  237, 149, 56,  87,  174, 20,  125, 136, 171, 168, 68,  175, 74,  165,
    71,  134, 139, 48,  27,  166, 77,  146, 158, 231, 83,  111, 229, 122, 60,  211, 133, 230, 220, 105, 92,  41,
    55,  46,  245, 40,  244, 102, 143, 54,  65,  25,  63,  161, 1,   216, 80,  73,  209, 76,  132, 187, 208, 89,
    18,  169, 200, 196, 135, 130, 116, 188, 159, 86,  164, 100, 109, 198, 173, 186, 3,   64,  52,  217, 226, 250,
    124, 123, 5,   202, 38,  147, 118, 126, 255, 82,  85,  212, 207, 206, 59,  227, 47,  16,  58,  17,  182, 189,
    28,  42,  223, 183, 170, 213, 119, 248, 152, 2,   44,  154, 163, 70,  221, 153, 101, 155, 167, 43,  172, 9,
    129, 22,  39,  253, 19,  98,  108, 110, 79,  113, 224, 232, 178, 185, 112, 104, 218, 246, 97,  228, 251, 34,
    242, 193, 238, 210, 144, 12,  191, 179, 162, 241, 81,  51,  145, 235, 249, 14,  239, 107, 49,  192, 214, 31,
    181, 199, 106, 157, 184, 84,  204, 176, 115, 121, 50,  45,  127, 4,   150, 254, 138, 236, 205, 93,  222, 114,
    67,  29,  24,  72,  243, 141, 128, 195, 78,  66,  215, 61,  156, 180};

double perlin(double x, double y, double z) {
    return gradient_noise_3d(x, y, z, [](std::uint32_t i, std::uint32_t j, std::uint32_t k) -> std::uint32_t {
        const auto p = [](std::uint32_t n) { return static_cast<std::uint32_t>(permutation[n & 255U]); };
        return p(p(p(i & 255U) + (j & 255U)) + (k & 255U));
    });
}

}  // namespace

TEST_CASE("the gradient code with the permutation of 2002 gives its noise") {
    CHECK(perlin(3.14, 42, 7) == Approx(0.13691995878400012).epsilon(1e-14));
    CHECK(perlin(0.5, 0.5, 0.5) == Approx(-0.25).epsilon(1e-14));
    CHECK(perlin(1.5, 2.25, 3.75) == Approx(-0.23534488677978516).epsilon(1e-14));
    for (int i = -3; i < 4; ++i) CHECK(perlin(i, 2 * i, 5 - i) == 0.0);
}

TEST_CASE("noise stays in 0 <= n < 1 and is continuous across cells") {
    const auto corner = [](std::uint32_t i, std::uint32_t j) { return lattice_hash(i, j); };
    float least = 1;
    float most = 0;
    for (int n = 0; n < 20000; ++n) {
        const float x = unit_from_hash(pcg(static_cast<std::uint32_t>(2 * n))) * 200 - 100;
        const float y = unit_from_hash(pcg(static_cast<std::uint32_t>(2 * n + 1))) * 200 - 100;
        const float value = unit_noise(gradient_noise_2d(x, y, corner), gradient_scale_2d);
        least = std::min(least, value);
        most = std::max(most, value);
    }
    CHECK(least >= 0.0F);
    CHECK(most < 1.0F);
    CHECK(most - least > 0.8F);
    for (int i = -5; i < 5; ++i) {
        const double below = gradient_noise_2d(i - 1e-9, 0.3, corner);
        const double above = gradient_noise_2d(i + 1e-9, 0.3, corner);
        CHECK(below == Approx(above).margin(1e-7));
    }
}

TEST_CASE("lattice coordinates survive what floats can be") {
    CHECK(lattice(std::nanf("")) == 0U);
    CHECK(lattice(1e30F) == 0x7FFFFFFFU);
    CHECK(lattice(-1e30F) == 0x80000000U);
    CHECK(lattice(-0.5F) == 0xFFFFFFFFU);
}
