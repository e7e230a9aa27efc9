// Sources: W3C, "Compositing and Blending Level 1", chapters 5 and 9 to 10; T. Porter and T. Duff, "Compositing Digital
// Images", 1984. Formulas written here again in double precision; worked values where marked.
#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <functional>
#include <map>

#include "tests/support/operations.h"

using namespace lacquer;

namespace {

using Colour = std::array<double, 3>;
using Pixel = std::array<double, 4>;

std::string text_of(const Pixel& p) {
    return "vec4(" + std::to_string(p[0]) + ", " + std::to_string(p[1]) + ", " + std::to_string(p[2]) + ", " +
           std::to_string(p[3]) + ")";
}

// Chapter 5: co = cs as + cb ab (1 - as), with Cs mixed with B(Cb, Cs) where there is a backdrop.
Pixel composited(const Pixel& backdrop, const Pixel& source, const Colour& blended) {
    const double opacity = source[3] + backdrop[3] * (1 - source[3]);
    Pixel result{0, 0, 0, opacity};
    for (std::size_t c = 0; c < 3 && opacity > 0; ++c) {
        const double mixed = (1 - backdrop[3]) * source[c] + backdrop[3] * blended[c];
        result[c] = (source[3] * mixed + (1 - source[3]) * backdrop[3] * backdrop[c]) / opacity;
    }
    return result;
}

double hard_light(double b, double s) { return s <= 0.5 ? b * 2 * s : b + (2 * s - 1) - b * (2 * s - 1); }
double soft_light(double b, double s) {
    if (s <= 0.5) return b - (1 - 2 * s) * b * (1 - b);
    const double d = b <= 0.25 ? ((16 * b - 12) * b + 4) * b : std::sqrt(b);
    return b + (2 * s - 1) * (d - b);
}

const std::map<std::string, std::function<double(double, double)>> separable = {
    {"blend_multiply", [](double b, double s) { return b * s; }},
    {"blend_screen", [](double b, double s) { return b + s - b * s; }},
    {"blend_overlay", [](double b, double s) { return hard_light(s, b); }},
    {"blend_darken", [](double b, double s) { return std::min(b, s); }},
    {"blend_lighten", [](double b, double s) { return std::max(b, s); }},
    {"blend_color_dodge", [](double b, double s) { return b == 0   ? 0
                                                          : s == 1 ? 1
                                                                   : std::min(1.0, b / (1 - s)); }},
    {"blend_color_burn", [](double b, double s) { return b == 1   ? 1
                                                         : s == 0 ? 0
                                                                  : 1 - std::min(1.0, (1 - b) / s); }},
    {"blend_hard_light", hard_light},
    {"blend_soft_light", soft_light},
    {"blend_difference", [](double b, double s) { return std::fabs(b - s); }},
    {"blend_exclusion", [](double b, double s) { return b + s - 2 * b * s; }},
};

// Chapter 10: non-separable modes.
double lum(const Colour& c) { return 0.3 * c[0] + 0.59 * c[1] + 0.11 * c[2]; }
double sat(const Colour& c) { return *std::max_element(c.begin(), c.end()) - *std::min_element(c.begin(), c.end()); }
Colour set_lum(Colour c, double wanted) {
    const double by = wanted - lum(c);
    for (double& part : c) part += by;
    const double l = lum(c);
    const double n = *std::min_element(c.begin(), c.end());
    const double x = *std::max_element(c.begin(), c.end());
    for (double& part : c) {
        if (n < 0) part = l + (part - l) * l / (l - n);
        if (x > 1) part = l + (part - l) * (1 - l) / (x - l);
    }
    return c;
}
Colour set_sat(const Colour& c, double wanted) {
    std::array<std::size_t, 3> order = {0, 1, 2};
    std::sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return c[a] < c[b]; });
    Colour made{0, 0, 0};
    const double span = c[order[2]] - c[order[0]];
    if (span > 0) {
        made[order[1]] = (c[order[1]] - c[order[0]]) * wanted / span;
        made[order[2]] = wanted;
    }
    return made;
}

const std::vector<Pixel> pixels = {{0, 0, 0, 1},        {1, 1, 1, 1},       {0.2, 0.6, 0.9, 1},   {0.8, 0.3, 0.05, 1},
                                   {0.5, 0.25, 1, 0.5}, {0.1, 0.9, 0.4, 0}, {0.7, 0.7, 0.2, 0.25}};

void check_near(const std::string& formula, const Pixel& expected) {
    INFO(formula);
    const std::vector<float> made = test::constant_value(formula);
    REQUIRE(made.size() == 4);
    CHECK(static_cast<double>(made[3]) == Approx(expected[3]).margin(2e-5));
    // The colour of what is clear is nobody's business.
    for (std::size_t c = 0; c < 3 && expected[3] > 0; ++c)
        CHECK(static_cast<double>(made[c]) == Approx(expected[c]).margin(2e-5));
}

}  // namespace

TEST_CASE("separable blend modes are those of the W3C") {
    for (const auto& [name, blend] : separable) {
        for (const Pixel& backdrop : pixels) {
            for (const Pixel& source : pixels) {
                Colour blended{};
                for (std::size_t c = 0; c < 3; ++c) blended[c] = blend(backdrop[c], source[c]);
                check_near(name + "(" + text_of(backdrop) + ", " + text_of(source) + ")",
                           composited(backdrop, source, blended));
            }
        }
    }
}

TEST_CASE("worked values of soft light") {
    // From the formula of the W3C, evaluated in double precision.
    check_near("blend_soft_light(vec4(0.2, 0.6, 0.6, 1), vec4(0.8, 0.3, 0.8, 1))", {0.3488, 0.504, 0.70475800, 1});
}

TEST_CASE("non-separable blend modes are those of the W3C") {
    for (const Pixel& backdrop : pixels) {
        for (const Pixel& source : pixels) {
            const Colour b = {backdrop[0], backdrop[1], backdrop[2]};
            const Colour s = {source[0], source[1], source[2]};
            const std::array<Colour, 4> blended = {set_lum(set_sat(s, sat(b)), lum(b)),
                                                   set_lum(set_sat(b, sat(s)), lum(b)), set_lum(s, lum(b)),
                                                   set_lum(b, lum(s))};
            for (std::size_t part = 0; part < 4; ++part) {
                check_near(
                    "blend_parts(" + text_of(backdrop) + ", " + text_of(source) + ", " + std::to_string(part) + ")",
                    composited(backdrop, source, blended[part]));
            }
        }
    }
}

TEST_CASE("compositing operators are those of Porter and Duff") {
    using Share = std::function<double(double)>;
    const Share one = [](double) { return 1.0; };
    const Share none = [](double) { return 0.0; };
    const Share that = [](double other) { return other; };
    const Share rest = [](double other) { return 1 - other; };
    const std::map<std::string, std::pair<Share, Share>> operators = {
        {"source_over", {one, rest}},  {"source_in", {that, none}},  {"source_out", {rest, none}},
        {"source_atop", {that, rest}}, {"source_xor", {rest, rest}}, {"source_plus", {one, one}}};
    for (const auto& [name, shares] : operators) {
        for (const Pixel& backdrop : pixels) {
            for (const Pixel& source : pixels) {
                const double fa = shares.first(backdrop[3]);
                const double fb = shares.second(source[3]);
                Pixel expected{0, 0, 0, source[3] * fa + backdrop[3] * fb};
                for (std::size_t c = 0; c < 3 && expected[3] > 0; ++c) {
                    expected[c] = (source[c] * source[3] * fa + backdrop[c] * backdrop[3] * fb) / expected[3];
                }
                check_near(name + "(" + text_of(backdrop) + ", " + text_of(source) + ")", expected);
            }
        }
    }
}

TEST_CASE("an amount of 0 leaves the backdrop, to the bit") {
    for (const auto& [name, blend] : separable) {
        const std::vector<float> made = test::constant_value(name + "(vec4(0.3, 0.7, 2.5, 0.4), vec4(0.9), 0)");
        CHECK(made == std::vector<float>{0.3F, 0.7F, 2.5F, 0.4F});
    }
}
