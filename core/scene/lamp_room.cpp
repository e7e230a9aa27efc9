// Inside the lantern: the lamp and its lens, a table with a sea chart, the keeper, the sea far below.
#include <cmath>
#include <numbers>

#include "core/scene/building.h"
#include "core/scene/places.h"

namespace lacquer {

namespace {

enum Id { sea = 1, room, lens, lamp, pedestal, table, chart, chair, keeper, crab, cup };

SceneWorld build(Hour hour, double seconds) {
    SceneWorld world;
    world.seconds = seconds;
    world.sky = sky_of(hour, seconds);
    world.sea = {true, -16, swell_of(hour), {0.008F, 0.03F, 0.036F}, sea};
    world.lamp = {true, {0, 1.95, 0}, {1.6F, 1.08F, 0.56F}, 2.4F, 0.1F, 0, {1, 0, 0}};
    const Material boards{.colour = {0.16F, 0.085F, 0.04F},
                          .pattern = Pattern::rough,
                          .other = {0.25F, 0.145F, 0.07F},
                          .count = 2.2F,
                          .gloss = 0.2F};
    const Material brass{.colour = {0.55F, 0.33F, 0.09F}, .gloss = 0.8F};
    const Material iron{.colour = {0.06F, 0.065F, 0.07F}, .gloss = 0.3F};
    const Material plaster{.colour = {0.34F, 0.32F, 0.28F}};
    const Material oak{.colour = {0.24F, 0.13F, 0.06F}, .gloss = 0.15F};

    const Builder walls{world, room};
    walls.drum({0, -0.12, 0}, 3.4, 0.12, boards);
    constexpr int panes = 14;
    for (int pane = 0; pane < panes; ++pane) {
        const double turn = (pane + 0.5) * 360.0 / panes;
        const double radians = turn * std::numbers::pi / 180;
        const Vec3 at{3.3 * std::sin(radians), 0, 3.3 * std::cos(radians)};
        walls.block(at + Vec3{0, 0.4, 0}, {0.78, 0.4, 0.06}, plaster, turn);
        walls.block(at + Vec3{0, 0.84, 0}, {0.8, 0.04, 0.12}, oak, turn);
        walls.block(at + Vec3{0, 2.95, 0}, {0.78, 0.16, 0.08}, iron, turn);
        const double edge = pane * 2 * std::numbers::pi / panes;
        walls.drum({3.36 * std::sin(edge), 0, 3.36 * std::cos(edge)}, 0.055, 3.1, iron);
    }
    walls.drum({0, 3.05, 0}, 3.6, 1.4, {.colour = {0.12F, 0.05F, 0.035F}}, 0.15);

    const Builder stand{world, pedestal};
    stand.drum({0, 0, 0}, 0.75, 0.18, iron);
    stand.drum({0, 0.18, 0}, 0.42, 0.85, {.colour = {0.10F, 0.16F, 0.15F}, .gloss = 0.5F}, 0.8);
    stand.drum({0, 1.02, 0}, 0.72, 0.1, brass);
    // Rings of the lens turn about the lamp.
    const Builder glass{world, lens, standing({0, 1.95, 0}, seconds * 40)};
    const Material ring{.colour = {0.55F, 0.60F, 0.52F}, .gloss = 1, .glow = 0.35F};
    for (int i = -3; i <= 3; ++i) {
        const double wide = 0.78 - 0.035 * i * i;
        if (i != 0) glass.drum({0, 0.235 * i - 0.035, 0}, wide, 0.07, ring);
    }
    for (int bar = 0; bar < 4; ++bar) {
        const double turn = bar * std::numbers::pi / 2;
        glass.drum({0.7 * std::sin(turn), -0.85, 0.7 * std::cos(turn)}, 0.03, 1.7, brass);
    }
    Builder{world, lamp}.ball({0, 1.95, 0}, {0.24, 0.32, 0.24}, glowing({1.0F, 0.74F, 0.40F}, 16));

    const Builder desk{world, table, standing({-1.75, 0, 1.15}, 58)};
    desk.block({0, 0.78, 0}, {0.75, 0.04, 0.5}, oak);
    for (const double x : {-0.66, 0.66}) {
        for (const double z : {-0.42, 0.42}) desk.block({x, 0.38, z}, {0.045, 0.38, 0.045}, oak);
    }
    const Builder map{world, chart, desk.stands};
    map.block(
        {0.05, 0.828, 0.02}, {0.56, 0.006, 0.38},
        {.colour = {0.62F, 0.54F, 0.37F}, .pattern = Pattern::rough, .other = {0.30F, 0.40F, 0.38F}, .count = 3.5F}, 4);
    map.put(Shape::cone, {-0.52, 0.86, -0.36}, {0.035, 0.9, 0.035}, {.colour = {0.66F, 0.58F, 0.40F}}, 0, -90);
    const Builder mug{world, cup, desk.stands};
    mug.drum({0.55, 0.82, 0.3}, 0.06, 0.12, {.colour = {0.50F, 0.10F, 0.05F}, .gloss = 0.6F});
    const Builder seat{world, chair, standing({-0.95, 0, 1.75}, 40)};
    seat.block({0, 0.45, 0}, {0.22, 0.03, 0.22}, oak);
    seat.block({0, 0.8, -0.2}, {0.22, 0.3, 0.03}, oak);
    for (const double x : {-0.19, 0.19}) {
        for (const double z : {-0.19, 0.19}) seat.block({x, 0.22, z}, {0.025, 0.22, 0.025}, oak);
    }
    put_keeper({world, keeper, standing({1.55, 0, 0.75}, -140)}, 4 * std::sin(seconds * 0.8));
    put_crab({world, crab, standing({1.15 + 0.12 * std::sin(seconds * 0.5), 0, -0.75}, 20)}, seconds * 6);
    return world;
}

}  // namespace

ScenePlace lamp_room() {
    return {"lamp_room",
            "Inside the lantern, above the sea",
            build,
            {{0.55, 1.75, 3.0}, {-0.35, 1.45, 0}, 62},
            {{sea, "sea"},
             {room, "room"},
             {lens, "lens"},
             {lamp, "lamp"},
             {pedestal, "pedestal"},
             {table, "table"},
             {chart, "sea chart"},
             {chair, "chair"},
             {keeper, "keeper"},
             {crab, "crab"},
             {cup, "cup"}}};
}

}  // namespace lacquer
