// The pictures that a set reads, as files and as parts of a page.
#pragma once

#include <string>
#include <vector>

#include "core/base/cancel.h"
#include "core/ship/moment.h"

namespace lacquer {

/// A ground's picture or table in a form that every host reads: PNG of display values for colours, else floats.
struct GroundFile {
    std::string name;     ///< as formulas use it
    bool is_png = false;  ///< 8 bits a channel, sRGB, straight opacity
    std::string bytes;    ///< the PNG; or little-endian floats, `channels` a pixel, rows from the top
    int width = 0;        ///< pixels
    int height = 0;
    int channels = 4;
};

/// Those of all passes as they are at `moment`; what moves stands still. `most_side` is the largest side of what is no
/// table, in pixels; 0 leaves sizes as they are. Faults: those of reading grounds, `picture.unwritable`.
Result<std::vector<GroundFile>> ground_files(const ShipMaterial& material, const ShipMoment& moment, int most_side,
                                             const Cancel& cancel);

/// Where such a file lies in a set: "grounds/scene.png", "grounds/fade.f32".
std::string ground_path(const GroundFile& file);

}  // namespace lacquer
