#include "core/ship/pictures/movie_files.h"

#include "core/ship/pictures/drawn_frames.h"

namespace lacquer {

Result<ShippedFiles> movie_files(const ShipMaterial& material, MovieFormat format, const std::string& ending,
                                 const Cancel& cancel) {
    const Result<DrawnFrames> frames = drawn_frames(material, longest_movie_side, cancel);
    if (!frames) return frames.fault();
    Result<std::string> bytes = movie_of(format, frames->images, frames->rate, cancel);
    if (!bytes) return bytes.fault();
    return ShippedFiles{{"pictures/" + material.stem + ending, std::move(*bytes), {}, {}}};
}

}  // namespace lacquer
