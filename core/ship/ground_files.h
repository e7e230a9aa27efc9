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
/// table, in pixels, and has floats of colours rounded to 11 bits; 0 leaves all as it is. Faults: those of reading
/// grounds, `picture.unwritable`.
Result<std::vector<GroundFile>> ground_files(const ShipMaterial& material, const ShipMoment& moment, int most_side,
                                             const Cancel& cancel);

/// Pictures of droplets over the whole tape, for a host that does not draw them itself.
struct PlayedGround {
    std::string name;
    double rate = 0;  ///< pictures a second, the first at 0 s
    std::vector<GroundFile> frames;
};

/// Those of all passes, with the longer side of at most `most_side` pixels, `rate` a second, but no more than
/// `most_frames`: for a long tape the rate is lower. Faults: as above.
Result<std::vector<PlayedGround>> played_droplets(const ShipMaterial& material, double rate, int most_frames,
                                                  int most_side, const Cancel& cancel);

/// Where such a file lies in a set: "grounds/scene.png", "grounds/fade.f32".
std::string ground_path(const GroundFile& file);

}  // namespace lacquer
