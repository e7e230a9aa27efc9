// The seam between the caster and its kernels, which are compiled once for each instruction set.
#pragma once

#include <array>
#include <vector>

#include "core/scene/world.h"

namespace lacquer {

/// Rays are cast in blocks of this many; arrays of them are padded to it.
inline constexpr int cast_block = 16;

/// A solid as a ray from one eye meets it.
struct CastSolid {
    std::array<float, 3> eye{};                    ///< in the shape's own space
    std::array<std::array<float, 3>, 3> linear{};  ///< rows, from the world's directions to its own
    Shape shape = Shape::ball;
    Pattern pattern = Pattern::plain;
    float slope = 0;  ///< of a cone's radius going up
    float count = 1;
    float gloss = 0;
    float glow = 0;
    float id = 0;
    float nearest = 0;  ///< no ray meets it at a smaller depth
    SolidColour colour{};
    SolidColour other{};
};

struct CastWorld {
    std::array<float, 3> eye{};
    std::array<float, 3> corner{};  ///< a ray's direction is corner + across * x + down * y, x and y in pixels
    std::array<float, 3> across{};
    std::array<float, 3> down{};
    std::vector<CastSolid> solids;
    Sea sea;
    Sky sky;
    std::array<float, 3> towards_light{};
    Lamp lamp;
    std::array<float, 3> lamp_place{};
    std::array<float, 3> beam_way{};
    std::array<float, 4> swell_phases{};  ///< at this moment, within one turn
    float cloud_phase = 0;
};

/// What rays meet, each an array of as many floats as there are rays.
struct CastResults {
    std::array<float*, 3> colour{};
    std::array<float*, 3> normal{};
    std::array<float*, 3> position{};
    float* depth = nullptr;
    float* id = nullptr;
};

/// Casts rays through the pixels at (xs, ys), `count` of them padded to whole blocks, at the solids of these indices,
/// which stand in the order of `nearest`.
/// Colours are worked out only if asked for.
void cast_rays(const CastWorld& world, const std::vector<int>& solids, const float* xs, const float* ys, int count,
               bool colours, const CastResults& out);

/// The instruction sets that `cast_rays` may run on here, best first; `limit_cast_targets` holds it to one, for tests,
/// and to all of them again with 0.
std::vector<long> cast_targets();
void limit_cast_targets(long targets);

}  // namespace lacquer
