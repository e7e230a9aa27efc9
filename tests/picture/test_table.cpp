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
    CHECK(height_at(table, 0.49999F) == 1.0F);
    CHECK(height_at(table, 0.5F) == 9.0F);
}

TEST_CASE("an edge of a table has nothing in between, wherever it lies and whatever makes it") {
    const auto eased = [](const std::string& easing, double share) {
        if (easing == "step_start") return 1.0;
        return share < 1 ? 0.0 : 1.0;
    };
    const auto levels_between = [&](const Picture& table, double low, double high) {
        int between = 0;
        for (int i = 0; i <= 100000; ++i) {
            const auto height = static_cast<double>(height_at(table, static_cast<float>(i) / 100000.0F));
            between += height > low && height < high ? 1 : 0;
        }
        return between;
    };
    for (const double edge : {0.001, 0.25, 0.34, 1.0 / 3, 0.4995, 0.70710678, 0.999}) {
        INFO(edge);
        const Stop low{edge, {1, 0, 0, 1}};
        const Stop high{edge, {9, 0, 0, 1}};
        const Picture doubled = table_of({{0, {1, 0, 0, 1}}, low, high, {1, {9, 0, 0, 1}}});
        const Picture held = table_of({{0, {1, 0, 0, 1}}, high}, StopMix::hold);
        const Picture stepped = table_of({{0, {1, 0, 0, 1}}, {edge, {1, 0, 0, 1}, "step_start"}, {1, {9, 0, 0, 1}}},
                                         StopMix::straight, eased);
        for (const Picture* table : {&doubled, &held, &stepped}) {
            CHECK(levels_between(*table, 1, 9) == 0);
            // Rounded to a whole cell at the most.
            CHECK(height_at(*table, static_cast<float>(edge - 0.00051)) == 1.0F);
            CHECK(height_at(*table, static_cast<float>(edge + 0.00051)) == 9.0F);
        }
    }
    // The last stop is reached at 1, not before.
    const Picture to_the_end = table_of({{0, {1, 0, 0, 1}}, {1, {9, 0, 0, 1}}}, StopMix::hold);
    CHECK(height_at(to_the_end, 0.9999F) == 1.0F);
    CHECK(height_at(to_the_end, 1) == 9.0F);
    CHECK(height_at(to_the_end, 3) == 9.0F);
}

TEST_CASE("places of three decimals are exact edges") {
    for (int i = 1; i < 1000; ++i) {
        const double edge = i / 1000.0;
        const Picture table = table_of({{0, {0, 0, 0, 1}}, {edge, {1, 0, 0, 1}}}, StopMix::hold);
        INFO(edge);
        CHECK(height_at(table, static_cast<float>(edge)) == 1.0F);
        CHECK(height_at(table, static_cast<float>(edge) - 3e-6F) == 0.0F);
    }
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
        CHECK(table_value(table, 0)[0] == 1);
        CHECK(table_value(table, 1)[2] == 1);
        const auto half = table_value(table, 0.5);
        CHECK(half[3] == Approx(mix == StopMix::hold ? 1 : 0.75).margin(0.001));
        return half;
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
