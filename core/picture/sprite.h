// Sprites of several parts: each a picture of its own, laid over one another at their places.
#pragma once

#include <cstdint>
#include <vector>

#include "core/base/cancel.h"
#include "core/base/worker_pool.h"
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

/// What is asked of a sprite's pixels.
enum class SpriteLayer {
    colour,  ///< 4 channels, straight opacity
    normal,  ///< 4 channels: -1..1 in three, y upwards; 0, 0, 1 where a part has no picture of it
    part,    ///< one channel: the number of the part on top, from 1; 0 where the sprite is clear
    share,   ///< one channel: that part's share; 0 where the sprite is clear
};

/// Channels of such a picture.
constexpr int channels_of(SpriteLayer layer) {
    return layer == SpriteLayer::colour || layer == SpriteLayer::normal ? 4 : 1;
}

/// How many pixels of a sprite of this size its parts may touch, all together.
std::int64_t touched_pixels(const std::vector<LaidPart>& parts, int width, int height);

/// Lays parts over one another, the first at the bottom (over, Porter and Duff 1984), read between pixels where their
/// places, scales or turns want that. Directions turn along with their part. Called off, it is unfinished.
Picture lay_parts(const std::vector<LaidPart>& parts, int width, int height, SpriteLayer layer, WorkerPool& pool,
                  const Cancel& cancel);

/// One cell of a sheet that is cut evenly into `columns` and `rows`, counted along its rows.
Picture sheet_cell(const Picture& sheet, int columns, int rows, int cell);

}  // namespace lacquer
