// The harbour below the light: sea, rock, lighthouse, quay with its crane, boats, buoys, crabs, the keeper.
#include <cmath>
#include <numbers>

#include "core/scene/building.h"
#include "core/scene/places.h"

namespace lacquer {

namespace {

enum Id {
    sea = 1,
    rock,
    tower,
    lamp,
    house,
    quay,
    crane,
    crate,
    ketch,
    tender,
    buoy_west,
    buoy_east,
    crab_1,
    crab_2,
    crab_3,
    keeper
};

constexpr Material white{.colour = {0.70F, 0.67F, 0.60F}};
constexpr Material iron{.colour = {0.05F, 0.055F, 0.06F}, .gloss = 0.3F};
constexpr Material slate{.colour = {0.09F, 0.10F, 0.12F}, .gloss = 0.4F};
constexpr Material red{.colour = {0.50F, 0.055F, 0.03F}, .gloss = 0.2F};
constexpr Material wood{.colour = {0.22F, 0.12F, 0.06F}};
const Material window = glowing({1.0F, 0.55F, 0.20F}, 1.3F);

void put_rock(const Builder& at) {
    const Material stone{.colour = {0.035F, 0.038F, 0.042F},
                         .pattern = Pattern::rough,
                         .other = {0.135F, 0.125F, 0.11F},
                         .count = 1.5F,
                         .gloss = 0.09F};
    struct Lump {
        Vec3 place;
        Vec3 radii;
    };
    for (const Lump& lump : {Lump{{0, -1.2, 0}, {8.5, 4.4, 6.6}}, Lump{{-5.5, -1.0, 2.6}, {4.6, 3.0, 3.8}},
                             Lump{{5.2, -1.4, 2.4}, {5.0, 2.9, 4.2}}, Lump{{2.4, -0.6, -4.2}, {5.4, 4.0, 4.2}},
                             Lump{{-3.2, 0.2, -2.2}, {4.2, 3.2, 4.0}}, Lump{{8.2, -1.1, 4.8}, {2.8, 1.9, 2.4}},
                             Lump{{-9.6, -1.3, 5.4}, {2.6, 2.0, 2.0}}, Lump{{-12.6, -1.1, 6.8}, {1.5, 1.5, 1.2}},
                             Lump{{1.6, -1.0, 5.6}, {3.0, 2.1, 2.2}}, Lump{{-2.2, 0.9, 3.2}, {1.7, 1.3, 1.5}}})
        at.ball(lump.place, lump.radii, stone);
}

void put_tower(const Builder& at, SceneWorld& world, int lamp_id) {
    const Material bands{.colour = white.colour, .pattern = Pattern::bands, .other = red.colour, .count = 7};
    at.drum({0, 2.4, 0}, 2.3, 12.6, bands, 0.62);
    at.block({0, 3.9, 2.2}, {0.5, 1.0, 0.12}, wood);
    for (const double height : {7.0, 11.4})
        at.block({0.35, height, 2.28 * (1 - 0.38 * (height - 2.4) / 12.6)}, {0.24, 0.42, 0.2}, window);
    at.drum({0, 14.9, 0}, 2.05, 0.28, iron, 1.05);
    for (int post = 0; post < 14; ++post) {
        const double turn = post * 2 * std::numbers::pi / 14;
        at.drum({1.95 * std::sin(turn), 15.15, 1.95 * std::cos(turn)}, 0.035, 0.75, iron);
    }
    at.drum({0, 15.86, 0}, 2.0, 0.05, iron);
    at.drum({0, 15.15, 0}, 1.15, 0.65, red);
    for (int post = 0; post < 6; ++post) {
        const double turn = (post + 0.5) * std::numbers::pi / 3;
        at.drum({1.1 * std::sin(turn), 15.7, 1.1 * std::cos(turn)}, 0.05, 1.9, iron);
    }
    at.drum({0, 17.6, 0}, 1.5, 1.25, red, 0.12);
    at.ball({0, 18.95, 0}, {0.22, 0.22, 0.22}, iron);
    Builder light{world, lamp_id, at.stands};
    light.drum({0, 15.75, 0}, 0.34, 0.4, iron);
    light.ball({0, 16.65, 0}, {0.62, 0.68, 0.62}, glowing({1.0F, 0.74F, 0.40F}, 14));
}

void put_house(const Builder& at) {
    at.block({-4.6, 3.7, -0.6}, {1.7, 1.1, 1.3}, white, 12);
    at.block({-4.6, 5.2, 0.22}, {1.95, 0.1, 1.1}, slate, 12, 0);
    at.block({-4.6, 4.98, -0.6}, {1.5, 0.35, 0.95}, slate, 12);
    at.block({-3.75, 5.5, -1.0}, {0.24, 0.6, 0.24}, red, 12);
    at.block({-4.9, 3.8, 0.75}, {0.3, 0.32, 0.05}, window, 12);
    at.block({-3.8, 3.8, 0.5}, {0.3, 0.32, 0.05}, window, 12);
}

void put_quay(const Builder& at) {
    const Material planks{.colour = {0.15F, 0.125F, 0.10F},
                          .pattern = Pattern::rough,
                          .other = {0.26F, 0.23F, 0.19F},
                          .count = 1.7F,
                          .gloss = 0.15F};
    at.block({14.4, 0.85, 6.2}, {5.6, 0.22, 1.9}, planks);
    for (const double x : {9.6, 12.6, 15.6, 18.8}) {
        for (const double z : {4.7, 7.7}) at.drum({x, -3, z}, 0.28, 4.7, wood);
    }
    for (const double x : {11.5, 17.4}) at.drum({x, 1.05, 7.6}, 0.22, 0.5, iron, 0.8);
}

// Its jib turns slowly to and fro, and the crate swings below.
void put_crane(const Builder& at, SceneWorld& world, double seconds) {
    const Material ochre{.colour = {0.52F, 0.30F, 0.05F}, .gloss = 0.15F};
    const double turn = 152 + 16 * std::sin(seconds * 0.35);
    const Builder own{world, at.id, standing({16.2, 1.05, 5.6}, turn)};
    own.block({0, 0.35, 0}, {0.9, 0.35, 0.9}, iron);
    for (const double x : {-0.42, 0.42}) {
        for (const double z : {-0.42, 0.42}) own.drum({x, 0.6, z}, 0.09, 6.2, ochre);
    }
    for (int brace = 0; brace < 5; ++brace)
        own.block({0, 1.3 + brace * 1.2, 0.42}, {0.5, 0.06, 0.06}, ochre, 0, brace % 2 == 0 ? 40 : -40);
    own.block({-0.1, 7.1, 0}, {0.75, 0.45, 0.62}, ochre);
    own.block({0.45, 7.15, 0.3}, {0.3, 0.24, 0.36}, window);
    own.block({3.3, 8.0, 0}, {3.5, 0.12, 0.16}, ochre, 0, 12);
    own.block({-1.7, 7.4, 0}, {0.7, 0.42, 0.5}, iron);
    const double swing = 5 * std::sin(seconds * 1.1);
    const Builder load{world, crate, standing(own.stands.point({6.6, 8.7, 0}), turn, swing * 0.6, swing)};
    load.put(Shape::cone, {0, 0, 0}, {0.035, -4.2, 0.035}, iron);
    load.block(
        {0, -4.8, 0}, {0.7, 0.55, 0.7},
        {.colour = {0.30F, 0.19F, 0.09F}, .pattern = Pattern::bands, .other = {0.20F, 0.12F, 0.055F}, .count = 4});
}

Standing afloat(Vec3 place, double turn, double seconds, double height) {
    const double y = wave_height(place.x, place.z, seconds, height);
    const double ahead = wave_height(place.x + 1.2, place.z, seconds, height);
    const double aside = wave_height(place.x, place.z + 1.2, seconds, height);
    return standing({place.x, place.y + y, place.z}, turn, (aside - y) * 16, (ahead - y) * 16);
}

void put_ketch(const Builder& at) {
    const Material hull{.colour = {0.30F, 0.055F, 0.03F}, .gloss = 0.3F};
    const Material sail{.colour = {0.46F, 0.31F, 0.17F}};
    at.ball({0, 0.35, 0}, {3.3, 1.15, 1.15}, hull);
    at.ball({0, 0.62, 0}, {3.35, 0.75, 1.18}, {.colour = {0.62F, 0.56F, 0.44F}});
    at.block({0, 1.0, 0}, {2.3, 0.32, 0.86}, wood);
    at.block({-1.1, 1.75, 0}, {0.85, 0.6, 0.62}, white);
    at.block({-1.1, 2.4, 0}, {1.0, 0.08, 0.75}, red);
    for (const double x : {-1.5, -0.8}) at.block({x, 1.85, 0.61}, {0.2, 0.2, 0.04}, window);
    at.drum({0.6, 1.0, 0}, 0.07, 5.4, wood);
    at.block({1.35, 3.4, 0.05}, {0.7, 1.75, 0.03}, sail, 8, -10);
    at.block({0.0, 3.0, 0.05}, {0.55, 1.3, 0.03}, sail, -6, 8);
    at.ball({0.6, 6.5, 0}, {0.1, 0.1, 0.1}, glowing({1.0F, 0.75F, 0.45F}, 6));
}

void put_tender(const Builder& at) {
    at.ball({0, 0.2, 0}, {1.7, 0.62, 0.72}, {.colour = {0.10F, 0.21F, 0.20F}, .gloss = 0.25F});
    at.ball({0, 0.42, 0}, {1.62, 0.42, 0.66}, {.colour = {0.55F, 0.51F, 0.42F}});
    at.block({0, 0.62, 0}, {1.15, 0.24, 0.5}, wood);
    at.block({-0.2, 0.9, 0}, {0.18, 0.05, 0.62}, white);
    at.put(Shape::block, {0.1, 0.95, 0.9}, {0.06, 0.04, 1.2}, wood, 20, 0);
}

void put_buoy(const Builder& at, SolidColour paint, double seconds, double period) {
    at.drum({0, -0.5, 0}, 0.62, 1.1, {.colour = paint, .gloss = 0.3F}, 0.9);
    at.drum({0, 0.6, 0}, 0.42, 1.7, {.colour = paint, .pattern = Pattern::bands, .other = white.colour, .count = 3},
            0.3);
    const bool on = seconds - period * std::floor(seconds / period) < period * 0.25;
    at.ball({0, 2.45, 0}, {0.17, 0.2, 0.17}, glowing(paint, on ? 14.0F : 0.6F));
}

SceneWorld build(Hour hour, double seconds) {
    SceneWorld world;
    world.seconds = seconds;
    world.sky = sky_of(hour, seconds);
    const bool day = hour == Hour::day;
    const double swell = static_cast<double>(swell_of(hour));
    world.sea = {true, 0, swell_of(hour),
                 day ? SolidColour{0.012F, 0.055F, 0.062F} : SolidColour{0.006F, 0.018F, 0.022F}, sea};
    const double round = seconds * 0.7;
    world.lamp = {true,
                  {0, 16.65, 0},
                  day ? SolidColour{0.4F, 0.3F, 0.17F} : SolidColour{3.0F, 2.1F, 1.15F},
                  hour == Hour::storm ? 11.0F : 9.0F,
                  day ? 0.25F : 0.5F,
                  day                   ? 0.0F
                  : hour == Hour::storm ? 0.30F
                                        : 0.14F,
                  {std::cos(round), -0.06, std::sin(round)}};
    put_rock({world, rock});
    put_tower({world, tower}, world, lamp);
    put_house({world, house});
    put_quay({world, quay});
    put_crane({world, crane}, world, seconds);
    put_ketch({world, ketch, afloat({-10.6 + 0.8 * std::sin(seconds * 0.11), 0.1, 12.5}, 24, seconds, swell)});
    put_tender({world, tender, afloat({7.2, 0.05, 11.6}, -35, seconds, swell)});
    put_buoy({world, buoy_west, afloat({-20, 0, 2}, 0, seconds, swell)}, {0.45F, 0.05F, 0.025F}, seconds, 3);
    put_buoy({world, buoy_east, afloat({3.0, 0, 14.5}, 0, seconds, swell)}, {0.04F, 0.30F, 0.12F}, seconds, 4);
    const double scuttle = std::sin(seconds * 0.9);
    put_crab({world, crab_1, standing({2.4 + scuttle * 0.5, 1.05, 7.25}, 15)}, seconds * 9);
    put_crab({world, crab_2, standing({-5.4 - scuttle * 0.35, 1.72, 5.05}, -25)}, seconds * 8 + 1);
    put_crab({world, crab_3, standing({9.0 + scuttle * 0.3, 0.68, 6.1}, 40)}, seconds * 7 + 2);
    const double walk = 1.6 * std::sin(seconds * 0.25);
    put_keeper({world, keeper, standing({12.2 + walk, 1.07, 6.9}, 10)}, 12 * std::sin(seconds * 2.4));
    return world;
}

}  // namespace

ScenePlace harbour() {
    return {"harbour",
            "The harbour below the light",
            build,
            {{11, 7.2, 40}, {0.6, 7.4, 0}, 34},
            {{sea, "sea"},
             {rock, "rock"},
             {tower, "lighthouse"},
             {lamp, "lamp"},
             {house, "house"},
             {quay, "quay"},
             {crane, "crane"},
             {crate, "crate"},
             {ketch, "ketch"},
             {tender, "tender"},
             {buoy_west, "west buoy"},
             {buoy_east, "east buoy"},
             {crab_1, "crab 1"},
             {crab_2, "crab 2"},
             {crab_3, "crab 3"},
             {keeper, "keeper"}}};
}

}  // namespace lacquer
