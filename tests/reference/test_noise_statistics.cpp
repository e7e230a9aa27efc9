// What noise must be like as a whole: means, variances, spectrum, and the hash under a chi-square test.
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <complex>

#include "core/base/hash.h"
#include "core/lang/noise.h"
#include "tests/support/operations.h"

using namespace lacquer;

namespace {

struct Moments {
    double mean = 0;
    double variance = 0;
};
Moments moments_of(const Picture& picture) {
    Moments moments;
    const auto count = static_cast<double>(picture.data.size());
    for (const float x : picture.data) moments.mean += static_cast<double>(x) / count;
    for (const float x : picture.data) moments.variance += std::pow(static_cast<double>(x) - moments.mean, 2) / count;
    return moments;
}

// How much of a row's variation has each frequency, over all rows.
std::vector<double> spectrum_of(const Picture& picture) {
    const int n = picture.width;
    std::vector<double> power(static_cast<std::size_t>(n / 2), 0);
    for (int y = 0; y < picture.height; ++y) {
        for (int k = 1; k < n / 2; ++k) {
            std::complex<double> sum = 0;
            for (int x = 0; x < n; ++x)
                sum += (static_cast<double>(picture.at(x, y)[0]) - 0.5) * std::polar(1.0, -2 * M_PI * k * x / n);
            power[static_cast<std::size_t>(k)] += std::norm(sum);
        }
    }
    return power;
}

double share_between(const std::vector<double>& power, std::size_t from, std::size_t to) {
    double all = 0;
    double part = 0;
    for (std::size_t k = 1; k < power.size(); ++k) {
        all += power[k];
        part += k >= from && k < to ? power[k] : 0;
    }
    return part / all;
}

}  // namespace

TEST_CASE("the hash passes a chi-square test over 256 classes") {
    // Pearson's test; with 255 degrees of freedom the statistic lies in 178 to 345 but for one case in 5,000 (tables of
    // the chi-square distribution, from memory).
    for (const std::uint32_t stride : {1U, 7U, 4096U}) {
        for (const int shift : {24, 12, 0}) {
            std::array<double, 256> counts{};
            constexpr std::uint32_t draws = 262144;
            for (std::uint32_t n = 0; n < draws; ++n) counts[(pcg(n * stride) >> shift) & 255U] += 1;
            double statistic = 0;
            for (const double count : counts) statistic += std::pow(count - draws / 256.0, 2) / (draws / 256.0);
            INFO("stride " << stride << ", bits from " << shift << ": " << statistic);
            CHECK(statistic > 170);
            CHECK(statistic < 350);
        }
    }
}

TEST_CASE("white noise is even from 0 to 1, with no frequency preferred") {
    // Of an even distribution the mean is 1/2 and the variance 1/12.
    const Picture grain = test::picture_of({{"grain", "grain(1 / 128.0, 3, 5)"}}, 128, 128);
    const Moments moments = moments_of(grain);
    CHECK(moments.mean == Approx(0.5).margin(0.01));
    CHECK(moments.variance == Approx(1.0 / 12).epsilon(0.03));
    const std::vector<double> power = spectrum_of(grain);
    CHECK(share_between(power, 1, 33) == Approx(32.0 / 63).margin(0.03));
}

TEST_CASE("value, gradient and cellular noise have their means, and little above their own frequency") {
    for (const std::string name : {"blotches", "mottle"}) {
        // 16 blotches from side to side.
        const Picture noise = test::picture_of({{"noise", name + "(1 / 16.0, 0.4, 2)"}}, 128, 128);
        const Moments moments = moments_of(noise);
        INFO(name << " mean " << moments.mean << " variance " << moments.variance);
        CHECK(moments.mean == Approx(0.5).margin(0.03));
        CHECK(moments.variance > 0.01);
        CHECK(moments.variance < 0.06);
        CHECK(share_between(spectrum_of(noise), 33, 64) < 0.02);
    }
    // Gradient noise has little below its own frequency too; value noise has.
    const auto low = [](const std::string& formula) {
        return share_between(spectrum_of(test::picture_of({{"noise", formula}}, 128, 128)), 1, 4);
    };
    CHECK(low("mottle(1 / 16.0, 0.4, 2)") < 0.9 * low("blotches(1 / 16.0, 0.4, 2)"));
    // The distance to the nearest of points at a density of one a cell: near 1/2 for points strewn at random (Clark and
    // Evans 1954), a little less here, where each cell has its own.
    const Moments cells = moments_of(test::picture_of({{"noise", "cells(1 / 32.0)"}}, 256, 256));
    CHECK(cells.mean > 0.38);
    CHECK(cells.mean < 0.5);
}

TEST_CASE("cells by second, border and value are Worley's, by brute force") {
    // S. Worley, "A Cellular Texture Basis Function", 1996: F1 and F2 over all points that can matter.
    constexpr int size = 48;
    constexpr double cell = 1.0 / 6;
    std::array<Picture, 4> made;
    for (int what = 0; what < 4; ++what) {
        made[static_cast<std::size_t>(what)] =
            test::picture_of({{"noise", "cells(1 / 6.0, " + std::to_string(what) + ", 0.3)"}}, size, size);
    }
    const double shift = std::floor(static_cast<double>(unit_from_hash(pcg(lattice(0.0F)))) * 4096);
    for (int y = 0; y < size; ++y) {
        for (int x = 0; x < size; ++x) {
            const double px = (x + 0.5) / size / cell + shift;
            const double py = (y + 0.5) / size / cell + shift;
            double first = 99;
            double second = 99;
            for (int j = -4; j <= 4; ++j) {
                for (int i = -4; i <= 4; ++i) {
                    const double cx = std::floor(px) + i;
                    const double cy = std::floor(py) + j;
                    const auto random = pcg3d({lattice(cx), lattice(cy), 0});
                    const auto point = [&](std::uint32_t word) {
                        const double at = static_cast<double>(unit_from_hash(word)) + 0.15;
                        return std::fabs((at - std::floor(at)) * 2 - 1);
                    };
                    const double away = std::hypot(cx + point(random[0]) - px, cy + point(random[1]) - py);
                    second = std::min(second, std::max(first, away));
                    first = std::min(first, away);
                }
            }
            const auto at = [&](int what) {
                return static_cast<double>(made[static_cast<std::size_t>(what)].at(x, y)[0]);
            };
            REQUIRE(at(0) == Approx(std::min(first, 1.0)).margin(1e-3));
            REQUIRE(at(1) == Approx(std::min(second, 1.0)).margin(1e-3));
            REQUIRE(at(2) == Approx(std::min(second, 1.0) - std::min(first, 1.0)).margin(2e-3));
        }
    }
    CHECK(moments_of(made[3]).variance > 0.03);
}
