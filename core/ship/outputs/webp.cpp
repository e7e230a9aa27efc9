#include "core/ship/output.h"
#include "core/ship/pictures/movie_files.h"

namespace lacquer {

ShipOutput webp_output() {
    ShipOutput output;
    output.id = "webp";
    output.title = "WebP";
    output.words = "the tape as a moving WebP without loss, with opacity";
    output.is_usual = false;
    output.write = [](const ShipMaterial& material, const Cancel& cancel) {
        return movie_files(material, MovieFormat::webp, ".webp", cancel);
    };
    return output;
}

}  // namespace lacquer
