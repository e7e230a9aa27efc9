#include "core/ship/shader_files.h"

namespace lacquer {

ShipOutput glsl330_output() {
    ShipOutput output;
    output.id = "glsl330";
    output.title = "GLSL 3.30";
    output.words = "fragment shaders for OpenGL 3.3 and later, one a pass";
    output.ending = "frag";
    output.write = [](const ShipMaterial& material, const Cancel&) -> Result<ShippedFiles> {
        return glsl_files(material, glsl330_output(), Dialect::desktop_330);
    };
    return output;
}

}  // namespace lacquer
