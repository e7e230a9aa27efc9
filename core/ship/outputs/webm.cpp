#include "core/ship/output.h"
#include "core/ship/pictures/movie_files.h"

namespace lacquer {

ShipOutput webm_output() {
    ShipOutput output;
    output.id = "webm";
    output.title = "WebM";
    output.words = "the tape as video with opacity (VP9), for pages and cuts";
    output.is_usual = false;
    output.write = [](const ShipMaterial& material, const Cancel& cancel) {
        return movie_files(material, MovieFormat::webm, ".webm", cancel);
    };
    return output;
}

}  // namespace lacquer
