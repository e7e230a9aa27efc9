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
    for (const float odd : {std::nanf(""), inf, -inf}) {
        for (const float part : sample_linear(picture, odd, 0.5F)) CHECK(std::isnan(part));
        for (const float part : sample_linear(picture, 0.5F, odd)) CHECK(std::isnan(part));
    }
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
    // Halving has a way of its own: its sums are those of any other size.
    const Picture large = test::test_picture(12, 6);
    const Picture small = shrink_to(large, 6, 3);
    for (int y = 0; y < 3; ++y) {
        for (int x = 0; x < 6; ++x) {
            for (int c = 0; c < 4; ++c) {
                double sum = 0;
                for (int j = 0; j < 2; ++j) {
                    for (int i = 0; i < 2; ++i) sum += static_cast<double>(large.at(2 * x + i, 2 * y + j)[c]);
                }
                CHECK(small.at(x, y)[c] == static_cast<float>(sum / 4));
            }
        }
    }
    CHECK(shrink_to(picture, 3, 2).width == 3);
}

TEST_CASE("beyond its borders a picture is held, repeated or mirrored") {
    Picture picture(4, 1, 4);
    for (int x = 0; x < 4; ++x) {
        for (int c = 0; c < 4; ++c) picture.at(x, 0)[c] = static_cast<float>(x);
    }
    const auto at = [&](Wrap wrap, Filter filter, float u) {
        return sample(view_of(picture, {wrap, filter}), u, 0.5F)[0];
    };
    const auto centre = [](int x) { return (static_cast<float>(x) + 0.5F) / 4; };
    const std::vector<int> held = {0, 0, 0, 1, 2, 3, 3, 3};
    const std::vector<int> again = {2, 3, 0, 1, 2, 3, 0, 1};
    const std::vector<int> mirrored = {1, 0, 0, 1, 2, 3, 3, 2};
    for (int x = -2; x < 6; ++x) {
        const auto k = static_cast<std::size_t>(x + 2);
        for (const Filter filter : {Filter::linear, Filter::nearest}) {
            CHECK(at(Wrap::clamp, filter, centre(x)) == static_cast<float>(held[k]));
            CHECK(at(Wrap::repeat, filter, centre(x)) == static_cast<float>(again[k]));
            CHECK(at(Wrap::mirror, filter, centre(x)) == static_cast<float>(mirrored[k]));
        }
    }
    CHECK(at(Wrap::repeat, Filter::linear, 0) == 1.5F);
    CHECK(at(Wrap::clamp, Filter::nearest, 0.49F) == 1);
    CHECK(at(Wrap::clamp, Filter::nearest, 0.51F) == 2);
    for (const Wrap wrap : {Wrap::repeat, Wrap::mirror}) {
        CHECK(std::isnan(at(wrap, Filter::linear, std::numeric_limits<float>::infinity())));
        for (const float far : {1e30F, -1e30F}) {
            const float read = at(wrap, Filter::linear, far);
            CHECK((read >= 0 && read <= 3));
        }
    }
}

TEST_CASE("smaller copies halve down to one pixel, and levels mix two of them") {
    Picture picture(4, 2, 4);
    for (int y = 0; y < 2; ++y) {
        for (int x = 0; x < 4; ++x) {
            for (int c = 0; c < 4; ++c) picture.at(x, y)[c] = static_cast<float>(x);
        }
    }
    const std::vector<Picture> copies = smaller_copies(picture);
    REQUIRE(copies.size() == 2);
    CHECK(copies[0].width == 2);
    CHECK(copies[0].height == 1);
    CHECK(copies[0].at(1, 0)[0] == 2.5F);
    CHECK(copies[1].at(0, 0)[0] == 1.5F);
    std::vector<PictureView> views;
    for (const Picture& copy : copies) views.push_back(view_of(copy));
    PictureView view = view_of(picture);
    view.smaller = views;
    CHECK(sample_level(view, 0.125F, 0.5F, 0)[0] == 0);
    CHECK(sample_level(view, 0.25F, 0.5F, 1)[0] == 0.5F);
    CHECK(sample_level(view, 0.25F, 0.5F, 1.5F)[0] == 1);
    CHECK(sample_level(view, 0.9F, 0.5F, 99)[0] == 1.5F);
    CHECK(sample_level(view, 0.125F, 0.5F, std::nanf(""))[0] == 0);
    CHECK(sample_level(view_of(picture), 0.125F, 0.5F, 5)[0] == 0);
    CHECK(smaller_copies(Picture(1, 1, 4)).empty());
}

TEST_CASE("one pixel is fetched as it is; beyond the borders the outermost") {
    Picture picture(3, 2, 4);
    for (std::size_t i = 0; i < picture.data.size(); ++i) picture.data[i] = static_cast<float>(i);
    const PictureView view = view_of(picture);
    CHECK(fetch(view, 1, 1)[0] == picture.at(1, 1)[0]);
    CHECK(fetch(view, -5, 0)[2] == picture.at(0, 0)[2]);
    CHECK(fetch(view, 2147483647, 2147483647)[3] == picture.at(2, 1)[3]);
    CHECK(fetch(PictureView(), 0, 0)[3] == 1);
}
