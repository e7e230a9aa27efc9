// Shaders by chance against the GL driver, which is outside of the project, and between our own back ends.
#include <catch2/catch.hpp>
#include <cmath>

#include "tests/parity/random_shaders.h"
#include "tests/shader/driven.h"

using namespace lacquer;

TEST_CASE("seeded random shaders draw what the GL driver draws, by every back end") {
    constexpr int width = 24;
    constexpr int height = 16;
    test::RandomShaders shaders(2027);
    double off = 0;
    double off_gpu = 0;
    std::size_t off_oracle = 0;
    std::size_t asked = 0;
    constexpr int count = 150;
    for (int n = 0; n < count; ++n) {
        const std::string text = shaders.make();
        INFO(text);
        const Picture wanted = test::driven(text, width, height);
        const Picture found = test::by_lacquer(text, width, height);
        const double share = test::share_off(found, wanted, 2e-3);
        // One that means something else is off all over.
        CHECK(share < 0.2);
        off += share / count;
        off_gpu += test::share_off(test::by_lacquer(text, width, height, Backend::gpu), wanted, 2e-3) / count;
        for (int y = 1; y < height; y += 5) {
            for (int x = 2; x < width; x += 7) {
                const Value value = test::by_oracle(text, x, y, width, height);
                for (int c = 0; c < 4; ++c) {
                    const double here = static_cast<double>(as_float(value, c));
                    const double there = static_cast<double>(found.at(x, y)[c]);
                    ++asked;
                    if (std::abs(here - there) > 2e-3 * std::max(1.0, std::abs(there))) ++off_oracle;
                }
            }
        }
    }
    // A threshold at the edge of a rounding error may tip over; rarely.
    INFO(off << " by strips, " << off_gpu << " by the GPU's text, " << off_oracle << " of " << asked
             << " by the oracle");
    CHECK(off < 0.004);
    CHECK(off_gpu < 0.004);
    CHECK(off_oracle * 250 < asked);
    CHECK(asked > 1000);
}
