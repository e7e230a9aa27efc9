// A fixed field of drops, and which of them a path comes near to.
#pragma once

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/droplets/droplets.h"
#include "core/droplets/motion.h"

namespace lacquer {

/// Places in shares of a frame of this aspect (width over height). A grid has at least `count` of them, in rows and
/// columns that are about square; a jittered one the same, each somewhere in its cell; a random one up to `count`, no
/// two nearer to each other than `apart` shorter sides.
std::vector<Vector2> drop_field(DropField field, int count, double apart, double aspect, std::uint32_t seed);

/// For each place the first of the path's points at which the path has come within its reach, on the straight way from
/// the point before or at the point; the path's length where it never does. All in the same unit.
std::vector<std::size_t> first_reached(const std::vector<Vector2>& places, const std::vector<double>& reaches,
                                       const std::vector<Vector2>& path);

/// The square of the distance from a point to a straight way.
double squared_distance(Vector2 point, Vector2 from, Vector2 to);

}  // namespace lacquer
