#include "core/ship/shader_files.h"

namespace lacquer {

ShipOutput glsl450_output() {
    ShipOutput output;
    output.id = "glsl450";
    output.title = "GLSL for Vulkan";
    output.words = "fragment shaders of GLSL 4.50 with Vulkan's bindings, one a pass";
    output.ending = "frag";
    output.write = [](const ShipMaterial& material, const Cancel&) -> Result<ShippedFiles> {
        return glsl_files(material, glsl450_output(), Dialect::vulkan_450);
    };
    return output;
}

}  // namespace lacquer
