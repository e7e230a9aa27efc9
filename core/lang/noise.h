// Noise, written once for any kind of number and any hash of lattice points; the strip machine follows it step by step.
#pragma once

#include <cmath>
#include <cstdint>

#include "core/base/hash.h"

namespace lacquer {

/// The whole number below x as lattice coordinate: held to the range of int, NaN gives 0.
template <class Real>
std::uint32_t lattice(Real x) {
    const Real below = std::floor(x);
    if (!(below > Real(-2147483648.0))) return std::isnan(below) ? 0U : 0x80000000U;
    if (below >= Real(2147483648.0)) return 0x7FFFFFFFU;
    return static_cast<std::uint32_t>(static_cast<std::int32_t>(below));
}

/// The hash of a lattice point: `pcg` nested, innermost the last coordinate.
constexpr std::uint32_t lattice_hash(std::uint32_t x, std::uint32_t y) { return pcg(x + pcg(y)); }
constexpr std::uint32_t lattice_hash(std::uint32_t x, std::uint32_t y, std::uint32_t z) {
    return pcg(x + pcg(y + pcg(z)));
}

/// Fade curve of Perlin 2002, "Improving Noise": 6t^5 - 15t^4 + 10t^3.
template <class Real>
Real fade(Real t) {
    return t * t * t * (t * (t * Real(6) - Real(15)) + Real(10));
}

template <class Real>
Real between(Real t, Real a, Real b) {
    return a + t * (b - a);
}

/// Slope of a plane at (x, y): one of eight directions, 45 degrees apart, by the low three bits of the hash.
template <class Real>
Real slope_2(std::uint32_t hash, Real x, Real y) {
    const bool steep = (hash & 4U) != 0;
    const Real u = steep ? y : x;
    const Real v = (steep ? x : y) * Real(0.41421356);
    return ((hash & 1U) != 0 ? -u : u) + ((hash & 2U) != 0 ? -v : v);
}

/// Slope in space: one of the twelve edge directions of Perlin 2002 by the low four bits of the hash.
template <class Real>
Real slope_3(std::uint32_t hash, Real x, Real y, Real z) {
    const std::uint32_t h = hash & 15U;
    const Real u = h < 8 ? x : y;
    const Real v = h < 4 ? y : (h == 12 || h == 14 ? x : z);
    return ((h & 1U) != 0 ? -u : u) + ((h & 2U) != 0 ? -v : v);
}

/// Gradient noise in the plane, about -0.765 to 0.765, 0 at whole points. `corner(ix, iy)` hashes a lattice point.
template <class Real, class Corner>
Real gradient_noise_2d(Real x, Real y, Corner corner) {
    const std::uint32_t ix = lattice(x);
    const std::uint32_t iy = lattice(y);
    const Real fx = x - std::floor(x);
    const Real fy = y - std::floor(y);
    const Real sx = fade(fx);
    const Real top = between(sx, slope_2(corner(ix, iy), fx, fy), slope_2(corner(ix + 1, iy), fx - 1, fy));
    const Real bottom =
        between(sx, slope_2(corner(ix, iy + 1), fx, fy - 1), slope_2(corner(ix + 1, iy + 1), fx - 1, fy - 1));
    return between(fade(fy), top, bottom);
}

/// Gradient noise in space, about -1 to 1, 0 at whole points. With the permutation of Perlin 2002 as `corner` it is
/// that paper's noise.
template <class Real, class Corner>
Real gradient_noise_3d(Real x, Real y, Real z, Corner corner) {
    const std::uint32_t ix = lattice(x);
    const std::uint32_t iy = lattice(y);
    const std::uint32_t iz = lattice(z);
    const Real fx = x - std::floor(x);
    const Real fy = y - std::floor(y);
    const Real fz = z - std::floor(z);
    const Real sx = fade(fx);
    const Real sy = fade(fy);
    const auto slab = [&](std::uint32_t k, Real dz) {
        const Real top =
            between(sx, slope_3(corner(ix, iy, k), fx, fy, dz), slope_3(corner(ix + 1, iy, k), fx - 1, fy, dz));
        const Real bottom = between(sx, slope_3(corner(ix, iy + 1, k), fx, fy - 1, dz),
                                    slope_3(corner(ix + 1, iy + 1, k), fx - 1, fy - 1, dz));
        return between(sy, top, bottom);
    };
    return between(fade(fz), slab(iz, fz), slab(iz + 1, fz - 1));
}

/// Brings signed noise to 0 <= n < 1; `scale` is half of one over its largest size.
template <class Real>
Real unit_noise(Real signed_noise, Real scale) {
    const Real n = signed_noise * scale + Real(0.5);
    if (n < Real(0)) return Real(0);
    constexpr Real below_one = Real(0.99999994);
    return n > below_one ? below_one : n;
}

/// Scales for `unit_noise`.
inline constexpr float gradient_scale_2d = 0.65328148F;
inline constexpr float gradient_scale_3d = 0.5F;

/// Value noise in the plane, 0 <= n < 1.
template <class Real, class Corner>
Real value_noise_2d(Real x, Real y, Corner corner) {
    const std::uint32_t ix = lattice(x);
    const std::uint32_t iy = lattice(y);
    const Real sx = fade(x - std::floor(x));
    const auto height = [&](std::uint32_t i, std::uint32_t j) { return Real(unit_from_hash(corner(i, j))); };
    const Real n = between(fade(y - std::floor(y)), between(sx, height(ix, iy), height(ix + 1, iy)),
                           between(sx, height(ix, iy + 1), height(ix + 1, iy + 1)));
    return unit_noise(n - Real(0.5), Real(1));
}

/// Value noise in space, 0 <= n < 1.
template <class Real, class Corner>
Real value_noise_3d(Real x, Real y, Real z, Corner corner) {
    const std::uint32_t ix = lattice(x);
    const std::uint32_t iy = lattice(y);
    const std::uint32_t iz = lattice(z);
    const Real sx = fade(x - std::floor(x));
    const Real sy = fade(y - std::floor(y));
    const auto slab = [&](std::uint32_t k) {
        const auto height = [&](std::uint32_t i, std::uint32_t j) { return Real(unit_from_hash(corner(i, j, k))); };
        return between(sy, between(sx, height(ix, iy), height(ix + 1, iy)),
                       between(sx, height(ix, iy + 1), height(ix + 1, iy + 1)));
    };
    const Real n = between(fade(z - std::floor(z)), slab(iz), slab(iz + 1));
    return unit_noise(n - Real(0.5), Real(1));
}

/// Holds a number that is not below 0 below 1.
template <class Real>
Real below_one(Real n) {
    constexpr Real most = Real(0.99999994);
    return n > most ? most : n;
}

/// Cellular noise in the plane, 0 <= n < 1: the distance to the nearest of random points, one in each unit square.
/// Whatever is nearer than 1 lies in the 3 x 3 squares around. Source: S. Worley, "A Cellular Texture Basis Function",
/// SIGGRAPH 1996, its F1 with one point a cell. What is not finite is far from all points.
template <class Real, class Corner>
Real cellular_noise_2d(Real x, Real y, Corner corner) {
    const std::uint32_t ix = lattice(x);
    const std::uint32_t iy = lattice(y);
    const Real fx = x - std::floor(x);
    const Real fy = y - std::floor(y);
    Real nearest = 1;
    for (int j = -1; j <= 1; ++j) {
        for (int i = -1; i <= 1; ++i) {
            const std::uint32_t hash = corner(ix + static_cast<std::uint32_t>(i), iy + static_cast<std::uint32_t>(j));
            const Real dx = Real(i) + Real(hash >> 16U) * Real(1.0 / 65536) - fx;
            const Real dy = Real(j) + Real(hash & 0xFFFFU) * Real(1.0 / 65536) - fy;
            const Real squared = dx * dx + dy * dy;
            if (squared < nearest) nearest = squared;
        }
    }
    return below_one(std::sqrt(nearest));
}

/// The same in space, one point in each unit cube.
template <class Real, class Corner>
Real cellular_noise_3d(Real x, Real y, Real z, Corner corner) {
    const std::uint32_t ix = lattice(x);
    const std::uint32_t iy = lattice(y);
    const std::uint32_t iz = lattice(z);
    const Real fx = x - std::floor(x);
    const Real fy = y - std::floor(y);
    const Real fz = z - std::floor(z);
    Real nearest = 1;
    for (int k = -1; k <= 1; ++k) {
        for (int j = -1; j <= 1; ++j) {
            for (int i = -1; i <= 1; ++i) {
                const std::uint32_t hash =
                    corner(ix + static_cast<std::uint32_t>(i), iy + static_cast<std::uint32_t>(j),
                           iz + static_cast<std::uint32_t>(k));
                const Real dx = Real(i) + Real(hash >> 21U) * Real(1.0 / 2048) - fx;
                const Real dy = Real(j) + Real((hash >> 10U) & 0x7FFU) * Real(1.0 / 2048) - fy;
                const Real dz = Real(k) + Real(hash & 0x3FFU) * Real(1.0 / 1024) - fz;
                const Real squared = dx * dx + dy * dy + dz * dz;
                if (squared < nearest) nearest = squared;
            }
        }
    }
    return below_one(std::sqrt(nearest));
}

/// Most octaves of a fractal sum.
inline constexpr int max_octaves = 8;
/// How far each octave is moved against the one before, so that their lattices do not meet at the origin.
inline constexpr float octave_shift = 17.31F;

/// A noise summed over octaves, each twice as fine and half as strong as the one before, 0 <= n < 1. `noise(scale,
/// shift)` gives an octave, to be read at place * scale + shift. `octaves` is held to 1..8; a part of one fades it in.
/// Common practice, no source.
template <class Real, class Noise>
Real fractal_sum(Real octaves, Noise noise) {
    const Real most = Real(max_octaves);
    const Real wanted = !(octaves > Real(1)) ? Real(1) : octaves > most ? most : octaves;
    Real sum = 0;
    Real weights = 0;
    Real weight = 1;
    Real scale = 1;
    for (int k = 0; k < max_octaves && wanted > Real(k); ++k) {
        const Real left = wanted - Real(k);
        const Real share = weight * (left > Real(1) ? Real(1) : left);
        sum = sum + share * noise(scale, Real(k) * Real(octave_shift));
        weights = weights + share;
        weight = weight * Real(0.5);
        scale = scale * Real(2);
    }
    return below_one(sum / weights);
}

}  // namespace lacquer
