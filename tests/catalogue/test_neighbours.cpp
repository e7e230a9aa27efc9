// Operations that read around a pixel: they keep brightness, do not darken at the borders, treat opacity right, and
// leave the picture exactly as it is where they have nothing to do.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/catalogue/catalogue.h"
#include "tests/support/operations.h"

using namespace lacquer;
using test::picture_of;

namespace {

constexpr int width = 96;
constexpr int height = 64;

// Each with a call that softens `view`, and one that has nothing to do.
struct Softening {
    std::string call;
    std::string idle;
};
const std::vector<Softening> softenings = {
    {"gaussian_blur(view, 5)", "gaussian_blur(view, 0)"},
    {"ring_blur(view, 6, 9, 0.5)", "ring_blur(view, 0, 9, 0.5)"},
    {"disc_blur(view, 6)", "disc_blur(view, 0)"},
    {"blur_by_mask(view, 0.8, 7)", "blur_by_mask(view, 0, 7)"},
    {"streak(view, 30, 12)", "streak(view, 30, 0)"},
    {"zoom_blur(view, vec2(0.5), 0.2)", "zoom_blur(view, vec2(0.5), 0)"},
    {"sharpen(view, 2, 2)", "sharpen(view, 0, 2)"},
    {"grow(view, 5)", "grow(view, 0)"},
    {"shrink(view, 5)", "shrink(view, 0)"},
    {"glow(view, 4)", "glow(view, 4)"},
    {"shift_view(view, vec2(0), 20, 2)", "shift_view(view)"},
    {"push(view, vec2(0.1))", "push(view, vec2(0))"},
};

double sum_of(const Picture& picture, int channel) {
    double sum = 0;
    for (int y = 0; y < picture.height; ++y) {
        for (int x = 0; x < picture.width; ++x) sum += static_cast<double>(picture.at(x, y)[channel]);
    }
    return sum;
}

}  // namespace

TEST_CASE("an even picture stays as it is, up to its borders") {
    for (const Softening& softening : softenings) {
        INFO(softening.call);
        const Picture picture =
            picture_of({{"view", "vec4(0.6, 0.25, 0.125, 1) + 0 * uv.x"}, {"soft", softening.call}}, width, height);
        for (int y = 0; y < height; ++y) {
            for (int x = 0; x < width; ++x) {
                REQUIRE(picture.at(x, y)[0] == Approx(0.6).margin(1e-5));
                REQUIRE(picture.at(x, y)[2] == Approx(0.125).margin(1e-5));
                REQUIRE(picture.at(x, y)[3] == Approx(1).margin(1e-5));
            }
        }
    }
}

TEST_CASE("where there is nothing to do the picture is untouched, to the bit") {
    const std::string view = "vec4(value_noise(uv * 20), uv, value_noise(uv * 7))";
    const Picture plain = picture_of({{"view", view}}, width, height);
    for (const Softening& softening : softenings) {
        INFO(softening.idle);
        const Picture idle = picture_of({{"view", view}, {"soft", softening.idle}}, width, height);
        REQUIRE(idle.data == plain.data);
    }
}

TEST_CASE("a colour hidden under zero opacity never comes out") {
    for (const Softening& softening : softenings) {
        INFO(softening.call);
        const Picture picture = picture_of({{"there", "disc(vec2(0.5), 0.3, 0.1)"},
                                            {"view", "vec4(there > 0 ? vec3(0.8, 0.1, 0) : vec3(0, 1, 0), there)"},
                                            {"soft", softening.call}},
                                           width, height);
        if (softening.call.starts_with("sharpen")) continue;
        for (int y = 0; y < height; ++y) {
            for (int x = 0; x < width; ++x) {
                const float* pixel = picture.at(x, y);
                // What is seen of the hidden green. Plain readings between two pixels mix straight colours.
                const float seen = pixel[1] * pixel[3];
                const bool reads_plainly = softening.call.starts_with("shift") || softening.call.starts_with("push");
                if (!reads_plainly) REQUIRE(seen <= 0.125F * pixel[0] * pixel[3] + 0.01F);
            }
        }
    }
}

TEST_CASE("a softened spot keeps its light") {
    for (const std::string call : {"gaussian_blur(view, 4)", "ring_blur(view, 7, 12)", "disc_blur(view, 7)",
                                   "blur_by_mask(view, 0.9, 8)", "streak(view, 40, 20)"}) {
        INFO(call);
        const std::vector<std::pair<std::string, std::string>> spot = {
            {"view", "vec4(disc(vec2(0.5), 0.12, 0.05), ring(vec2(0.5), 0.1, 0.05), 0, 1)"}};
        auto softened = spot;
        softened.emplace_back("soft", call);
        const Picture before = picture_of(spot, width, height);
        const Picture after = picture_of(softened, width, height);
        for (int c = 0; c < 2; ++c) CHECK(sum_of(after, c) == Approx(sum_of(before, c)).epsilon(0.01));
    }
}

TEST_CASE("an outline runs outside, inside or on the edge, as wide as it is asked for") {
    const auto line = [](int place, int x) {
        const Picture picture =
            picture_of({{"sprite", "vec4(1, 1, 1, step(abs(uv.x - 0.5), 0.25))"},
                        {"lined", "outline(sprite, 4, vec3(0, 0, 1), " + std::to_string(place) + ")"}},
                       width, height);
        const float* pixel = picture.at(x, height / 2);
        return pixel[3] > 0.5F && pixel[0] < 0.5F;
    };
    // The sprite begins at pixel 24.
    for (int x = 14; x < 34; ++x) {
        INFO(x);
        CHECK(line(0, x) == (x >= 20 && x < 24));
        CHECK(line(1, x) == (x >= 24 && x < 28));
        CHECK(line(2, x) == (x >= 22 && x < 26));
    }
}

TEST_CASE("edge colours bleed outwards and opacity stays") {
    const std::string sprite =
        "vec4(uv.x < 0.5 ? vec3(1, 0, 0) : uv.x > 0.75 ? vec3(0, 0, 1) : vec3(0, 1, 0), "
        "uv.x < 0.5 || uv.x > 0.75 ? 1.0 : 0.0)";
    const Picture picture = picture_of({{"sprite", sprite}, {"bled", "bleed(sprite, 8)"}}, width, height);
    CHECK(picture.at(50, 30)[0] == 1.0F);
    CHECK(picture.at(50, 30)[1] == 0.0F);
    CHECK(picture.at(50, 30)[3] == 0.0F);
    CHECK(picture.at(69, 30)[2] == 1.0F);
    // Further than it reaches there is nothing.
    CHECK(picture.at(59, 30)[0] + picture.at(59, 30)[1] + picture.at(59, 30)[2] == 0.0F);
    CHECK(picture.at(20, 30)[3] == 1.0F);
}

TEST_CASE("a sweep over a mask at an even pace removes it evenly") {
    for (const std::string mask : {"clouds(0.4, 4)", "cells(0.2)", "0.3 + 0.4 * uv.x", "uv.x * uv.x"}) {
        const Picture picture = picture_of({{"mask", mask}, {"even", "even_pace(mask)"}}, 320, 180);
        const auto all = static_cast<double>(picture.data.size());
        for (double t = 0.1; t < 0.95; t += 0.1) {
            const auto below = std::count_if(picture.data.begin(), picture.data.end(),
                                             [&](float x) { return static_cast<double>(x) < t; });
            INFO(mask << " at " << t);
            CHECK(static_cast<double>(below) / all == Approx(t).margin(0.03));
        }
    }
}
