#include "core/ship/output.h"
#include "core/ship/pictures/movie_files.h"

namespace lacquer {

ShipOutput mp4_output() {
    ShipOutput output;
    output.id = "mp4";
    output.title = "MP4";
    output.words = "the tape as video on black (H.264), for messages and reviews";
    output.is_usual = false;
    output.write = [](const ShipMaterial& material, const Cancel& cancel) {
        return movie_files(material, MovieFormat::mp4, ".mp4", cancel);
    };
    return output;
}

}  // namespace lacquer
