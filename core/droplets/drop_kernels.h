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

/// A drop as a row of pixels meets it: its own coordinates u (along) and v (across) grow evenly from pixel to pixel.
struct DropRow {
    float u = 0;  ///< at the row's first pixel
    float v = 0;
    float u_step = 0;
    float v_step = 0;
    std::array<float, 3> tint{1, 1, 1};
    float opacity = 1;
    float share = 0;
    float seed = 0;
    float cosine = 1;  ///< of its turn
    float sine = 0;
    std::array<float, 4> lobes{};  ///< of a splash
};

/// A row of a tile, each number of its pixels in a row of its own. What isn't wanted is null.
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

/// Draws one row of a drop of a ready shape from pixel `first` up to, not including, `last`; both within the tile.
void draw_drop_row(const DropRow& row, DropShape shape, DropBlend blend, int first, int last,
                   const DropTargets& targets);

}  // namespace lacquer
