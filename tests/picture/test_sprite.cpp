// Parts laid over one another, and cells of sheets.
#include <catch2/catch.hpp>
#include <chrono>

#include "core/picture/sprite.h"

using namespace lacquer;

namespace {

PicturePtr plain(int width, int height, std::array<float, 4> colour) {
    Picture picture(width, height, 4);
    for (std::size_t i = 0; i < picture.data.size(); ++i) picture.data[i] = colour[i % 4];
    return std::make_shared<const Picture>(std::move(picture));
}

struct SpritePictures {
    Picture colour;
    Picture normal;
    Picture part;
    Picture share;
};

SpritePictures laid(const std::vector<LaidPart>& parts, int width, int height) {
    WorkerPool pool(2);
    const auto layer = [&](SpriteLayer which) { return lay_parts(parts, width, height, which, pool, Cancel()); };
    return {layer(SpriteLayer::colour), layer(SpriteLayer::normal), layer(SpriteLayer::part),
            layer(SpriteLayer::share)};
}

}  // namespace

TEST_CASE("a part lies at its place, whole pixels untouched, and clear around it") {
    const SpritePictures sprite = laid({{plain(4, 2, {0.25F, 0.5F, 2, 1}), nullptr, 5, 4, 1, 0.7}}, 10, 8);
    for (int y = 0; y < 8; ++y) {
        for (int x = 0; x < 10; ++x) {
            const bool within = x >= 3 && x < 7 && y >= 3 && y < 5;
            INFO(x << ", " << y);
            CHECK(sprite.colour.at(x, y)[3] == (within ? 1.0F : 0.0F));
            CHECK(sprite.colour.at(x, y)[2] == (within ? 2.0F : 0.0F));
            CHECK(sprite.part.at(x, y)[0] == (within ? 1.0F : 0.0F));
            CHECK(sprite.share.at(x, y)[0] == (within ? 0.7F : 0.0F));
            CHECK(sprite.normal.at(x, y)[2] == 1.0F);
        }
    }
}

TEST_CASE("later parts lie over earlier ones, by the rule of over (Porter and Duff 1984)") {
    const SpritePictures sprite = laid(
        {{plain(4, 4, {1, 0, 0, 0.5F}), nullptr, 2, 2, 1, 1}, {plain(2, 4, {0, 1, 0, 0.5F}), nullptr, 1, 2, 1, 0.25}},
        4, 4);
    // Fa = 1, Fb = 1 - a, premultiplied: opacity 0.75, green 0.5, red 0.25.
    const float* both = sprite.colour.at(0, 0);
    CHECK(both[3] == Approx(0.75));
    CHECK(both[1] == Approx(0.5 / 0.75));
    CHECK(both[0] == Approx(0.25 / 0.75));
    CHECK(sprite.part.at(0, 0)[0] == 2);
    CHECK(sprite.share.at(0, 0)[0] == 0.25F);
    CHECK(sprite.part.at(3, 0)[0] == 1);
}

TEST_CASE("a part between pixels is mixed by opacity, so that hidden colours do not show") {
    Picture edge(2, 1, 4);
    const std::array<float, 8> pixels{1, 1, 1, 1, 0, 9, 0, 0};
    std::copy(pixels.begin(), pixels.end(), edge.data.begin());
    const SpritePictures sprite = laid({{std::make_shared<const Picture>(edge), nullptr, 2.5, 0.5, 1, 1}}, 6, 1);
    for (int x = 0; x < 6; ++x) {
        if (sprite.colour.at(x, 0)[3] > 0) CHECK(sprite.colour.at(x, 0)[1] == Approx(1));
    }
    CHECK(sprite.colour.at(2, 0)[3] == Approx(0.5));
}

TEST_CASE("a part is made larger about its middle, with its directions") {
    const SpritePictures sprite =
        laid({{plain(2, 2, {1, 1, 1, 1}), plain(2, 2, {1, 0.5F, 0.5F, 1}), 4, 4, 3, 1}}, 8, 8);
    CHECK(sprite.part.at(1, 1)[0] == 1);
    CHECK(sprite.part.at(6, 6)[0] == 1);
    CHECK(sprite.part.at(0, 4)[0] == 0);
    CHECK(sprite.part.at(7, 4)[0] == 0);
    CHECK(sprite.normal.at(4, 4)[0] == 1);
    CHECK(sprite.normal.at(4, 4)[1] == 0);
    CHECK(sprite.normal.at(0, 0)[2] == 1);
}

TEST_CASE("a part that is turned by a right angle has its pixels where they would be by hand") {
    // Two by one: red left, green right. A quarter turn clockwise puts red on top.
    Picture pair(2, 1, 4);
    const std::array<float, 8> pixels{1, 0, 0, 1, 0, 1, 0, 1};
    std::copy(pixels.begin(), pixels.end(), pair.data.begin());
    const auto shared = std::make_shared<const Picture>(pair);
    // It faces right; turned clockwise it faces down, which is -1 with y upwards.
    const PicturePtr right = plain(2, 1, {1, 0.5F, 0.5F, 1});
    const SpritePictures turned = laid({{shared, right, 2.5, 2, 1, 1, 90, false}}, 5, 4);
    CHECK(turned.colour.at(2, 1)[0] == Approx(1));
    CHECK(turned.colour.at(2, 1)[1] == Approx(0).margin(1e-6));
    CHECK(turned.colour.at(2, 2)[1] == Approx(1));
    CHECK(turned.colour.at(2, 1)[3] == Approx(1));
    CHECK(turned.colour.at(1, 1)[3] == Approx(0).margin(1e-6));
    CHECK(turned.normal.at(2, 1)[0] == Approx(0).margin(1e-6));
    CHECK(turned.normal.at(2, 1)[1] == Approx(-1));
    const SpritePictures round = laid({{shared, right, 2, 0.5, 1, 1, 360, false}}, 4, 1);
    const SpritePictures plain_one = laid({{shared, right, 2, 0.5, 1, 1}}, 4, 1);
    for (std::size_t i = 0; i < round.colour.data.size(); ++i)
        CHECK(round.colour.data[i] == Approx(plain_one.colour.data[i]).margin(1e-6));
}

TEST_CASE("a mirrored part has left for right, and faces the other way") {
    Picture pair(2, 1, 4);
    const std::array<float, 8> pixels{1, 0, 0, 1, 0, 1, 0, 1};
    std::copy(pixels.begin(), pixels.end(), pair.data.begin());
    const SpritePictures sprite =
        laid({{std::make_shared<const Picture>(pair), plain(2, 1, {1, 0.5F, 0.5F, 1}), 1, 0.5, 1, 1, 0, true}}, 2, 1);
    CHECK(sprite.colour.at(0, 0)[1] == 1);
    CHECK(sprite.colour.at(1, 0)[0] == 1);
    CHECK(sprite.normal.at(0, 0)[0] == -1);
}

TEST_CASE("places far away, sizes of nothing and missing pictures lay down nothing") {
    const SpritePictures sprite = laid({{nullptr, nullptr, 1, 1, 1, 1},
                                        {plain(2, 2, {1, 1, 1, 1}), nullptr, 1e12, -1e12, 1, 1},
                                        {plain(2, 2, {1, 1, 1, 1}), nullptr, 2, 2, 0, 1}},
                                       4, 4);
    CHECK(sprite.part.data.size() == 16);
    for (const float value : sprite.part.data) CHECK(value == 0);
}

TEST_CASE("a sheet is cut along its rows") {
    Picture sheet(6, 4, 4);
    for (int y = 0; y < 4; ++y) {
        for (int x = 0; x < 6; ++x) sheet.at(x, y)[0] = static_cast<float>(x + 10 * y);
    }
    const Picture cell = sheet_cell(sheet, 3, 2, 4);
    CHECK(cell.width == 2);
    CHECK(cell.height == 2);
    CHECK(cell.at(0, 0)[0] == 22);
    CHECK(cell.at(1, 1)[0] == 33);
    CHECK(sheet_cell(sheet, 3, 2, 99).width == 2);
    CHECK(sheet_cell(sheet, 1, 1, 0).width == 6);
}

TEST_CASE("what parts may touch is counted before any is laid, and laying them can be called off") {
    const PicturePtr one = plain(64, 64, {1, 1, 1, 1});
    CHECK(touched_pixels({{one, nullptr, 32, 32, 1, 1}}, 64, 64) == 64 * 64);
    CHECK(touched_pixels({{one, nullptr, -500, 32, 1, 1}}, 64, 64) == 0);
    const std::vector<LaidPart> many(4096, {one, nullptr, 1024, 1024, 64, 1});
    CHECK(touched_pixels(many, 2048, 2048) == std::int64_t{4096} * 2048 * 2048);
    WorkerPool pool(2);
    const Cancel cancel;
    cancel.request();
    const auto begin = std::chrono::steady_clock::now();
    (void)lay_parts(many, 2048, 2048, SpriteLayer::colour, pool, cancel);
    // Whole, it would take minutes.
    CHECK(std::chrono::steady_clock::now() - begin < std::chrono::seconds(2));
}
