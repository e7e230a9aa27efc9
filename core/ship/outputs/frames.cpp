#include <fmt/core.h>

#include "core/picture/png.h"
#include "core/ship/output.h"
#include "core/ship/pictures/drawn_frames.h"
#include "core/ship/pictures/movie_files.h"

namespace lacquer {

ShipOutput frames_output() {
    ShipOutput output;
    output.id = "frames";
    output.title = "Frames";
    output.words = "the tape as one PNG a frame, numbered from 0, for editing";
    output.is_usual = false;
    output.write = [](const ShipMaterial& material, const Cancel& cancel) -> Result<ShippedFiles> {
        const Result<DrawnFrames> frames = drawn_frames(material, longest_movie_side, cancel);
        if (!frames) return frames.fault();
        ShippedFiles files;
        for (std::size_t i = 0; i < frames->images.size(); ++i) {
            const Image8& image = frames->images[i];
            Result<std::string> bytes = png_bytes(image);
            if (!bytes) return bytes.fault();
            files.push_back({fmt::format("pictures/{}_frames/{:04}.png", material.stem, i), std::move(*bytes), {}, {}});
        }
        return files;
    };
    return output;
}

}  // namespace lacquer
