// Three numbers: a point or a direction in the world.
#pragma once

#include <cmath>

namespace lacquer {

struct Vec3 {
    double x = 0;
    double y = 0;
    double z = 0;
    friend bool operator==(const Vec3&, const Vec3&) = default;
    friend Vec3 operator+(Vec3 a, Vec3 b) { return {a.x + b.x, a.y + b.y, a.z + b.z}; }
    friend Vec3 operator-(Vec3 a, Vec3 b) { return {a.x - b.x, a.y - b.y, a.z - b.z}; }
    friend Vec3 operator*(Vec3 a, double s) { return {a.x * s, a.y * s, a.z * s}; }
};

inline double dot(Vec3 a, Vec3 b) { return a.x * b.x + a.y * b.y + a.z * b.z; }
inline Vec3 cross(Vec3 a, Vec3 b) { return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x}; }
inline double length(Vec3 a) { return std::sqrt(dot(a, a)); }
/// `a` at length 1; a null vector stays null.
inline Vec3 normalized(Vec3 a) {
    const double l = length(a);
    return l > 0 ? a * (1 / l) : a;
}
inline Vec3 mixed(Vec3 a, Vec3 b, double share) { return a * (1 - share) + b * share; }

}  // namespace lacquer
