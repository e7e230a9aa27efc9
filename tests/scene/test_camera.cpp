// The camera: what its pixels look along, and how it is moved.
#include <catch2/catch.hpp>

#include "core/scene/camera.h"

using namespace lacquer;

namespace {

const Camera somewhere{{3, 5, 8}, {-1, 1, 0}, 50};

Vec3 along(const Rays& rays, double u, double v, double depth) {
    return rays.eye + (rays.corner + rays.across * u + rays.down * v) * depth;
}

}  // namespace

TEST_CASE("a point on a pixel's ray is seen in that pixel, at its depth") {
    for (const double aspect : {1.0, 16.0 / 9, 0.5}) {
        const Rays rays = rays_of(somewhere, aspect);
        for (const auto& [u, v, depth] : {std::tuple{0.5, 0.5, 1.0}, {0.1, 0.9, 7.0}, {0.99, 0.02, 300.0}}) {
            const auto seen = project(somewhere, aspect, along(rays, u, v, depth));
            REQUIRE(seen);
            CHECK(seen->u == Approx(u));
            CHECK(seen->v == Approx(v));
            CHECK(seen->depth == Approx(depth));
        }
    }
    CHECK_FALSE(project(somewhere, 1, {10, 12, 20}));  // behind it
}

TEST_CASE("the field of view is the angle between the rays through the upper and the lower border") {
    const Rays rays = rays_of(somewhere, 2);
    const Vec3 top = normalized(rays.corner + rays.across * 0.5);
    const Vec3 bottom = normalized(rays.corner + rays.across * 0.5 + rays.down);
    CHECK(std::acos(dot(top, bottom)) * 180 / 3.14159265358979 == Approx(50));
}

TEST_CASE("orbit keeps the distance, dolly the direction, and moving both") {
    const double far = length(somewhere.eye - somewhere.target);
    const Camera turned = orbited(somewhere, 30, -12);
    CHECK(length(turned.eye - turned.target) == Approx(far));
    CHECK(turned.target == somewhere.target);
    const Camera back = orbited(turned, -30, 12);
    CHECK(length(back.eye - somewhere.eye) < 1e-9);
    // It never tips over the pole.
    CHECK(orbited(somewhere, 0, 500).eye.y < somewhere.target.y + far);
    const Camera near = dollied(somewhere, 0.5);
    CHECK(length(near.eye - near.target) == Approx(far / 2));
    CHECK(length(dollied(somewhere, 0).eye - somewhere.target) > 0);
    const Camera aside = moved(somewhere, 0.25, 0);
    CHECK(length((aside.eye - aside.target) - (somewhere.eye - somewhere.target)) < 1e-9);
    // What was in the middle is a quarter of the height to the left now.
    CHECK(project(aside, 1, somewhere.target)->u == Approx(0.25));
}

TEST_CASE("a path goes through its keys and rests before and after them") {
    const Camera a{{0, 1, 5}, {0, 1, 0}, 40};
    const Camera b{{4, 2, 5}, {1, 1, 0}, 30};
    const Camera c{{8, 1, 0}, {0, 0, 0}, 60};
    const std::vector<CameraKey> path{{1, a}, {2, b}, {4, c}};
    CHECK(camera_at(somewhere, {}, 3) == somewhere);
    CHECK(camera_at(somewhere, path, 0) == a);
    CHECK(camera_at(somewhere, path, 9) == c);
    CHECK(length(camera_at(somewhere, path, 2).eye - b.eye) < 1e-12);
    // No jump at a key.
    CHECK(length(camera_at(somewhere, path, 2 - 1e-7).eye - camera_at(somewhere, path, 2 + 1e-7).eye) < 1e-5);
}
