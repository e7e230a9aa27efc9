// Source: S. Worley, "A Cellular Texture Basis Function", SIGGRAPH 1996: F1 is the distance to the nearest feature
// point, is continuous, and never changes faster than the place moves. Sums over octaves: common practice, no source.
#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>

#include "core/lang/noise.h"

using namespace lacquer;

namespace {

const auto corner_2d = [](std::uint32_t i, std::uint32_t j) { return lattice_hash(i, j); };
const auto corner_3d = [](std::uint32_t i, std::uint32_t j, std::uint32_t k) { return lattice_hash(i, j, k); };

double unit_of(int n) { return static_cast<double>(unit_from_hash(pcg(static_cast<std::uint32_t>(n)))); }

// Feature points as absolute places, searched far beyond the neighbouring cells.
double nearest_by_search(double x, double y) {
    double nearest = 1e9;
    for (int j = -4; j <= 4; ++j) {
        for (int i = -4; i <= 4; ++i) {
            const int cx = static_cast<int>(std::floor(x)) + i;
            const int cy = static_cast<int>(std::floor(y)) + j;
            const std::uint32_t hash = corner_2d(static_cast<std::uint32_t>(cx), static_cast<std::uint32_t>(cy));
            const double px = cx + (hash >> 16U) / 65536.0;
            const double py = cy + (hash & 0xFFFFU) / 65536.0;
            nearest = std::min(nearest, std::hypot(px - x, py - y));
        }
    }
    return nearest;
}

}  // namespace

TEST_CASE("cellular noise is the distance to the nearest of all points, held below 1") {
    double most = 0;
    for (int n = 0; n < 20000; ++n) {
        const double x = unit_of(2 * n) * 200 - 100;
        const double y = unit_of(2 * n + 1) * 200 - 100;
        const double noise = cellular_noise_2d(x, y, corner_2d);
        REQUIRE(noise == Approx(std::min(nearest_by_search(x, y), 0.99999994)).margin(1e-9));
        most = std::max(most, noise);
    }
    CHECK(most > 0.9);
}

TEST_CASE("cellular noise is 0 at a point and changes no faster than the place moves") {
    const std::uint32_t hash = corner_2d(3, 5);
    CHECK(cellular_noise_2d(3 + (hash >> 16U) / 65536.0, 5 + (hash & 0xFFFFU) / 65536.0, corner_2d) == 0.0);
    for (int n = 0; n < 5000; ++n) {
        const std::array<double, 3> from = {unit_of(n) * 20, unit_of(n + 9000) * 20, unit_of(n + 18000) * 20};
        const std::array<double, 3> move = {unit_of(n + 1) * 0.1, unit_of(n + 2) * 0.1, unit_of(n + 3) * 0.1};
        const double here = cellular_noise_3d(from[0], from[1], from[2], corner_3d);
        const double there = cellular_noise_3d(from[0] + move[0], from[1] + move[1], from[2] + move[2], corner_3d);
        REQUIRE(here >= 0);
        REQUIRE(here < 1);
        REQUIRE(std::fabs(here - there) <= std::hypot(move[0], move[1], move[2]) + 1e-9);
    }
}

TEST_CASE("a fractal sum weighs its octaves 1, a half, a quarter, and fades in the last") {
    const auto octave = [](double scale, double) { return scale == 1 ? 0.8 : scale == 2 ? 0.2 : 0.6; };
    CHECK(fractal_sum(1.0, octave) == Approx(0.8));
    CHECK(fractal_sum(0.0, octave) == Approx(0.8));
    CHECK(fractal_sum(2.0, octave) == Approx((0.8 + 0.5 * 0.2) / 1.5));
    CHECK(fractal_sum(1.5, octave) == Approx((0.8 + 0.25 * 0.2) / 1.25));
    CHECK(fractal_sum(3.0, octave) == Approx((0.8 + 0.5 * 0.2 + 0.25 * 0.6) / 1.75));
    CHECK(fractal_sum(99.0, octave) == fractal_sum(8.0, octave));
    CHECK(fractal_sum(std::nan(""), octave) == Approx(0.8));
    CHECK(fractal_sum(8.0, [](double, double) { return 0.99999994; }) < 1.0);
}
