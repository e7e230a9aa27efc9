// Frames as cells of one picture.
#pragma once

#include <span>
#include <vector>

#include "core/picture/picture.h"

namespace lacquer {

/// Where a frame lies in a sheet, and where that part lay in the frame. Pixels.
struct SheetRectangle {
    int x = 0;
    int y = 0;
    int width = 0;
    int height = 0;
    int left = 0;
    int top = 0;
    friend bool operator==(const SheetRectangle&, const SheetRectangle&) = default;
};

struct SpriteSheet {
    Image8 image;
    std::vector<SheetRectangle> rectangles;  ///< one for each frame
    int columns = 1;
    int rows = 1;
};

/// Cells in rows, each as large as the largest part that is not clear, with `padding` pixels of its own around it; they
/// repeat the cell's edge, so that no reading between pixels meets a neighbour. Both sides are powers of two.
SpriteSheet sprite_sheet(std::span<const Image8> frames, int padding);

/// What of an image is not clear: its smallest rectangle; one pixel where all is clear.
SheetRectangle trimmed(const Image8& image);

}  // namespace lacquer
