// Halves against IEEE 754-2019, table 3.5 (binary16), and against a search for the nearest.
#include <catch2/catch.hpp>
#include <cmath>
#include <limits>
#include <random>

#include "core/picture/half.h"

using namespace lacquer;

TEST_CASE("halves have the values of the standard's format") {
    CHECK(float_from(0x3C00) == 1);
    CHECK(float_from(0xC000) == -2);
    CHECK(float_from(0x7BFF) == 65504);
    CHECK(float_from(0x0400) == 0x1p-14F);
    CHECK(float_from(0x0001) == 0x1p-24F);
    CHECK(float_from(0x3555) == 0.333251953125F);
    CHECK(std::isinf(float_from(0x7C00)));
    CHECK(std::isnan(float_from(0x7E00)));
    CHECK(std::signbit(float_from(0x8000)));
    CHECK(half_from(65519.996F) == 0x7BFF);
    CHECK(half_from(65520) == 0x7C00);
    CHECK(half_from(-1e9F) == 0xFC00);
    CHECK(std::isnan(float_from(half_from(std::numeric_limits<float>::quiet_NaN()))));
    // Ties go to the even neighbour.
    CHECK(half_from(1 + 0x1p-11F) == 0x3C00);
    CHECK(half_from(1 + 3 * 0x1p-11F) == 0x3C02);
    CHECK(half_from(0x1p-25F) == 0);
    CHECK(half_from(3 * 0x1p-25F) == 2);
}

TEST_CASE("every half comes back as itself, and every number goes to the nearest") {
    for (std::uint32_t bits = 0; bits < 0x10000; ++bits) {
        const auto half = static_cast<std::uint16_t>(bits);
        const float number = float_from(half);
        if (!std::isnan(number)) REQUIRE(half_from(number) == half);
    }
    std::mt19937 random(7);
    for (int i = 0; i < 20000; ++i) {
        const float number = std::ldexp(std::uniform_real_distribution<float>(0.5F, 1)(random),
                                        std::uniform_int_distribution<int>(-26, 15)(random));
        const std::uint16_t half = half_from(number);
        const float off = std::fabs(float_from(half) - number);
        REQUIRE(off <= std::fabs(float_from(static_cast<std::uint16_t>(half + 1)) - number));
        if (half > 0) REQUIRE(off <= std::fabs(float_from(static_cast<std::uint16_t>(half - 1)) - number));
    }
}
