#include "core/scene/camera.h"

#include <algorithm>
#include <numbers>

namespace lacquer {

namespace {

constexpr double degree = std::numbers::pi / 180;
constexpr double steepest = 89;  // degrees; straight up there is no sideways
constexpr double nearest = 0.2;  // metres to what it looks at

struct Axes {
    Vec3 right;
    Vec3 up;
    Vec3 forward;
};

Axes axes_of(const Camera& camera) {
    const Vec3 way = camera.target - camera.eye;
    const Vec3 forward = length(way) > 0 ? normalized(way) : Vec3{0, 0, -1};
    const Vec3 side = cross(forward, {0, 1, 0});
    const Vec3 right = length(side) > 1e-9 ? normalized(side) : Vec3{1, 0, 0};
    return {right, cross(right, forward), forward};
}

double half_height(const Camera& camera) { return std::tan(camera.field * degree / 2); }

// The Catmull-Rom curve through b and c, with the neighbours a and d.
Vec3 between(Vec3 a, Vec3 b, Vec3 c, Vec3 d, double t) {
    const double t2 = t * t;
    const double t3 = t2 * t;
    return (b * 2 + (c - a) * t + (a * 2 - b * 5 + c * 4 - d) * t2 + (b * 3 - a - c * 3 + d) * t3) * 0.5;
}

}  // namespace

Rays rays_of(const Camera& camera, double aspect) {
    const Axes axes = axes_of(camera);
    const double high = half_height(camera);
    const Vec3 right = axes.right * (high * aspect);
    const Vec3 up = axes.up * high;
    return {camera.eye, axes.forward, axes.forward - right + up, right * 2, up * -2};
}

std::optional<Projected> project(const Camera& camera, double aspect, Vec3 point) {
    const Axes axes = axes_of(camera);
    const Vec3 way = point - camera.eye;
    const double depth = dot(way, axes.forward);
    if (!(depth > 0)) return std::nullopt;
    const double high = half_height(camera) * depth;
    return Projected{0.5 + dot(way, axes.right) / (2 * high * aspect), 0.5 - dot(way, axes.up) / (2 * high), depth};
}

Camera orbited(const Camera& camera, double right, double up) {
    const Vec3 way = camera.eye - camera.target;
    const double far = length(way);
    if (!(far > 0)) return camera;
    const double turn = std::atan2(way.x, way.z) + right * degree;
    const double rise = std::asin(std::clamp(way.y / far, -1.0, 1.0)) / degree + up;
    const double held = std::clamp(rise, -steepest, steepest) * degree;
    Camera turned = camera;
    turned.eye =
        camera.target + Vec3{std::sin(turn) * std::cos(held), std::sin(held), std::cos(turn) * std::cos(held)} * far;
    return turned;
}

Camera dollied(const Camera& camera, double factor) {
    const Vec3 way = camera.eye - camera.target;
    const double far = std::max(nearest, length(way) * factor);
    Camera nearer = camera;
    nearer.eye = camera.target + normalized(way) * far;
    return nearer;
}

Camera moved(const Camera& camera, double right, double up) {
    const Axes axes = axes_of(camera);
    const double high = 2 * half_height(camera) * length(camera.target - camera.eye);
    const Vec3 by = axes.right * (right * high) + axes.up * (up * high);
    Camera there = camera;
    there.eye = camera.eye + by;
    there.target = camera.target + by;
    return there;
}

Camera camera_at(const Camera& still, const std::vector<CameraKey>& keys, double seconds) {
    if (keys.empty()) return still;
    const auto after = std::find_if(keys.begin(), keys.end(), [&](const CameraKey& k) { return k.seconds > seconds; });
    if (after == keys.begin()) return keys.front().camera;
    if (after == keys.end()) return keys.back().camera;
    const auto i = static_cast<std::size_t>(after - keys.begin());
    const auto key = [&](std::size_t k) -> const Camera& { return keys[std::min(k, keys.size() - 1)].camera; };
    const Camera& b = key(i - 1);
    const Camera& c = key(i);
    const Camera& a = i >= 2 ? key(i - 2) : b;
    const Camera& d = key(i + 1);
    const double t = (seconds - keys[i - 1].seconds) / (keys[i].seconds - keys[i - 1].seconds);
    return {between(a.eye, b.eye, c.eye, d.eye, t), between(a.target, b.target, c.target, d.target, t),
            b.field + (c.field - b.field) * t};
}

}  // namespace lacquer
