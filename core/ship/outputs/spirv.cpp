#include "core/ship/shader_files.h"

namespace lacquer {

ShipOutput spirv_output() {
    ShipOutput output;
    output.id = "spirv";
    output.title = "SPIR-V";
    output.words = "binary fragment shaders for Vulkan 1.0, one a pass";
    output.ending = "spv";
    output.write = [](const ShipMaterial& material, const Cancel&) -> Result<ShippedFiles> {
        return crossed_files(material, spirv_output(), &CrossedShader::spirv);
    };
    return output;
}

}  // namespace lacquer
