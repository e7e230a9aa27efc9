#include "core/ship/output.h"
#include "core/ship/pictures/movie_files.h"
#include "core/ship/pictures/moving_png.h"

namespace lacquer {

ShipOutput animation_output() {
    ShipOutput output;
    output.id = "animation";
    output.title = "Moving PNG";
    output.words = "the tape as one picture that moves, with opacity, for pages and messages";
    output.is_usual = false;
    output.write = [](const ShipMaterial& material, const Cancel& cancel) -> Result<ShippedFiles> {
        const Result<DrawnFrames> frames = drawn_frames(material, longest_movie_side, cancel);
        if (!frames) return frames.fault();
        Result<std::string> bytes = moving_png(*frames);
        if (!bytes) return bytes.fault();
        return ShippedFiles{{"pictures/" + material.stem + "_moving.png", std::move(*bytes), {}, {}}};
    };
    return output;
}

}  // namespace lacquer
