// A world of simple solids, a sea and a sky, as the caster reads it.
#pragma once

#include <array>
#include <string>
#include <vector>

#include "core/base/vec3.h"

namespace lacquer {

using SolidColour = std::array<float, 3>;  ///< linear light

enum class Shape {
    ball,   ///< the unit sphere
    block,  ///< -1..1 each way
    cone    ///< round, upright, y 0..1, of radius 1 at its foot and `top` at its head; with `top` 1 a drum
};

enum class Pattern {
    plain,
    bands,  ///< `colour` and `other` in turn, going up
    rough   ///< mixed unevenly, with an uneven surface
};

struct Solid {
    Shape shape = Shape::ball;
    float top = 1;
    std::array<std::array<float, 4>, 3> to_local{};  ///< rows: from the world to the shape's own space
    std::array<Vec3, 8> corners{};                   ///< of a box that holds it
    SolidColour colour{0.5F, 0.5F, 0.5F};
    SolidColour other{};
    Pattern pattern = Pattern::plain;
    float count = 1;  ///< of bands, or unevennesses a metre
    float gloss = 0;  ///< 0 dull, 1 wet
    float glow = 0;   ///< how many times its colour it gives off by itself
    int id = 0;
};

/// Where a solid stands: its own axes, scaled, and where its origin lies.
struct Standing {
    Vec3 origin;
    Vec3 x{1, 0, 0};
    Vec3 y{0, 1, 0};
    Vec3 z{0, 0, 1};

    Vec3 point(Vec3 local) const { return origin + x * local.x + y * local.y + z * local.z; }
};

/// A standing turned about the upright by `turn` and then tilted sideways, in degrees.
Standing standing(Vec3 origin, double turn = 0, double roll = 0, double pitch = 0);

/// Puts a shape, stretched by `size` along its own axes, at `place` within a standing, turned there by `turn` about the
/// upright and `lean` about z, in degrees.
Solid solid(Shape shape, const Standing& in, Vec3 place, Vec3 size, double turn = 0, double lean = 0);

struct Sea {
    bool there = false;
    float level = 0;
    float height = 0.4F;  ///< of the waves, metres
    SolidColour deep{0.01F, 0.04F, 0.05F};
    int id = 1;
};

struct Sky {
    SolidColour high{0.1F, 0.2F, 0.4F};
    SolidColour low{0.5F, 0.6F, 0.7F};  ///< at the horizon, and what distance fades into
    SolidColour light{1, 1, 1};         ///< of sun or moon
    Vec3 towards_light{0.3, 0.7, 0.5};
    float fog = 0.004F;  ///< share a metre, about
    float cloud = 0.3F;  ///< how far clouds darken it
};

/// A lamp that lights what is near and throws a beam that turns.
struct Lamp {
    bool there = false;
    Vec3 place;
    SolidColour colour{};
    float reach = 12;  ///< metres at which it is half as bright
    float halo = 0;    ///< what is seen of it in the air
    float beam = 0;    ///< how bright the beam is in the air
    Vec3 beam_way{1, 0, 0};
};

struct SceneWorld {
    std::vector<Solid> solids;
    Sea sea;
    Sky sky;
    Lamp lamp;
    double seconds = 0;  ///< moves the waves
};

/// Height of the sea above its level, metres.
double wave_height(double x, double z, double seconds, double height);

}  // namespace lacquer
