// The seam between the drawing of drops and its kernels, which are compiled once for each instruction set.
#pragma once

#include <array>

#include "core/droplets/droplets.h"

namespace lacquer {

/// Drops are drawn in tiles of so many pixels; a row of a tile lies in one piece.
inline constexpr int drop_tile_width = 64;
inline constexpr int drop_tile_height = 32;
/// Rows are drawn in blocks of this many pixels, on whatever machine.
inline constexpr int drop_block = 16;

/// A drop as a tile meets it: its own coordinates u (along) and v (across) grow evenly from pixel to pixel and from row
/// to row.
struct TileDrop {
    float u = 0;  ///< at the tile's first pixel
    float v = 0;
    float u_step = 0;
    float v_step = 0;
    float u_down = 0;
    float v_down = 0;
    int first_row = 0;  ///< of the tile that it may reach, and the last one
    int last_row = 0;
    int first_column = 0;
    int last_column = 0;
    std::array<float, 3> tint{1, 1, 1};
    float opacity = 1;
    float share = 0;
    float seed = 0;
    float cosine = 1;  ///< of its turn
    float sine = 0;
    std::array<float, 4> lobes{};  ///< of a splash
};

/// The pixels of a row, from `first` up to, not including, `last`, in which a drop may be; empty where it isn't.
struct RowSpan {
    int first = 0;
    int last = 0;
};
RowSpan row_span(const TileDrop& drop, int row);

/// A tile, each number of its pixels in rows of its own. What isn't wanted is null.
struct DropTargets {
    float* red = nullptr;  ///< multiplied by opacity
    float* green = nullptr;
    float* blue = nullptr;
    float* opacity = nullptr;
    float* weight = nullptr;  ///< sum of opacities
    float* share = nullptr;   ///< sum of shares, weighed by opacity
    float* best = nullptr;    ///< the largest opacity so far, of the drop that the next three tell of
    float* seed = nullptr;
    float* across = nullptr;  ///< u and v
    float* down = nullptr;
    float* push_x = nullptr;  ///< sum of slopes
    float* push_y = nullptr;
};

/// Draws the part of a drop of a ready shape that lies in a tile.
void draw_tile_drop(const TileDrop& drop, DropShape shape, DropBlend blend, const DropTargets& tile);

/// A row of a tile as a picture's: straight opacity of at most 1, and no colours where there is none. `count` pixels of
/// 4 numbers each.
void finish_drop_colours(const float* red, const float* green, const float* blue, const float* opacity, int count,
                         float* to);

}  // namespace lacquer
