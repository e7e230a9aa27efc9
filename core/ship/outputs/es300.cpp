#include "core/ship/shader_files.h"

namespace lacquer {

ShipOutput es300_output() {
    ShipOutput output;
    output.id = "es300";
    output.title = "GLSL ES 3.00";
    output.words = "fragment shaders for OpenGL ES 3.0 and WebGL 2, one a pass";
    output.ending = "frag";
    output.write = [](const ShipMaterial& material, const Cancel&) -> Result<ShippedFiles> {
        return glsl_files(material, es300_output(), Dialect::es_300);
    };
    return output;
}

}  // namespace lacquer
