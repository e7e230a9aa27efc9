// Source: IEC 61966-2-1 (sRGB); its formula evaluated in double precision, from memory.
#include <catch2/catch.hpp>
#include <cmath>
#include <limits>

#include "core/picture/transfer.h"
#include "core/render/view.h"

using namespace lacquer;

TEST_CASE("the transfer function is that of IEC 61966-2-1") {
    CHECK(srgb_encode(0.5) == Approx(0.735356983).epsilon(1e-8));
    CHECK(srgb_encode(0.18) == Approx(0.461356130).epsilon(1e-8));
    CHECK(srgb_decode(0.5) == Approx(0.214041140).epsilon(1e-8));
    CHECK(srgb_decode(128.0 / 255) == Approx(0.215860500).epsilon(1e-8));
    CHECK(srgb_encode(0.002) == Approx(12.92 * 0.002).epsilon(1e-12));
    CHECK(srgb_decode(0.04) == Approx(0.04 / 12.92).epsilon(1e-12));
}

TEST_CASE("every 8-bit value goes to linear light and comes back") {
    const SrgbEncoder encode;
    for (int k = 0; k < 256; ++k) CHECK(encode(srgb_decode_table()[static_cast<std::size_t>(k)]) == k);
}

TEST_CASE("the table rounds as the formula does") {
    const SrgbEncoder encode;
    for (int i = -100; i < 40000; ++i) {
        const float linear = static_cast<float>(i) / 36000.0F;
        const double exact = std::clamp(srgb_encode(static_cast<double>(linear)), 0.0, 1.0) * 255;
        const double half_way = std::fabs(exact - std::floor(exact) - 0.5);
        if (half_way > 1e-4) REQUIRE(encode(linear) == std::lround(exact));
    }
    CHECK(encode(std::numeric_limits<float>::quiet_NaN()) == 0);
    CHECK(encode(std::numeric_limits<float>::infinity()) == 255);
    CHECK(encode(-1.0F) == 0);
    CHECK(encode(std::nextafter(1.0F, 0.0F)) == 255);
}

TEST_CASE("a step looks as its kind asks: number grey, two red-green, colour encoded") {
    WorkerPool pool(1);
    const auto pixel = [&](Type type, std::vector<float> parts) {
        Picture picture(1, 1, static_cast<int>(parts.size()));
        std::copy(parts.begin(), parts.end(), picture.data.begin());
        const Image8 image = to_image(picture, type, pool);
        return std::vector<int>(image.data.begin(), image.data.end());
    };
    CHECK(pixel(Type::number, {0.5F}) == std::vector<int>{128, 128, 128, 255});
    CHECK(pixel(Type::vec2, {1.0F, 0.25F}) == std::vector<int>{255, 64, 0, 255});
    CHECK(pixel(Type::vec3, {0.5F, 0.0F, 2.0F}) == std::vector<int>{188, 0, 255, 255});
    CHECK(pixel(Type::vec4, {0.5F, 0.0F, 1.0F, 0.5F}) == std::vector<int>{188, 0, 255, 128});
}
