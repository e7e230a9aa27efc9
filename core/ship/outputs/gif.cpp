#include "core/ship/output.h"
#include "core/ship/pictures/movie_files.h"

namespace lacquer {

ShipOutput gif_output() {
    ShipOutput output;
    output.id = "gif";
    output.title = "GIF";
    output.words =
        "the tape as a GIF with colours chosen for it, for where nothing else is taken; opacity is all or nothing";
    output.is_usual = false;
    output.write = [](const ShipMaterial& material, const Cancel& cancel) {
        return movie_files(material, MovieFormat::gif, ".gif", cancel);
    };
    return output;
}

}  // namespace lacquer
