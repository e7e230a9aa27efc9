#include <catch2/catch.hpp>
#include <cmath>
#include <limits>

#include "core/picture/sample.h"
#include "tests/support/finishes.h"

using namespace lacquer;

TEST_CASE("a picture read at its own pixel centres comes back exactly") {
    for (const int width : {1, 7, 720, 1280, 4099}) {
        const Picture picture = test::test_picture(width, 3);
        for (int x = 0; x < width; ++x) {
            const float u = (static_cast<float>(x) + 0.5F) / static_cast<float>(width);
            REQUIRE(sample_linear(picture, u, 0.5F)[0] == picture.at(x, 1)[0]);
        }
    }
}

TEST_CASE("between pixels it is the straight mix, rounded to 1/256 of a pixel") {
    Picture picture(2, 1, 4);
    for (std::size_t c = 0; c < 4; ++c) {
        picture.at(0, 0)[c] = 1;
        picture.at(1, 0)[c] = 3;
    }
    CHECK(sample_linear(picture, 0.5F, 0.5F)[0] == 2);
    CHECK(sample_linear(picture, 0.375F, 0.5F)[0] == 1.5F);
    CHECK(sample_linear(picture, 0.375F + 0.0001F, 0.5F)[0] == 1.5F);
    CHECK(sample_linear(picture, -5, 0.5F)[0] == 1);
    CHECK(sample_linear(picture, 5, -9)[0] == 3);
}

TEST_CASE("odd positions and odd pixels are safe") {
    Picture picture = test::test_picture(4, 4);
    const float inf = std::numeric_limits<float>::infinity();
    CHECK(sample_linear(picture, std::nanf(""), std::nanf(""))[0] == picture.at(0, 0)[0]);
    CHECK(sample_linear(picture, inf, -inf)[0] == picture.at(3, 0)[0]);
    // An infinite neighbour does not spoil a pixel that is read at its centre.
    picture.at(1, 0)[0] = inf;
    CHECK(sample_linear(picture, 0.125F, 0.125F)[0] == picture.at(0, 0)[0]);
    CHECK(sample_linear(Picture(), 0.5F, 0.5F)[3] == 1);
}

TEST_CASE("shrinking averages what each new pixel covers") {
    Picture picture(4, 2, 1);
    for (std::size_t i = 0; i < 8; ++i) picture.data[i] = static_cast<float>(i);
    const Picture half = shrink_to(picture, 2, 1);
    CHECK(half.data[0] == 2.5F);
    CHECK(half.data[1] == 4.5F);
    CHECK(shrink_to(picture, 100, 100).data == picture.data);
    CHECK(shrink_to(picture, 3, 2).width == 3);
}
