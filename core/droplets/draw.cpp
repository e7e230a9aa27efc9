#include "core/droplets/draw.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <utility>

#include "core/base/hash.h"
#include "core/droplets/drop_kernels.h"

namespace lacquer {

namespace {

constexpr std::size_t tile_pixels = std::size_t{drop_tile_width} * drop_tile_height;
constexpr std::size_t target_count = 12;

// A drop as tiles need it.
struct Placed {
    DropRow row;   // at the frame's first pixel
    double x = 0;  // of its middle, pixels
    double y = 0;
    double u_down = 0;  // how u and v grow from row to row
    double v_down = 0;
    double reach_x = 0;  // half the size of the rectangle around it, pixels
    double reach_y = 0;
    int level = 0;  // of the sprite
    int cell = 0;
};

// A row of pixels that all that is drawn of a drop lies in; empty where it misses the row.
struct Span {
    int first = 0;
    int last = 0;
};

// Where -1 <= begin + step * x <= 1.
void narrow(double begin, double step, double& first, double& last) {
    constexpr double level = 1e-12;
    if (std::fabs(step) < level) {
        if (std::fabs(begin) > 1) last = first - 1;
        return;
    }
    const double one = (-1 - begin) / step;
    const double other = (1 - begin) / step;
    first = std::max(first, std::min(one, other));
    last = std::min(last, std::max(one, other));
}

class Drawing {
public:
    Drawing(const LiveDrops& live, const Droplets& droplets, const DropSprite& sprite, int width, int height,
            const DropLayers& layers)
        : droplets_(droplets),
          sprite_(sprite),
          width_(width),
          height_(height),
          layers_(layers),
          columns_((width + drop_tile_width - 1) / drop_tile_width),
          rows_((height + drop_tile_height - 1) / drop_tile_height),
          tiles_(static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_)) {
        for (int i = 0; i < drop_layer_count; ++i) {
            if (!layers_.wanted[i]) continue;
            static constexpr std::array<int, drop_layer_count> channels{4, 1, 1, 2, 2};
            pictures_.layers[i] = Picture(width, height, channels[static_cast<std::size_t>(i)]);
        }
        placed_.reserve(live.drops.size());
        for (const Drop& drop : live.drops) place(drop);
    }

    int tile_count() const { return static_cast<int>(tiles_.size()); }
    DropPictures take() { return std::move(pictures_); }

    void draw_tile(int tile) {
        const int left = tile % columns_ * drop_tile_width;
        const int top = tile / columns_ * drop_tile_height;
        const int wide = std::min(drop_tile_width, width_ - left);
        const int high = std::min(drop_tile_height, height_ - top);
        const std::vector<std::uint32_t>& drops = tiles_[static_cast<std::size_t>(tile)];
        if (drops.empty()) return clear(left, top, wide, high);
        alignas(64) float numbers[target_count * tile_pixels];
        std::fill(std::begin(numbers), std::end(numbers), 0.0F);
        for (const std::uint32_t drop : drops) draw(placed_[drop], left, top, high, numbers);
        finish(left, top, wide, high, numbers);
    }

private:
    void place(const Drop& drop) {
        if (!(drop.along > 0) || !(drop.across > 0) || !(drop.opacity > 0)) return;
        if (!std::isfinite(drop.x) || !std::isfinite(drop.y)) return;
        Placed placed;
        placed.x = drop.x;
        placed.y = drop.y;
        const double cosine = std::cos(drop.turn);
        const double sine = std::sin(drop.turn);
        placed.reach_x = std::fabs(cosine) * drop.along + std::fabs(sine) * drop.across;
        placed.reach_y = std::fabs(sine) * drop.along + std::fabs(cosine) * drop.across;
        const double left = std::floor((drop.x - placed.reach_x) / drop_tile_width);
        const double right = std::floor((drop.x + placed.reach_x) / drop_tile_width);
        const double top = std::floor((drop.y - placed.reach_y) / drop_tile_height);
        const double bottom = std::floor((drop.y + placed.reach_y) / drop_tile_height);
        if (right < 0 || bottom < 0 || left >= columns_ || top >= rows_) return;
        DropRow& row = placed.row;
        row.u_step = static_cast<float>(cosine / drop.along);
        row.v_step = static_cast<float>(-sine / drop.across);
        placed.u_down = sine / drop.along;
        placed.v_down = cosine / drop.across;
        row.cosine = static_cast<float>(cosine);
        row.sine = static_cast<float>(sine);
        row.tint = drop.tint;
        row.opacity = static_cast<float>(drop.opacity);
        row.share = static_cast<float>(drop.share);
        row.seed = drop.seed;
        if (droplets_.shape == DropShape::splash) add_lobes(drop, row);
        placed.cell = drop.cell;
        if (!sprite_.levels.empty()) {
            const double texels = static_cast<double>(sprite_.levels[0]->width) / std::max(1, droplets_.columns);
            const double shrunk = texels / (2 * std::min(drop.along, drop.across));
            const double level = std::floor(std::log2(std::max(1.0, shrunk)) + 0.5);
            placed.level = std::min(static_cast<int>(level), static_cast<int>(sprite_.levels.size()) - 1);
        }
        const auto index = static_cast<std::uint32_t>(placed_.size());
        placed_.push_back(placed);
        const int last_column = static_cast<int>(std::min(right, columns_ - 1.0));
        const int last_row = static_cast<int>(std::min(bottom, rows_ - 1.0));
        for (int y = static_cast<int>(std::max(top, 0.0)); y <= last_row; ++y) {
            for (int x = static_cast<int>(std::max(left, 0.0)); x <= last_column; ++x)
                tiles_[static_cast<std::size_t>(y) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(x)]
                    .push_back(index);
        }
    }

    static void add_lobes(const Drop& drop, DropRow& row) {
        const auto key = static_cast<std::uint32_t>(drop.seed * 16777216.0F);
        const double three = static_cast<double>(unit_from_hash(pcg3d({key, 1, 0})[0])) * 6.283185307179586;
        const double five = static_cast<double>(unit_from_hash(pcg3d({key, 2, 0})[0])) * 6.283185307179586;
        row.lobes = {static_cast<float>(std::cos(three)), static_cast<float>(std::sin(three)),
                     static_cast<float>(std::cos(five)), static_cast<float>(std::sin(five))};
    }

    DropTargets targets(float* numbers, int y) const {
        const auto row = [&](int i) {
            return numbers + static_cast<std::size_t>(i) * tile_pixels + static_cast<std::size_t>(y) * drop_tile_width;
        };
        DropTargets to;
        if (layers_[DropLayer::colour]) {
            to.red = row(0);
            to.green = row(1);
            to.blue = row(2);
            to.opacity = row(3);
        }
        if (layers_[DropLayer::age]) {
            to.weight = row(4);
            to.share = row(5);
        }
        if (layers_[DropLayer::seed] || layers_[DropLayer::place]) {
            to.best = row(6);
            to.seed = row(7);
            to.across = row(8);
            to.down = row(9);
        }
        if (layers_[DropLayer::push]) {
            to.push_x = row(10);
            to.push_y = row(11);
        }
        return to;
    }

    void draw(const Placed& drop, int left, int top, int high, float* numbers) const {
        const int first_row = std::max(0, static_cast<int>(std::floor(drop.y - drop.reach_y)) - top);
        const int last_row = std::min(high - 1, static_cast<int>(std::ceil(drop.y + drop.reach_y)) - top);
        const auto u_step = static_cast<double>(drop.row.u_step);
        const auto v_step = static_cast<double>(drop.row.v_step);
        for (int y = first_row; y <= last_row; ++y) {
            const double down = top + y + 0.5 - drop.y;
            const double across = left + 0.5 - drop.x;
            const double u = across * u_step + down * drop.u_down;
            const double v = across * v_step + down * drop.v_down;
            double first = 0;
            double last = drop_tile_width - 1;
            narrow(u, u_step, first, last);
            narrow(v, v_step, first, last);
            if (last < first) continue;
            DropRow row = drop.row;
            row.u = static_cast<float>(u);
            row.v = static_cast<float>(v);
            const Span span{static_cast<int>(std::floor(first)), static_cast<int>(std::floor(last)) + 1};
            if (sprite_.levels.empty()) {
                draw_drop_row(row, droplets_.shape, droplets_.blend, span.first, span.last, targets(numbers, y));
            } else {
                draw_sprite_row(row, drop, span, targets(numbers, y));
            }
        }
    }

    // The sprite's colours and opacity at the drop's own coordinates, within its cell.
    std::array<float, 4> sprite_at(const Placed& drop, float u, float v) const {
        const Picture& level = *sprite_.levels[static_cast<std::size_t>(drop.level)];
        const int columns = std::max(1, droplets_.columns);
        const int rows = std::max(1, droplets_.rows);
        const int cell_x = drop.cell % columns;
        const int cell_y = std::min(drop.cell / columns, rows - 1);
        const int left = cell_x * level.width / columns;
        const int right = std::max(left + 1, (cell_x + 1) * level.width / columns);
        const int top = cell_y * level.height / rows;
        const int bottom = std::max(top + 1, (cell_y + 1) * level.height / rows);
        const float x = static_cast<float>(left) + (u + 1) * 0.5F * static_cast<float>(right - left) - 0.5F;
        const float y = static_cast<float>(top) + (v + 1) * 0.5F * static_cast<float>(bottom - top) - 0.5F;
        const float whole_x = std::floor(x);
        const float whole_y = std::floor(y);
        std::array<float, 4> sum{};
        for (int j = 0; j < 2; ++j) {
            for (int i = 0; i < 2; ++i) {
                const float weight_x = i == 0 ? 1 - (x - whole_x) : x - whole_x;
                const float weight_y = j == 0 ? 1 - (y - whole_y) : y - whole_y;
                const int at_x = std::clamp(static_cast<int>(whole_x) + i, left, std::min(right, level.width) - 1);
                const int at_y = std::clamp(static_cast<int>(whole_y) + j, top, std::min(bottom, level.height) - 1);
                const float* pixel = level.at(at_x, at_y);
                const float weight = weight_x * weight_y * pixel[3];
                for (std::size_t k = 0; k < 3; ++k) sum[k] += pixel[k] * weight;
                sum[3] += weight;
            }
        }
        return sum;
    }

    void draw_sprite_row(const DropRow& row, const Placed& drop, Span span, const DropTargets& out) const {
        for (int x = span.first; x < span.last; ++x) {
            const float u = row.u + static_cast<float>(x) * row.u_step;
            const float v = row.v + static_cast<float>(x) * row.v_step;
            if (u < -1 || u > 1 || v < -1 || v > 1) continue;
            const std::array<float, 4> colour = sprite_at(drop, u, v);
            const float opacity = colour[3] * row.opacity;
            if (out.opacity != nullptr) {
                const float keeps = droplets_.blend == DropBlend::add    ? 1.0F
                                    : droplets_.blend == DropBlend::over ? 1 - opacity
                                                                         : 0.0F;
                if (droplets_.blend != DropBlend::larger || opacity > out.opacity[x]) {
                    const std::array<float*, 4> to{out.red, out.green, out.blue, out.opacity};
                    for (std::size_t k = 0; k < 4; ++k) {
                        const float tint = k < 3 ? row.tint[k] : 1.0F;
                        to[k][x] = colour[k] * row.opacity * tint + to[k][x] * keeps;
                    }
                }
            }
            if (out.share != nullptr) {
                out.weight[x] += opacity;
                out.share[x] += opacity * row.share;
            }
            if (out.best != nullptr && opacity > out.best[x]) {
                out.best[x] = opacity;
                out.seed[x] = row.seed;
                out.across[x] = u;
                out.down[x] = v;
            }
            if (out.push_x != nullptr) add_slope(drop, row, u, v, out.push_x[x], out.push_y[x]);
        }
    }

    // A picture's height is its opacity; its slope is measured over a sixteenth of it.
    void add_slope(const Placed& drop, const DropRow& row, float u, float v, float& x, float& y) const {
        constexpr float step = 0.0625F;
        const float along = (sprite_at(drop, u - step, v)[3] - sprite_at(drop, u + step, v)[3]) / (2 * step);
        const float across = (sprite_at(drop, u, v - step)[3] - sprite_at(drop, u, v + step)[3]) / (2 * step);
        x += row.opacity * (along * row.cosine - across * row.sine);
        y += row.opacity * (along * row.sine + across * row.cosine);
    }

    void clear(int left, int top, int wide, int high) {
        for (Picture& picture : pictures_.layers) {
            if (picture.width == 0) continue;
            const std::size_t count = static_cast<std::size_t>(wide) * static_cast<std::size_t>(picture.channels);
            for (int y = 0; y < high; ++y) std::fill_n(picture.at(left, top + y), count, 0.0F);
        }
    }

    void finish(int left, int top, int wide, int high, float* numbers) {
        for (int y = 0; y < high; ++y) {
            const DropTargets from = targets(numbers, y);
            for (int x = 0; x < wide; ++x) {
                if (layers_[DropLayer::colour]) {
                    float* to = pictures_[DropLayer::colour].at(left + x, top + y);
                    const float opacity = std::min(from.opacity[x], 1.0F);
                    // Hidden colours would come to light wherever the picture is averaged.
                    const float whole = opacity > 0 ? 1 / opacity : 0.0F;
                    to[0] = from.red[x] * whole;
                    to[1] = from.green[x] * whole;
                    to[2] = from.blue[x] * whole;
                    to[3] = opacity;
                }
                if (layers_[DropLayer::age])
                    *pictures_[DropLayer::age].at(left + x, top + y) =
                        from.weight[x] > 0 ? from.share[x] / from.weight[x] : 0.0F;
                if (layers_[DropLayer::seed]) *pictures_[DropLayer::seed].at(left + x, top + y) = from.seed[x];
                if (layers_[DropLayer::place]) {
                    float* to = pictures_[DropLayer::place].at(left + x, top + y);
                    to[0] = from.across[x];
                    to[1] = from.down[x];
                }
                if (layers_[DropLayer::push]) {
                    float* to = pictures_[DropLayer::push].at(left + x, top + y);
                    to[0] = from.push_x[x];
                    to[1] = from.push_y[x];
                }
            }
        }
    }

    const Droplets& droplets_;
    const DropSprite& sprite_;
    int width_;
    int height_;
    DropLayers layers_;
    int columns_;
    int rows_;
    std::vector<Placed> placed_;
    std::vector<std::vector<std::uint32_t>> tiles_;  // the drops of each, in the order of their births
    DropPictures pictures_;
};

}  // namespace

DropPictures draw_drops(const LiveDrops& live, const Droplets& droplets, const DropSprite& sprite, int width,
                        int height, const DropLayers& layers, WorkerPool& pool, const Cancel& cancel) {
    Drawing drawing(live, droplets, sprite, width, height, layers);
    pool.run(drawing.tile_count(), [&](int tile) {
        if (!cancel.requested()) drawing.draw_tile(tile);
    });
    return drawing.take();
}

}  // namespace lacquer
