#include "core/ship/shader_files.h"

namespace lacquer {

ShipOutput hlsl_output() {
    ShipOutput output;
    output.id = "hlsl";
    output.title = "HLSL";
    output.words = "pixel shaders of shader model 5.0 for Direct3D, one a pass";
    output.ending = "hlsl";
    output.write = [](const ShipMaterial& material, const Cancel&) -> Result<ShippedFiles> {
        return crossed_files(material, hlsl_output(), &CrossedShader::hlsl);
    };
    return output;
}

}  // namespace lacquer
