// Sprites of several parts: each a picture of its own, laid over one another at their places.
#pragma once

#include <vector>

#include "core/picture/picture.h"

namespace lacquer {

/// One part as it is laid down.
struct LaidPart {
    PicturePtr colour;  ///< 4 channels, straight opacity
    PicturePtr normal;  ///< 4 channels: directions kept as colours, 0.5 for none; null where there is no such picture
    double x = 0;       ///< of its middle, pixels from the sprite's left
    double y = 0;       ///< and from its top
    double scale = 1;
    double share = 1;
    double turn = 0;        ///< degrees clockwise about its middle
    bool mirrored = false;  ///< left for right, before it is turned
};

/// What a sprite is at each pixel, pictures of 4 channels.
struct SpritePictures {
    Picture colour;
    Picture normal;  ///< -1..1 in three channels, y upwards; 0, 0, 1 where a part has no picture of it
    Picture part;    ///< in the first channel the number of the part on top, from 1; 0 where the sprite is clear
    Picture share;   ///< in the first channel that part's share; 0 where the sprite is clear
};

/// Lays parts over one another, the first at the bottom (over, Porter and Duff 1984), read between pixels where their
/// places, scales or turns want that. Directions turn along with their part.
SpritePictures lay_parts(const std::vector<LaidPart>& parts, int width, int height);

/// One cell of a sheet that is cut evenly into `columns` and `rows`, counted along its rows.
Picture sheet_cell(const Picture& sheet, int columns, int rows, int cell);

}  // namespace lacquer
