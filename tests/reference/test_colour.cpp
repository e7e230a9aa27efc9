// Colour operations against their published sources, each named beside its check.
#include <catch2/catch.hpp>
#include <cmath>

#include "tests/support/operations.h"

using namespace lacquer;
using test::constant_value;

namespace {

void check_value(const std::string& formula, const std::vector<double>& expected, double margin = 2e-5) {
    INFO(formula);
    const std::vector<float> made = constant_value(formula);
    REQUIRE(made.size() == expected.size());
    for (std::size_t i = 0; i < made.size(); ++i)
        CHECK(static_cast<double>(made[i]) == Approx(expected[i]).margin(margin));
}

}  // namespace

TEST_CASE("luminance has the weights of ITU-R BT.709") {
    check_value("luminance(vec3(0.5, 0.25, 0.75))", {0.33925});
    check_value("luminance(vec3(1))", {1});
    check_value("mean_brightness(vec3(0.5, 0.25, 0.75))", {0.5});
    // Saturation keeps it.
    check_value("luminance(saturation(vec4(0.5, 0.25, 0.75, 1), 2.5).rgb)", {0.33925});
    check_value("saturation(vec4(0.5, 0.25, 0.75, 1), 0)", {0.33925, 0.33925, 0.33925, 1});
    check_value("luminance(balance(vec4(vec3(0.4), 1), 0.7, -0.3).rgb)", {0.4});
    check_value("luminance(tint(vec4(0.5, 0.25, 0.75, 1), vec3(1)).rgb)", {0.33925});
}

TEST_CASE("a grade is that of the ASC colour decision list 1.2") {
    // out = clamp(in * slope + offset)^power, then saturation about BT.709 luma; evaluated in double precision.
    const double r = std::pow(0.5 * 1.2 + 0.1, 0.8);
    const double g = std::pow(0.25 * 0.9 - 0.05, 1.1);
    const double b = std::pow(0.75 * 1.0 + 0.0, 1.5);
    const double luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
    const std::string parts = "vec3(1.2, 0.9, 1), vec3(0.1, -0.05, 0), vec3(0.8, 1.1, 1.5)";
    check_value("grade(vec4(0.5, 0.25, 0.75, 0.5), " + parts + ")", {r, g, b, 0.5});
    check_value("grade(vec4(0.5, 0.25, 0.75, 0.5), " + parts + ", 1.4)",
                {luma + 1.4 * (r - luma), luma + 1.4 * (g - luma), luma + 1.4 * (b - luma), 0.5});
    // It holds to 0..1 before the power.
    check_value("grade(vec4(0.9, 0.1, 0.5, 1), vec3(2), vec3(-0.4), vec3(2))", {1, 0, 0.36, 1});
    check_value("grade(vec4(0.2, 0.4, 0.6, 1))", {0.2, 0.4, 0.6, 1});
}

TEST_CASE("tone maps are the published ones") {
    // Reinhard et al. 2002, equation 4: L (1 + L / w^2) / (1 + L).
    for (const double l : {0.18, 1.0, 4.0}) {
        const double toned = l * (1 + l / 16) / (1 + l);
        check_value("tone_reinhard(vec4(vec3(" + std::to_string(l) + "), 1), 4)", {toned, toned, toned, 1});
    }
    check_value("tone_reinhard(vec4(vec3(4), 1), 4)", {1, 1, 1, 1});
    // Narkowicz 2015: values of the formula in double precision.
    check_value("tone_narkowicz(vec4(0.18, 1, 4, 1))", {0.26689892, 0.80379747, 0.97341711, 1});
    // Hable 2010, white 11.2: values of the formula in double precision.
    check_value("tone_hable(vec4(1, 0.18, 11.2, 1))", {0.30430056, 0.06710983, 1, 1});
}

TEST_CASE("hues turn in Oklab") {
    // Ottosson 2020: red is (0.6279554, 0.2248631, 0.1258463); half a turn changes the signs of the last two, and that
    // colour is brought back by the inverse matrices, computed in double precision.
    const double l = 0.6279554 + 0.3963377774 * -0.2248631 + 0.2158037573 * -0.1258463;
    const double m = 0.6279554 - 0.1055613458 * -0.2248631 - 0.0638541728 * -0.1258463;
    const double s = 0.6279554 - 0.0894841775 * -0.2248631 - 1.2914855480 * -0.1258463;
    const double red = 4.0767416621 * l * l * l - 3.3077115913 * m * m * m + 0.2309699292 * s * s * s;
    const double green = -1.2684380046 * l * l * l + 2.6097574011 * m * m * m - 0.3413193965 * s * s * s;
    const double blue = -0.0041960863 * l * l * l - 0.7034186147 * m * m * m + 1.7076147010 * s * s * s;
    check_value("hue_turn(vec4(1, 0, 0, 1), 180)", {red, green, blue, 1}, 2e-4);
    check_value("hue_turn(vec4(0.3, 0.6, 0.1, 0.5), 360)", {0.3, 0.6, 0.1, 0.5}, 2e-4);
    // Greys stay.
    check_value("hue_turn(vec4(vec3(0.4), 1), 77)", {0.4, 0.4, 0.4, 1}, 2e-4);
}

TEST_CASE("posterize leaves so many levels, and a dither of them has the mean of the picture") {
    const Picture levels = test::picture_of({{"grey", "uv.x"}, {"few", "posterize(grey, 5)"}}, 500, 1);
    std::vector<float> seen;
    for (const float x : levels.data) {
        if (seen.empty() || seen.back() != x) seen.push_back(x);
    }
    CHECK(seen == std::vector<float>{0, 0.25F, 0.5F, 0.75F, 1});
    // Bayer 1973: over each 8 x 8 the share of white is the grey, to 1/64.
    for (const std::string grey : {"0.1", "0.5", "0.71"}) {
        const Picture dots = test::picture_of({{"dots", "ordered_dither(" + grey + " + 0 * uv.x, 2)"}}, 64, 64);
        double sum = 0;
        for (const float x : dots.data) {
            REQUIRE((x == 0.0F || x == 1.0F));
            sum += static_cast<double>(x);
        }
        CHECK(sum / (64 * 64) == Approx(std::stod(grey)).margin(1.0 / 64));
    }
}

TEST_CASE("a stop doubles the light") {
    // Common practice, no source.
    check_value("exposure(vec4(0.2, 0.4, 0.1, 0.7), 1)", {0.4, 0.8, 0.2, 0.7});
    check_value("exposure(vec4(0.2, 0.4, 0.1, 0.7), -2)", {0.05, 0.1, 0.025, 0.7});
}
