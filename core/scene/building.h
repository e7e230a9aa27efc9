// Helpers that the places are built with.
#pragma once

#include <algorithm>

#include "core/scene/world.h"

namespace lacquer {

struct Material {
    SolidColour colour{};
    Pattern pattern = Pattern::plain;
    SolidColour other{};
    float count = 1;
    float gloss = 0;
    float glow = 0;
};

/// A material that gives off light: `times` its colour.
inline Material glowing(SolidColour colour, float times) { return {.colour = colour, .glow = times}; }

/// Puts solids of one object into a world.
struct Builder {
    SceneWorld& world;
    int id = 0;
    Standing stands{};

    void put(Shape shape, Vec3 place, Vec3 size, const Material& material, double turn = 0, double lean = 0,
             double top = 1) const {
        const double wide = shape == Shape::cone ? std::max(1.0, top) : 1.0;
        Solid made = solid(shape, stands, place, size, turn, lean);
        // A cone that widens upwards needs a wider box.
        if (wide > 1)
            made.corners = solid(shape, stands, place, {size.x * wide, size.y, size.z * wide}, turn, lean).corners;
        made.top = static_cast<float>(top);
        made.id = id;
        made.colour = material.colour;
        made.other = material.other;
        made.pattern = material.pattern;
        made.count = material.count;
        made.gloss = material.gloss;
        made.glow = material.glow;
        world.solids.push_back(made);
    }
    void ball(Vec3 place, Vec3 radii, const Material& material, double lean = 0) const {
        put(Shape::ball, place, radii, material, 0, lean);
    }
    void block(Vec3 place, Vec3 half, const Material& material, double turn = 0, double lean = 0) const {
        put(Shape::block, place, half, material, turn, lean);
    }
    /// Its foot at `foot`, going up.
    void drum(Vec3 foot, double radius, double height, const Material& material, double top = 1,
              double lean = 0) const {
        put(Shape::cone, foot, {radius, height, radius}, material, 0, lean, top);
    }
};

/// Figures that several places show, each about as large as in life.
void put_keeper(const Builder& at, double swing);
void put_crab(const Builder& at, double step);

}  // namespace lacquer
