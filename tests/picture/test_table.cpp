// Gradients and curves as tables; the values are hand-worked.
#include <array>
#include <catch2/catch.hpp>
#include <cmath>

#include "core/picture/sample.h"
#include "core/picture/table.h"

using namespace lacquer;

namespace {

float height_at(const Picture& table, float t) { return sample(view_of(table), table_place(t), 0.5F)[0]; }

}  // namespace

TEST_CASE("a table has its ends exactly and goes straight between its stops") {
    const Picture table = table_of({{0, {2, 0, 0, 1}}, {1, {4, 0, 0, 1}}});
    CHECK(height_at(table, 0) == 2.0F);
    CHECK(height_at(table, 1) == 4.0F);
    CHECK(height_at(table, 0.5F) == Approx(3).margin(1e-5));
    CHECK(height_at(table, 0.123F) == Approx(2.246).margin(1e-5));
    CHECK(height_at(table, -7) == 2.0F);
    CHECK(height_at(table, 7) == 4.0F);
}

TEST_CASE("beyond its outermost stops a table stays, and stops may come in any order") {
    const Picture table = table_of({{0.75, {1, 0, 0, 0.5}}, {0.25, {3, 0, 0, 0.5}}});
    CHECK(height_at(table, 0) == 3.0F);
    CHECK(height_at(table, 1) == 1.0F);
    CHECK(height_at(table, 0.5F) == Approx(2).margin(1e-4));
    CHECK(table.at(500, 0)[3] == 0.5F);
}

TEST_CASE("two stops at one place make an edge") {
    const Picture table = table_of({{0, {1, 0, 0, 1}}, {0.5, {1, 0, 0, 1}}, {0.5, {9, 0, 0, 1}}, {1, {9, 0, 0, 1}}});
    CHECK(height_at(table, 0.499F) == 1.0F);
    CHECK(height_at(table, 0.501F) == 9.0F);
}

TEST_CASE("a stop's own easing spreads the way to the next, and no other") {
    const std::vector<Stop> stops{{0, {0, 0, 0, 1}, "square"}, {0.5, {1, 0, 0, 1}}, {1, {0, 0, 0, 1}}};
    const auto eased = [](const std::string& easing, double share) {
        CHECK(easing == "square");
        return share * share;
    };
    const Picture table = table_of(stops, StopMix::straight, eased);
    CHECK(height_at(table, 0.25F) == Approx(0.25).margin(1e-3));
    CHECK(height_at(table, 0.75F) == Approx(0.5).margin(1e-3));
    // Of gentle ways, too, it takes the place.
    CHECK(height_at(table_of(stops, StopMix::smooth, eased), 0.25F) == Approx(0.25).margin(1e-3));
}

TEST_CASE("a table without stops is black") {
    const Picture table = table_of({});
    CHECK(table.at(0, 0)[0] == 0.0F);
    CHECK(table.at(table_width - 1, 0)[3] == 1.0F);
}

TEST_CASE("between two stops as the way says: at a stop its own value, half-way what the way's source gives") {
    const std::vector<Stop> stops{{0, {1, 0, 0, 1}}, {1, {0, 0, 1, 0.5}}};
    const auto middle = [&](StopMix mix) {
        const Picture table = table_of(stops, mix);
        CHECK(table.at(0, 0)[0] == 1);
        CHECK(table.at(1023, 0)[2] == 1);
        CHECK(table.at(512, 0)[3] == Approx(mix == StopMix::hold ? 1 : 0.75).margin(0.001));
        return std::array<float, 3>{table.at(512, 0)[0], table.at(512, 0)[1], table.at(512, 0)[2]};
    };
    CHECK(middle(StopMix::straight)[0] == Approx(0.5).margin(0.001));
    // Display value 0.5 is 0.214041140 in linear light (IEC 61966-2-1).
    CHECK(middle(StopMix::display)[0] == Approx(0.21404).margin(0.001));
    CHECK(middle(StopMix::smooth)[0] == Approx(0.5).margin(0.001));
    CHECK(middle(StopMix::hold)[0] == 1);
    // Oklab (Ottosson 2020): red (0.6279554, 0.2248631, 0.1258463) and blue (0.4520137, -0.0324570, -0.3115281) have
    // the mean (0.5399846, 0.0962031, -0.0928409). Back through the published
    // matrices.
    const double l = std::pow(0.5399846 + 0.3963377774 * 0.0962031 + 0.2158037573 * -0.0928409, 3);
    const double m = std::pow(0.5399846 - 0.1055613458 * 0.0962031 - 0.0638541728 * -0.0928409, 3);
    const double s = std::pow(0.5399846 - 0.0894841775 * 0.0962031 - 1.2914855480 * -0.0928409, 3);
    const auto oklab = middle(StopMix::oklab);
    CHECK(oklab[0] == Approx(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s).margin(0.002));
    CHECK(oklab[1] == Approx(-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s).margin(0.002));
    CHECK(oklab[2] == Approx(-0.0041960863 * l - 0.7034186147 * m + 1.7076147010 * s).margin(0.002));
}
