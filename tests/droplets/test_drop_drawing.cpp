// Drops as pictures, against the shapes' own formulas.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/droplets/draw.h"

using namespace lacquer;

namespace {

Drop drop_at(double x, double y, double half, double opacity = 1) {
    Drop drop;
    drop.x = x;
    drop.y = y;
    drop.along = drop.across = half;
    drop.opacity = opacity;
    return drop;
}

DropLayers all_layers() {
    DropLayers layers;
    for (bool& wanted : layers.wanted) wanted = true;
    return layers;
}

DropPictures drawn(const LiveDrops& live, const Droplets& drops, int width, int height, int threads = 2,
                   const DropSprite& sprite = {}) {
    WorkerPool pool(threads);
    return draw_drops(live, drops, sprite, width, height, all_layers(), pool, Cancel());
}

LiveDrops many(int count, int width, int height) {
    LiveDrops live;
    for (int i = 0; i < count; ++i) {
        Drop drop = drop_at(std::fmod(i * 37.7, width + 20.0) - 10, std::fmod(i * 91.3, height + 20.0) - 10,
                            1 + i % 30 * 0.7, 0.1 + i % 9 * 0.1);
        drop.across = drop.along * (0.3 + i % 5 * 0.2);
        drop.turn = i * 0.7;
        drop.tint = {static_cast<float>(i % 3), 0.5F, static_cast<float>(i % 2)};
        drop.seed = static_cast<float>(i) / static_cast<float>(count);
        drop.share = i % 10 * 0.1;
        live.drops.push_back(drop);
    }
    return live;
}

}  // namespace

TEST_CASE("a soft disc is (1 - r^2)^2 and its slope 4 r (1 - r^2) outwards, wherever it lies in the frame") {
    Droplets drops;
    LiveDrops live;
    live.drops = {drop_at(70.3, 40.9, 20, 0.5)};
    live.drops[0].tint = {1, 0.5F, 0.25F};
    live.drops[0].share = 0.3;
    live.drops[0].seed = 0.625F;
    DropPictures pictures = drawn(live, drops, 131, 77);
    for (int y = 0; y < 77; ++y) {
        for (int x = 0; x < 131; ++x) {
            const double u = (x + 0.5 - 70.3) / 20;
            const double v = (y + 0.5 - 40.9) / 20;
            const double t = std::max(0.0, 1 - u * u - v * v);
            const float* colour = pictures[DropLayer::colour].at(x, y);
            REQUIRE(colour[3] == Approx(0.5 * t * t).margin(1e-5));
            REQUIRE(*pictures[DropLayer::age].at(x, y) == Approx(colour[3] > 0 ? 0.3 : 0).margin(1e-5));
            REQUIRE(*pictures[DropLayer::seed].at(x, y) == (colour[3] > 0 ? 0.625F : 0.0F));
            REQUIRE(pictures[DropLayer::push].at(x, y)[0] == Approx(0.5 * 4 * u * t).margin(1e-4));
            REQUIRE(pictures[DropLayer::push].at(x, y)[1] == Approx(0.5 * 4 * v * t).margin(1e-4));
            if (colour[3] <= 1e-6F) continue;
            REQUIRE(colour[0] == Approx(1).margin(1e-4));
            REQUIRE(colour[2] == Approx(0.25).margin(1e-4));
            REQUIRE(pictures[DropLayer::place].at(x, y)[0] == Approx(u).margin(1e-5));
        }
    }
}

// Porter and Duff 1984: over, on premultiplied colours.
TEST_CASE("drops lie over one another, add up, or the more opaque shows") {
    LiveDrops live;
    live.drops = {drop_at(10.5, 10.5, 8, 0.6), drop_at(10.5, 10.5, 8, 0.5)};
    live.drops[0].tint = {1, 0, 0};
    live.drops[1].tint = {0, 1, 0};
    Droplets drops;
    const auto middle = [&](DropBlend blend) {
        drops.blend = blend;
        DropPictures pictures = drawn(live, drops, 21, 21);
        const float* colour = pictures[DropLayer::colour].at(10, 10);
        return std::array<float, 4>{colour[0] * colour[3], colour[1] * colour[3], colour[2] * colour[3], colour[3]};
    };
    const auto over = middle(DropBlend::over);
    CHECK(over[0] == Approx(0.6 * 0.5));
    CHECK(over[1] == Approx(0.5));
    CHECK(over[3] == Approx(1 - 0.4 * 0.5));
    drops.oldest_on_top = true;
    const auto under = middle(DropBlend::over);
    CHECK(under[0] == Approx(0.6));
    CHECK(under[1] == Approx(0.5 * 0.4));
    const auto sum = middle(DropBlend::add);
    CHECK(sum[0] == Approx(0.6));
    CHECK(sum[1] == Approx(0.5));
    CHECK(sum[3] == 1);
    const auto larger = middle(DropBlend::larger);
    CHECK(larger[0] == Approx(0.6));
    CHECK(larger[1] == 0);
    CHECK(larger[3] == Approx(0.6));
}

TEST_CASE("any number of threads draws the same bits, and a drop that is elsewhere changes none of them") {
    for (const DropShape shape : {DropShape::disc, DropShape::ring, DropShape::streak, DropShape::splash}) {
        Droplets drops;
        drops.shape = shape;
        for (const DropBlend blend : {DropBlend::add, DropBlend::over, DropBlend::larger}) {
            drops.blend = blend;
            LiveDrops live = many(300, 150, 101);
            DropPictures one = drawn(live, drops, 150, 101, 1);
            DropPictures eight = drawn(live, drops, 150, 101, 8);
            for (int i = 0; i < drop_layer_count; ++i) {
                REQUIRE(std::equal(one.layers[i].data.begin(), one.layers[i].data.end(), eight.layers[i].data.begin(),
                                   eight.layers[i].data.end()));
                for (const float value : one.layers[i].data) REQUIRE(std::isfinite(value));
            }
            live.drops.push_back(drop_at(140, 90, 5));
            DropPictures more = drawn(live, drops, 150, 101);
            for (int y = 0; y < 101; ++y) {
                for (int x = 0; x < 150; ++x) {
                    if (std::fabs(x - 140) < 7 && std::fabs(y - 90) < 7) continue;
                    for (int k = 0; k < 4; ++k)
                        REQUIRE(more[DropLayer::colour].at(x, y)[k] == one[DropLayer::colour].at(x, y)[k]);
                }
            }
        }
    }
}

TEST_CASE("ready shapes keep within -1..1, stand between 0 and 1, and their slopes are those of their heights") {
    for (const DropShape shape : {DropShape::disc, DropShape::ring, DropShape::streak, DropShape::splash}) {
        Droplets drops;
        drops.shape = shape;
        LiveDrops live;
        live.drops = {drop_at(100, 100, 80)};
        live.drops[0].seed = 0.37F;
        DropPictures pictures = drawn(live, drops, 200, 200);
        double largest = 0;
        for (int y = 1; y < 199; ++y) {
            for (int x = 1; x < 199; ++x) {
                const auto height = [&](int dx, int dy) {
                    return static_cast<double>(pictures[DropLayer::colour].at(x + dx, y + dy)[3]);
                };
                REQUIRE(height(0, 0) >= 0);
                REQUIRE(height(0, 0) <= 1);
                if (std::abs(x - 100) > 82 || std::abs(y - 100) > 82) REQUIRE(height(0, 0) == 0);
                // Where it isn't, it has no slope; a splash's leaves out how its edge goes in and out along it.
                if (height(0, 0) == 0) REQUIRE(std::fabs(pictures[DropLayer::push].at(x, y)[0]) < 1e-6F);
                const bool at_an_end = shape == DropShape::streak && std::fabs(std::fabs(x + 0.5 - 100) - 80) < 1.5;
                if (shape == DropShape::splash || at_an_end) continue;
                const double across = (height(-1, 0) - height(1, 0)) / 2 * 80;
                const double off = std::fabs(across - static_cast<double>(pictures[DropLayer::push].at(x, y)[0]));
                largest = std::max(largest, off);
            }
        }
        // A ring is steep, and where it begins its slope has a kink that differences blur.
        CHECK(largest < (shape == DropShape::ring ? 0.5 : 0.06));
    }
}

TEST_CASE("a sheet's cells don't run into one another, a smaller copy is read where a drop is small") {
    // Two cells: red, and green with a clear border.
    auto sheet = std::make_shared<Picture>(64, 32, 4);
    for (int y = 0; y < 32; ++y) {
        for (int x = 0; x < 64; ++x) {
            float* pixel = sheet->at(x, y);
            const bool left = x < 32;
            pixel[0] = left ? 1.0F : 0.0F;
            pixel[1] = left ? 0.0F : 1.0F;
            pixel[2] = 0;
            pixel[3] = left || (x >= 36 && x < 60 && y >= 4 && y < 28) ? 1.0F : 0.0F;
        }
    }
    DropSprite sprite{{sheet}};
    Droplets drops;
    drops.shape = DropShape::picture;
    drops.columns = 2;
    LiveDrops live;
    live.drops = {drop_at(20, 20, 10), drop_at(60, 20, 10)};
    live.drops[1].cell = 1;
    DropPictures pictures = drawn(live, drops, 80, 40, 2, sprite);
    CHECK(pictures[DropLayer::colour].at(29, 20)[0] == 1);
    CHECK(pictures[DropLayer::colour].at(29, 20)[1] == 0);
    CHECK(pictures[DropLayer::colour].at(60, 20)[1] == 1);
    CHECK(pictures[DropLayer::colour].at(50, 20)[3] == 0);
    CHECK(pictures[DropLayer::colour].at(40, 20)[3] == 0);
    // Hidden colours are cleaned.
    CHECK(pictures[DropLayer::colour].at(50, 20)[1] == 0);
}

TEST_CASE("drops of no size, of a hundred frames, or far away are drawn or left out, at any frame size") {
    Droplets drops;
    LiveDrops live;
    live.drops = {drop_at(5, 5, 0),          drop_at(5, 5, 1e5, 0.5),     drop_at(1e12, 5, 3),
                  drop_at(-1e300, 1e300, 3), drop_at(std::nan(""), 5, 3), drop_at(0, 0, 1e-9),
                  drop_at(2, 2, 3, 0)};
    for (const auto& [width, height] : {std::pair{1, 1}, {1, 70}, {70, 1}, {65, 33}}) {
        DropPictures pictures = drawn(live, drops, width, height);
        for (const float value : pictures[DropLayer::colour].data) REQUIRE(std::isfinite(value));
        CHECK(pictures[DropLayer::colour].at(0, 0)[3] == Approx(0.5).margin(1e-3));
    }
}
