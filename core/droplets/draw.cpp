#include "core/droplets/draw.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <utility>

#include "core/base/hash.h"
#include "core/droplets/drop_kernels.h"
#include "core/picture/sample.h"

namespace lacquer {

namespace {

constexpr std::size_t tile_pixels = std::size_t{drop_tile_width} * drop_tile_height;
constexpr std::size_t target_count = 12;

// A drop before a tile is chosen.
struct Placed {
    TileDrop drop;  // but for where the tile begins
    double x = 0;   // of its middle, pixels
    double y = 0;
    double reach_x = 0;  // half the size of the rectangle around it, pixels
    double reach_y = 0;
    int level = 0;  // of the sprite
    int cell = 0;
    // The tiles that it touches, from and up to, not including; none where it isn't seen.
    int left_tile = 0;
    int right_tile = 0;
    int top_tile = 0;
    int bottom_tile = 0;
};

class Drawing {
public:
    Drawing(const LiveDrops& live, const Droplets& droplets, const DropSprite& sprite, int width, int height,
            const DropLayers& layers, DropPictures old)
        : droplets_(droplets),
          sprite_(sprite),
          width_(width),
          height_(height),
          layers_(layers),
          columns_((width + drop_tile_width - 1) / drop_tile_width),
          rows_((height + drop_tile_height - 1) / drop_tile_height),
          placed_(live.drops.size()) {
        for (int i = 0; i < drop_layer_count; ++i) {
            if (!layers_.wanted[i]) continue;
            static constexpr std::array<int, drop_layer_count> channels{4, 1, 1, 2, 2};
            Picture& used = old.layers[i];
            pictures_.layers[i] = used.width == width && used.height == height
                                      ? std::move(used)
                                      : Picture(width, height, channels[static_cast<std::size_t>(i)]);
        }
    }

    int tile_count() const { return columns_ * rows_; }
    DropPictures take() { return std::move(pictures_); }

    void draw_tile(int tile) {
        const int left = tile % columns_ * drop_tile_width;
        const int top = tile / columns_ * drop_tile_height;
        const int wide = std::min(drop_tile_width, width_ - left);
        const int high = std::min(drop_tile_height, height_ - top);
        const std::size_t first = begins_[static_cast<std::size_t>(tile)];
        const std::size_t last = begins_[static_cast<std::size_t>(tile) + 1];
        if (first == last) return clear(left, top, wide, high);
        alignas(64) float numbers[target_count * tile_pixels];
        const DropTargets targets = cleared(numbers);
        for (std::size_t i = first; i < last; ++i) draw(placed_[drops_[i]], left, top, high, targets);
        finish(left, top, wide, high, targets);
    }

    /// Works out where a drop lies and which tiles it touches; any number of them at a time.
    void place(const Drop& drop, std::size_t index) {
        if (!(drop.along > 0) || !(drop.across > 0) || !(drop.opacity > 0)) return;
        if (!std::isfinite(drop.x) || !std::isfinite(drop.y)) return;
        Placed& placed = placed_[index];
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
        TileDrop& row = placed.drop;
        row.u_step = static_cast<float>(cosine / drop.along);
        row.v_step = static_cast<float>(-sine / drop.across);
        row.u_down = static_cast<float>(sine / drop.along);
        row.v_down = static_cast<float>(cosine / drop.across);
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
        placed.left_tile = static_cast<int>(std::max(left, 0.0));
        placed.right_tile = static_cast<int>(std::min(right, columns_ - 1.0)) + 1;
        placed.top_tile = static_cast<int>(std::max(top, 0.0));
        placed.bottom_tile = static_cast<int>(std::min(bottom, rows_ - 1.0)) + 1;
    }

    /// Gives each tile the drops that touch it, those that lie on top last.
    void sort_into_tiles() {
        begins_.assign(static_cast<std::size_t>(tile_count()) + 1, 0);
        for (const Placed& placed : placed_) for_each_tile(placed, [&](std::size_t tile) { ++begins_[tile + 1]; });
        for (std::size_t tile = 1; tile < begins_.size(); ++tile) begins_[tile] += begins_[tile - 1];
        drops_.resize(begins_.back());
        std::vector<std::size_t> next(begins_.begin(), begins_.end() - 1);
        for (std::size_t nth = 0; nth < placed_.size(); ++nth) {
            const std::size_t i = droplets_.oldest_on_top ? placed_.size() - 1 - nth : nth;
            for_each_tile(placed_[i], [&](std::size_t tile) { drops_[next[tile]++] = static_cast<std::uint32_t>(i); });
        }
    }

private:
    template <class Visit>
    void for_each_tile(const Placed& placed, Visit visit) const {
        for (int y = placed.top_tile; y < placed.bottom_tile; ++y) {
            for (int x = placed.left_tile; x < placed.right_tile; ++x)
                visit(static_cast<std::size_t>(y) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(x));
        }
    }

    static void add_lobes(const Drop& drop, TileDrop& row) {
        const auto key = static_cast<std::uint32_t>(drop.seed * 16777216.0F);
        const double three = static_cast<double>(unit_from_hash(pcg3d({key, 1, 0})[0])) * 6.283185307179586;
        const double five = static_cast<double>(unit_from_hash(pcg3d({key, 2, 0})[0])) * 6.283185307179586;
        row.lobes = {static_cast<float>(std::cos(three)), static_cast<float>(std::sin(three)),
                     static_cast<float>(std::cos(five)), static_cast<float>(std::sin(five))};
    }

    // Room for what is wanted, all 0.
    DropTargets cleared(float* numbers) const {
        const auto plane = [&](int i) {
            float* begin = numbers + static_cast<std::size_t>(i) * tile_pixels;
            std::fill_n(begin, tile_pixels, 0.0F);
            return begin;
        };
        DropTargets to;
        if (layers_[DropLayer::colour]) {
            to.red = plane(0);
            to.green = plane(1);
            to.blue = plane(2);
            to.opacity = plane(3);
        }
        if (layers_[DropLayer::age]) {
            to.weight = plane(4);
            to.share = plane(5);
        }
        if (layers_[DropLayer::seed] || layers_[DropLayer::place]) {
            to.best = plane(6);
            to.seed = plane(7);
            to.across = plane(8);
            to.down = plane(9);
        }
        if (layers_[DropLayer::push]) {
            to.push_x = plane(10);
            to.push_y = plane(11);
        }
        return to;
    }

    void draw(const Placed& placed, int left, int top, int high, const DropTargets& targets) const {
        TileDrop drop = placed.drop;
        const double across = left + 0.5 - placed.x;
        const double down = top + 0.5 - placed.y;
        drop.u =
            static_cast<float>(across * static_cast<double>(drop.u_step) + down * static_cast<double>(drop.u_down));
        drop.v =
            static_cast<float>(across * static_cast<double>(drop.v_step) + down * static_cast<double>(drop.v_down));
        drop.first_row = static_cast<int>(std::max(0.0, std::floor(placed.y - placed.reach_y) - top));
        drop.last_row = static_cast<int>(std::min(high - 1.0, std::ceil(placed.y + placed.reach_y) - top));
        drop.first_column = static_cast<int>(std::max(0.0, std::floor(placed.x - placed.reach_x) - left));
        drop.last_column =
            static_cast<int>(std::min(drop_tile_width - 1.0, std::ceil(placed.x + placed.reach_x) - left));
        if (sprite_.levels.empty()) return draw_tile_drop(drop, droplets_.shape, droplets_.blend, targets);
        for (int y = drop.first_row; y <= drop.last_row; ++y) draw_sprite_row(drop, placed, y, targets);
    }

    // The sprite's colours and opacity at the drop's own coordinates, within its cell.
    std::array<float, 4> sprite_at(const Placed& drop, float u, float v) const {
        const Picture& level = *sprite_.levels[static_cast<std::size_t>(drop.level)];
        const PictureView view = view_of(level);
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
                const std::array<float, 4> pixel = fetch(view, at_x, at_y);
                const float weight = weight_x * weight_y * pixel[3];
                for (std::size_t k = 0; k < 3; ++k) sum[k] += pixel[k] * weight;
                sum[3] += weight;
            }
        }
        return sum;
    }

    void draw_sprite_row(const TileDrop& row, const Placed& drop, int y, const DropTargets& out) const {
        const RowSpan span = row_span(row, y);
        for (int column = span.first; column < span.last; ++column) {
            const int x = y * drop_tile_width + column;
            const float u = row.u + static_cast<float>(y) * row.u_down + static_cast<float>(column) * row.u_step;
            const float v = row.v + static_cast<float>(y) * row.v_down + static_cast<float>(column) * row.v_step;
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
    void add_slope(const Placed& drop, const TileDrop& row, float u, float v, float& x, float& y) const {
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

    void finish(int left, int top, int wide, int high, const DropTargets& from) {
        for (int y = 0; y < high; ++y) {
            const int row = y * drop_tile_width;
            const auto begin = [&](DropLayer layer) { return pictures_[layer].at(left, top + y); };
            if (layers_[DropLayer::colour])
                finish_drop_colours(from.red + row, from.green + row, from.blue + row, from.opacity + row, wide,
                                    begin(DropLayer::colour));
            if (layers_[DropLayer::age]) {
                float* to = begin(DropLayer::age);
                for (int x = 0; x < wide; ++x)
                    to[x] = from.weight[row + x] > 0 ? from.share[row + x] / from.weight[row + x] : 0.0F;
            }
            if (layers_[DropLayer::seed]) std::copy_n(from.seed + row, wide, begin(DropLayer::seed));
            if (layers_[DropLayer::place])
                interleave(from.across + row, from.down + row, wide, begin(DropLayer::place));
            if (layers_[DropLayer::push])
                interleave(from.push_x + row, from.push_y + row, wide, begin(DropLayer::push));
        }
    }

    static void interleave(const float* first, const float* second, int count, float* to) {
        for (int x = 0; x < count; ++x) {
            *to++ = first[x];
            *to++ = second[x];
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
    std::vector<std::size_t> begins_;   // of each tile's part of the next, and where the last one ends
    std::vector<std::uint32_t> drops_;  // of all tiles, one after another
    DropPictures pictures_;
};

}  // namespace

DropPictures draw_drops(const LiveDrops& live, const Droplets& droplets, const DropSprite& sprite, int width,
                        int height, const DropLayers& layers, WorkerPool& pool, const Cancel& cancel,
                        DropPictures old) {
    Drawing drawing(live, droplets, sprite, width, height, layers, std::move(old));
    constexpr std::size_t chunk = 512;
    const std::size_t count = live.drops.size();
    pool.run(static_cast<int>((count + chunk - 1) / chunk), [&](int nth) {
        const std::size_t begin = static_cast<std::size_t>(nth) * chunk;
        for (std::size_t i = begin; i < std::min(count, begin + chunk); ++i) drawing.place(live.drops[i], i);
    });
    drawing.sort_into_tiles();
    pool.run(drawing.tile_count(), [&](int tile) {
        if (!cancel.requested()) drawing.draw_tile(tile);
    });
    return drawing.take();
}

}  // namespace lacquer
