#include "core/scene/world.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/scene/waves.h"

namespace lacquer {

namespace {

constexpr double degree = std::numbers::pi / 180;

Vec3 turned_about(Vec3 v, Vec3 axis, double degrees) {
    const double c = std::cos(degrees * degree);
    const double s = std::sin(degrees * degree);
    return v * c + cross(axis, v) * s + axis * (dot(axis, v) * (1 - c));
}

Standing turned(Standing standing, Vec3 axis, double degrees) {
    for (Vec3* own : {&standing.x, &standing.y, &standing.z}) *own = turned_about(*own, axis, degrees);
    return standing;
}

}  // namespace

Standing standing(Vec3 origin, double turn, double roll, double pitch) {
    Standing made;
    made.origin = origin;
    made = turned(made, {0, 1, 0}, turn);
    made = turned(made, made.x, roll);
    return turned(made, made.z, pitch);
}

Solid solid(Shape shape, const Standing& in, Vec3 place, Vec3 size, double turn, double lean) {
    Standing own = in;
    own.origin = in.point(place);
    own = turned(own, own.y, turn);
    own = turned(own, own.z, lean);
    Solid made;
    made.shape = shape;
    // The axes are at right angles, so each row of the inverse is an axis over the square of its length.
    const std::array<Vec3, 3> rows = {own.x * (1 / size.x), own.y * (1 / size.y), own.z * (1 / size.z)};
    for (std::size_t i = 0; i < 3; ++i) {
        const Vec3 row = rows[i];
        made.to_local[i] = {static_cast<float>(row.x), static_cast<float>(row.y), static_cast<float>(row.z),
                            static_cast<float>(-dot(row, own.origin))};
    }
    for (std::size_t i = 0; i < 8; ++i) {
        const double foot = shape == Shape::cone ? 0.0 : -1.0;
        made.corners[i] = own.point({(i & 1U) != 0 ? size.x : -size.x, (i & 2U) != 0 ? size.y : size.y * foot,
                                     (i & 4U) != 0 ? size.z : -size.z});
    }
    return made;
}

double wave_height(double x, double z, double seconds, double height) {
    double sum = 0;
    for (const Swell& swell : swells) {
        sum += static_cast<double>(swell.share) *
               std::sin(static_cast<double>(swell.x) * x + static_cast<double>(swell.z) * z +
                        static_cast<double>(swell.rate) * seconds);
    }
    return sum * height;
}

}  // namespace lacquer
