#include "core/scene/cast.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <numeric>
#include <utility>

#include "core/scene/cast_kernels.h"
#include "core/scene/waves.h"

namespace lacquer {

namespace {

constexpr int tile_width = 32;
constexpr int tile_height = 16;
constexpr int edge_samples = 4;

std::array<float, 3> floats(Vec3 v) {
    return {static_cast<float>(v.x), static_cast<float>(v.y), static_cast<float>(v.z)};
}

float within_a_turn(double phase) {
    constexpr double turn = 2 * std::numbers::pi;
    return static_cast<float>(phase - turn * std::floor(phase / turn));
}

// No ray meets it at a smaller depth: a little less than that of the nearest corner of its box.
float nearest_of(const Solid& solid, const Rays& rays) {
    double nearest = 1e9;
    for (const Vec3& corner : solid.corners) nearest = std::min(nearest, dot(corner - rays.eye, rays.forward));
    return static_cast<float>(nearest * 0.999 - 0.01);
}

CastSolid prepared(const Solid& solid, const Rays& rays) {
    const Vec3 eye = rays.eye;
    CastSolid made;
    made.nearest = nearest_of(solid, rays);
    for (std::size_t i = 0; i < 3; ++i) {
        const auto& row = solid.to_local[i];
        made.linear[i] = {row[0], row[1], row[2]};
        // In double precision: far from the origin a small solid would be blurred.
        made.eye[i] = static_cast<float>(static_cast<double>(row[0]) * eye.x + static_cast<double>(row[1]) * eye.y +
                                         static_cast<double>(row[2]) * eye.z + static_cast<double>(row[3]));
    }
    made.shape = solid.shape;
    made.pattern = solid.pattern;
    made.slope = solid.top - 1;
    made.count = solid.count;
    made.gloss = solid.gloss;
    made.glow = solid.glow;
    made.id = static_cast<float>(solid.id);
    made.colour = solid.colour;
    made.other = solid.other;
    return made;
}

CastWorld prepared(const SceneWorld& world, const Rays& rays, int width, int height) {
    CastWorld made;
    made.eye = floats(rays.eye);
    made.across = floats(rays.across * (1.0 / width));
    made.down = floats(rays.down * (1.0 / height));
    // Pixel (0, 0) is looked at in its middle.
    made.corner = floats(rays.corner + rays.across * (0.5 / width) + rays.down * (0.5 / height));
    for (const Solid& solid : world.solids) made.solids.push_back(prepared(solid, rays));
    made.sea = world.sea;
    made.sky = world.sky;
    made.towards_light = floats(normalized(world.sky.towards_light));
    made.lamp = world.lamp;
    made.lamp_place = floats(world.lamp.place);
    made.beam_way = floats(normalized(world.lamp.beam_way));
    for (std::size_t i = 0; i < swells.size(); ++i)
        made.swell_phases[i] = within_a_turn(static_cast<double>(swells[i].rate) * world.seconds);
    made.cloud_phase = static_cast<float>(0.02 * world.seconds);
    return made;
}

// Where in the picture a solid may be seen, in shares of it each way.
struct Seen {
    double left = 1e9;
    double top = 1e9;
    double right = -1e9;
    double bottom = -1e9;
    int solid = 0;
};

// Of what reaches behind the camera, the part before it counts: its corners there, and where lines from those to the
// others pass the plane just before the camera.
Seen seen_of(const Solid& solid, const Rays& rays) {
    constexpr double nearest = 0.005;  // metres; rays begin at 0.01
    const double across = dot(rays.across, rays.across);
    const double down = dot(rays.down, rays.down);
    Seen seen;
    const auto add = [&](Vec3 to, double depth) {
        // The place on the plane at depth 1.
        const Vec3 at = to * (1 / depth) - rays.corner;
        const double u = dot(at, rays.across) / across;
        const double v = dot(at, rays.down) / down;
        seen.left = std::min(seen.left, u);
        seen.top = std::min(seen.top, v);
        seen.right = std::max(seen.right, u);
        seen.bottom = std::max(seen.bottom, v);
    };
    for (const Vec3& corner : solid.corners) {
        const Vec3 to = corner - rays.eye;
        const double depth = dot(to, rays.forward);
        if (depth < nearest) continue;
        add(to, depth);
        for (const Vec3& other : solid.corners) {
            const Vec3 behind = other - rays.eye;
            const double less = dot(behind, rays.forward);
            if (less < nearest) add(to + (behind - to) * ((depth - nearest) / (depth - less)), nearest);
        }
    }
    return seen;
}

std::vector<int> seen_in(const std::vector<Seen>& solids, double left, double top, double right, double bottom) {
    std::vector<int> seen;
    for (const Seen& own : solids) {
        if (own.right >= left && own.left <= right && own.bottom >= top && own.top <= bottom) seen.push_back(own.solid);
    }
    return seen;
}

// What lies behind what a block of rays has met need not be looked at.
std::vector<int> nearest_first(const CastWorld& world) {
    std::vector<int> order(world.solids.size());
    std::iota(order.begin(), order.end(), 0);
    const auto nearest = [&](int solid) { return world.solids[static_cast<std::size_t>(solid)].nearest; };
    std::stable_sort(order.begin(), order.end(), [&](int a, int b) { return nearest(a) < nearest(b); });
    return order;
}

// Arrays for one block of rays after another.
struct Block {
    static constexpr std::size_t size = std::size_t{4} * cast_block;
    std::array<std::array<float, size>, 11> numbers{};
    CastResults results() {
        return {{numbers[0].data(), numbers[1].data(), numbers[2].data()},
                {numbers[3].data(), numbers[4].data(), numbers[5].data()},
                {numbers[6].data(), numbers[7].data(), numbers[8].data()},
                numbers[9].data(),
                numbers[10].data()};
    }
};

struct View {
    const CastWorld& world;
    std::vector<std::vector<int>> seen;  // in each tile
    int width = 0;
    int height = 0;
    int columns = 0;
};

void write_row(SceneLayers& layers, const Block& block, int x, int y, int count) {
    const auto put = [&](Picture& picture, std::size_t first, int parts, float last) {
        if (picture.data.empty()) return;
        float* to = picture.at(x, y);
        for (int i = 0; i < count; ++i, to += 4) {
            const auto k = static_cast<std::size_t>(i);
            for (std::size_t c = 0; c < 3; ++c)
                to[c] = static_cast<int>(c) < parts ? block.numbers[first + c][k] : 0.0F;
            to[3] = last;
        }
    };
    put(layers.colour, 0, 3, 1);
    put(layers.normal, 3, 3, 1);
    put(layers.position, 6, 3, 1);
    put(layers.depth, 9, 1, 1);
    put(layers.id, 10, 1, 1);
}

void cast_tile(const View& view, int tile, SceneLayers& layers, std::vector<float>& ids) {
    const std::vector<int>& seen = view.seen[static_cast<std::size_t>(tile)];
    const int left = tile % view.columns * tile_width;
    const int top = tile / view.columns * tile_height;
    Block block;
    std::array<float, Block::size> xs{};
    std::array<float, Block::size> ys{};
    for (int y = top; y < std::min(top + tile_height, view.height); ++y) {
        ys.fill(static_cast<float>(y));
        const int count = std::min(tile_width, view.width - left);
        for (std::size_t i = 0; i < Block::size; ++i) xs[i] = static_cast<float>(left) + static_cast<float>(i);
        const int padded = (count + cast_block - 1) / cast_block * cast_block;
        cast_rays(view.world, seen, xs.data(), ys.data(), padded, !layers.colour.data.empty(), block.results());
        write_row(layers, block, left, y, count);
        if (ids.empty()) continue;
        float* row = ids.data() + static_cast<std::size_t>(y) * static_cast<std::size_t>(view.width);
        std::copy_n(block.numbers[10].data(), count, row + left);
    }
}

// Pixels where one object meets another get the mean of four rays' colours.
void smooth_edges(const View& view, int tile, SceneLayers& layers, const std::vector<float>& ids) {
    const int left = tile % view.columns * tile_width;
    const int top = tile / view.columns * tile_height;
    const auto id = [&](int x, int y) {
        return ids[static_cast<std::size_t>(y) * static_cast<std::size_t>(view.width) + static_cast<std::size_t>(x)];
    };
    const auto on_edge = [&](int x, int y) {
        const float own = id(x, y);
        return (x > 0 && id(x - 1, y) != own) || (x + 1 < view.width && id(x + 1, y) != own) ||
               (y > 0 && id(x, y - 1) != own) || (y + 1 < view.height && id(x, y + 1) != own);
    };
    struct Spot {
        int x;
        int y;
    };
    constexpr std::size_t at_once = Block::size / edge_samples;
    std::vector<Spot> spots;
    Block block;
    std::array<float, Block::size> xs{};
    std::array<float, Block::size> ys{};
    const auto cast_spots = [&] {
        // A square turned a little, so that upright and level edges get all four shades.
        static constexpr std::array<std::array<float, 2>, edge_samples> offsets = {
            {{-0.125F, -0.375F}, {0.375F, -0.125F}, {0.125F, 0.375F}, {-0.375F, 0.125F}}};
        for (std::size_t i = 0; i < spots.size() * edge_samples; ++i) {
            const Spot& spot = spots[i / edge_samples];
            xs[i] = static_cast<float>(spot.x) + offsets[i % edge_samples][0];
            ys[i] = static_cast<float>(spot.y) + offsets[i % edge_samples][1];
        }
        const int count = static_cast<int>(spots.size()) * edge_samples;
        const int padded = (count + cast_block - 1) / cast_block * cast_block;
        cast_rays(view.world, view.seen[static_cast<std::size_t>(tile)], xs.data(), ys.data(), padded, true,
                  block.results());
        for (std::size_t i = 0; i < spots.size(); ++i) {
            float* to = layers.colour.at(spots[i].x, spots[i].y);
            for (std::size_t c = 0; c < 3; ++c) {
                float sum = 0;
                for (std::size_t k = 0; k < edge_samples; ++k) sum += block.numbers[c][i * edge_samples + k];
                to[c] = sum / edge_samples;
            }
        }
        spots.clear();
    };
    for (int y = top; y < std::min(top + tile_height, view.height); ++y) {
        for (int x = left; x < std::min(left + tile_width, view.width); ++x) {
            if (on_edge(x, y)) spots.push_back({x, y});
            if (spots.size() == at_once) cast_spots();
        }
    }
    if (!spots.empty()) cast_spots();
}

}  // namespace

SceneLayers cast_world(const SceneWorld& world, const Camera& camera, int width, int height, SceneLayerSet wanted,
                       WorkerPool& pool, const Cancel& cancel, SceneLayers again) {
    const Rays rays = rays_of(camera, static_cast<double>(width) / height);
    const CastWorld ready = prepared(world, rays, width, height);
    SceneLayers layers;
    const auto make = [&](bool is_wanted, Picture& picture, Picture& old) {
        if (!is_wanted) return;
        const bool fits = old.width == width && old.height == height && old.channels == 4;
        picture = fits ? std::move(old) : Picture(width, height, 4);
    };
    make(wanted.colour, layers.colour, again.colour);
    make(wanted.depth, layers.depth, again.depth);
    make(wanted.normal, layers.normal, again.normal);
    make(wanted.position, layers.position, again.position);
    make(wanted.id, layers.id, again.id);
    View view{ready, {}, width, height, (width + tile_width - 1) / tile_width};
    const int tiles = view.columns * ((height + tile_height - 1) / tile_height);
    view.seen.resize(static_cast<std::size_t>(tiles));
    std::vector<float> ids;
    if (wanted.colour) ids.resize(static_cast<std::size_t>(width) * static_cast<std::size_t>(height));
    std::vector<Seen> boxes;
    for (const int solid : nearest_first(ready)) {
        boxes.push_back(seen_of(world.solids[static_cast<std::size_t>(solid)], rays));
        boxes.back().solid = solid;
    }
    pool.run(tiles, [&](int tile) {
        if (cancel.requested()) return;
        // A pixel more each way, for the rays that smooth edges.
        const int column = tile % view.columns;
        const int row = tile / view.columns;
        const double left = column * tile_width - 1;
        const double top = row * tile_height - 1;
        view.seen[static_cast<std::size_t>(tile)] = seen_in(
            boxes, left / width, top / height, (left + tile_width + 2) / width, (top + tile_height + 2) / height);
        cast_tile(view, tile, layers, ids);
    });
    if (wanted.colour) {
        pool.run(tiles, [&](int tile) {
            if (!cancel.requested()) smooth_edges(view, tile, layers, ids);
        });
    }
    return layers;
}

}  // namespace lacquer
