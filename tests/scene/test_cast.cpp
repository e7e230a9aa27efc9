// What rays meet, against what geometry says, in double precision.
#include <catch2/catch.hpp>
#include <cstring>

#include "core/scene/building.h"
#include "core/scene/cast.h"
#include "core/scene/cast_kernels.h"
#include "core/scene/places.h"

using namespace lacquer;

namespace {

constexpr SceneLayerSet all{true, true, true, true, true};
const Camera camera{{2, 3, 9}, {0, 1, 0}, 45};

SceneLayers cast(const SceneWorld& world, int width = 96, int height = 64, int threads = 2) {
    WorkerPool pool(threads);
    return cast_world(world, camera, width, height, all, pool, Cancel());
}

// The ray through a pixel's middle, with its length counted in depth.
struct Ray {
    Vec3 eye;
    Vec3 way;
    Vec3 at(double t) const { return eye + way * t; }
};
Ray ray(int x, int y, int width = 96, int height = 64) {
    const Rays rays = rays_of(camera, static_cast<double>(width) / height);
    return {rays.eye, rays.corner + rays.across * ((x + 0.5) / width) + rays.down * ((y + 0.5) / height)};
}

Vec3 vec(const float* v) { return {static_cast<double>(v[0]), static_cast<double>(v[1]), static_cast<double>(v[2])}; }

bool same_bits(const Picture& a, const Picture& b) {
    return a.data.size() == b.data.size() && std::memcmp(a.data.data(), b.data.data(), a.data.size() * 4) == 0;
}

}  // namespace

TEST_CASE("a ball is met where its equation says") {
    SceneWorld world;
    const Vec3 centre{0.3, 1.1, -0.5};
    constexpr double radius = 1.4;
    Builder{world, 7}.ball(centre, {radius, radius, radius}, {.colour = {1, 1, 1}});
    const SceneLayers layers = cast(world);
    int met = 0;
    for (int y = 0; y < 64; ++y) {
        for (int x = 0; x < 96; ++x) {
            const Ray r = ray(x, y);
            const Vec3 o = r.eye - centre;
            const double a = dot(r.way, r.way);
            const double b = dot(o, r.way);
            const double inner = b * b - a * (dot(o, o) - radius * radius);
            if (std::fabs(inner) < 0.05) continue;  // the rim, where the last bit decides
            const bool hit = inner > 0;
            INFO(x << ", " << y);
            REQUIRE((layers.id.at(x, y)[0] == 7) == hit);
            if (!hit) {
                CHECK(layers.depth.at(x, y)[0] == sky_depth);
                CHECK(length(vec(layers.normal.at(x, y))) == 0);
                continue;
            }
            ++met;
            const double t = (-b - std::sqrt(inner)) / a;
            CHECK(static_cast<double>(layers.depth.at(x, y)[0]) == Approx(t).epsilon(1e-5));
            CHECK(length(vec(layers.position.at(x, y)) - r.at(t)) < 1e-4);
            CHECK(length(vec(layers.normal.at(x, y)) - (r.at(t) - centre) * (1 / radius)) < 1e-4);
        }
    }
    CHECK(met > 300);
}

TEST_CASE("a block, turned or not, is met at its nearest side") {
    for (const double turn : {0.0, 33.0}) {
        SceneWorld world;
        const Vec3 half_size{1.5, 0.7, 0.9};
        const Standing stands = standing({0, 1, 0}, turn);
        Builder{world, 3, stands}.block({0, 0, 0}, half_size, {.colour = {1, 1, 1}});
        const SceneLayers layers = cast(world);
        int met = 0;
        for (int y = 0; y < 64; ++y) {
            for (int x = 0; x < 96; ++x) {
                if (layers.id.at(x, y)[0] == 0) continue;
                ++met;
                const Vec3 from = vec(layers.position.at(x, y)) - stands.origin;
                const Vec3 local{dot(from, stands.x) / half_size.x, dot(from, stands.y) / half_size.y,
                                 dot(from, stands.z) / half_size.z};
                const double far = std::max({std::fabs(local.x), std::fabs(local.y), std::fabs(local.z)});
                INFO(turn << ": " << x << ", " << y);
                CHECK(far == Approx(1).epsilon(1e-4));
                const Vec3 normal = vec(layers.normal.at(x, y));
                CHECK(length(normal) == Approx(1).epsilon(1e-4));
                CHECK(dot(normal, ray(x, y).way) <= 0);
                // Along one of its own axes.
                const double axis = std::max({std::fabs(dot(normal, stands.x)), std::fabs(dot(normal, stands.y)),
                                              std::fabs(dot(normal, stands.z))});
                CHECK(axis == Approx(1).epsilon(1e-4));
            }
        }
        CHECK(met > 200);
    }
}

TEST_CASE("a drum's wall and lids, and a cone's slope") {
    SceneWorld world;
    Builder{world, 4}.drum({0, 0, 0}, 1.2, 2.0, {.colour = {1, 1, 1}}, 0.5);
    const SceneLayers layers = cast(world);
    int walls = 0;
    int lids = 0;
    for (int y = 0; y < 64; ++y) {
        for (int x = 0; x < 96; ++x) {
            if (layers.id.at(x, y)[0] == 0) continue;
            const Vec3 at = vec(layers.position.at(x, y));
            const double round = std::hypot(at.x, at.z);
            const double wall = 1.2 * (1 - 0.5 * at.y / 2.0);
            const bool lid = std::fabs(at.y - 2.0) < 1e-3 && round < wall + 1e-3;
            CHECK((lid || std::fabs(round - wall) < 2e-3));
            const Vec3 normal = vec(layers.normal.at(x, y));
            if (lid && round < wall - 0.01) {
                ++lids;
                CHECK(normal.y == Approx(1));
            } else if (!lid) {
                ++walls;
                // At right angles to the slope: the radius shrinks by 0.6 over a height of 2.
                const Vec3 slope = normalized(Vec3{-at.x / round * 0.6, 2.0, -at.z / round * 0.6});
                CHECK(std::fabs(dot(normal, slope)) < 2e-3);
            }
        }
    }
    CHECK(walls > 100);
    CHECK(lids > 5);
}

TEST_CASE("the sea without waves is a plane") {
    SceneWorld world;
    world.sea = {true, 0.25F, 0, {0, 0, 0}, 1};
    const SceneLayers layers = cast(world);
    for (int y = 40; y < 64; ++y) {
        for (int x = 0; x < 96; ++x) {
            const Ray r = ray(x, y);
            const double t = (0.25 - r.eye.y) / r.way.y;
            CHECK(static_cast<double>(layers.depth.at(x, y)[0]) == Approx(t).epsilon(1e-5));
            CHECK(static_cast<double>(layers.normal.at(x, y)[1]) == Approx(1));
        }
    }
}

TEST_CASE("positions, put through the camera, come back to the pixel that they came from") {
    for (const ScenePlace& place : scene_places()) {
        WorkerPool pool(2);
        const SceneLayers layers = cast_world(place.world(Hour::day, 2.5), place.camera, 160, 90, all, pool, Cancel());
        double worst = 0;
        for (int y = 0; y < 90; ++y) {
            for (int x = 0; x < 160; ++x) {
                const auto seen = project(place.camera, 160.0 / 90, vec(layers.position.at(x, y)));
                REQUIRE(seen);
                worst = std::max({worst, std::fabs(seen->u * 160 - x - 0.5), std::fabs(seen->v * 90 - y - 0.5)});
                CHECK(seen->depth == Approx(static_cast<double>(layers.depth.at(x, y)[0])).epsilon(1e-4));
            }
        }
        INFO(place.name);
        CHECK(worst < 0.01);
    }
}

TEST_CASE("the same bits on every instruction set and for any number of threads") {
    const SceneWorld world = harbour().world(Hour::storm, 1.25);
    const SceneLayers first = cast(world, 203, 119, 1);
    const auto agrees = [&](const SceneLayers& other) {
        return same_bits(first.colour, other.colour) && same_bits(first.depth, other.depth) &&
               same_bits(first.normal, other.normal) && same_bits(first.position, other.position) &&
               same_bits(first.id, other.id);
    };
    CHECK(agrees(cast(world, 203, 119, 3)));
    const std::vector<long> targets = cast_targets();
    CHECK(targets.size() >= 2);
    for (const long target : targets) {
        limit_cast_targets(target);
        INFO(target);
        CHECK(agrees(cast(world, 203, 119)));
    }
    limit_cast_targets(0);
}

TEST_CASE("a layer is the same whatever else is cast with it, and those not asked for are empty") {
    const SceneWorld world = lamp_room().world(Hour::dusk, 0);
    WorkerPool pool(1);
    const SceneLayers whole = cast(world, 64, 40);
    SceneLayerSet only;
    only.depth = true;
    const SceneLayers depth = cast_world(world, camera, 64, 40, only, pool, Cancel());
    CHECK(same_bits(whole.depth, depth.depth));
    CHECK(depth.colour.data.empty());
    CHECK(depth.id.data.empty());
}

TEST_CASE("edges between objects are smoothed in the colours") {
    SceneWorld world;
    world.sky.high = world.sky.low = {0, 0, 0};
    world.sky.light = {0, 0, 0};
    Builder{world, 2}.ball({0, 1, 0}, {2, 2, 2}, glowing({1, 1, 1}, 1));
    const SceneLayers layers = cast(world);
    int between = 0;
    for (int y = 0; y < 64; ++y) {
        for (int x = 0; x < 96; ++x) {
            const float red = layers.colour.at(x, y)[0];
            const bool whole = red < 0.01F || red > 0.97F;
            between += whole ? 0 : 1;
        }
    }
    CHECK(between > 30);
}

TEST_CASE("what surrounds the camera, reaches behind it or lies behind it") {
    SceneWorld world;
    Builder{world, 1}.ball(camera.eye, {30, 30, 30}, {.colour = {1, 1, 1}});
    Builder{world, 2}.block({2, 2.0, 9}, {0.2, 0.2, 40}, {.colour = {1, 1, 1}});
    Builder{world, 3}.ball(camera.eye * 2 - camera.target, {3, 3, 3}, {.colour = {1, 1, 1}});
    const SceneLayers layers = cast(world);
    int beam = 0;
    for (std::size_t i = 0; i < layers.id.data.size(); i += 4) {
        REQUIRE((layers.id.data[i] == 1 || layers.id.data[i] == 2));
        beam += layers.id.data[i] == 2 ? 1 : 0;
    }
    CHECK(beam > 50);
}

TEST_CASE("what is called off ends soon, without a picture to be used") {
    WorkerPool pool(2);
    Cancel cancel;
    cancel.request();
    const SceneLayers layers = cast_world(harbour().world(Hour::day, 0), camera, 4000, 3000, all, pool, cancel);
    CHECK(layers.colour.width == 4000);
}

TEST_CASE("pictures that nobody needs are written over, and hold what fresh ones would") {
    WorkerPool pool(2);
    const ScenePlace* place = find_place("harbour");
    const SceneLayerSet all{true, true, true, true, true};
    const auto cast_at = [&](double seconds, SceneLayers again) {
        return cast_world(place->world(Hour::day, seconds), place->camera, 96, 54, all, pool, Cancel(),
                          std::move(again));
    };
    SceneLayers old = cast_at(3, {});
    const float* memory = old.position.data.data();
    const SceneLayers over = cast_at(0.5, std::move(old));
    const SceneLayers fresh = cast_at(0.5, {});
    CHECK(over.position.data.data() == memory);
    CHECK(over.colour.data == fresh.colour.data);
    CHECK(over.depth.data == fresh.depth.data);
    CHECK(over.normal.data == fresh.normal.data);
    CHECK(over.position.data == fresh.position.data);
    CHECK(over.id.data == fresh.id.data);
    // Of another size they are let go.
    CHECK(cast_world(place->world(Hour::day, 0), place->camera, 40, 30, all, pool, Cancel(), cast_at(0, {}))
              .colour.width == 40);
}
