#include "core/ship/shader_files.h"

namespace lacquer {

ShipOutput msl_output() {
    ShipOutput output;
    output.id = "msl";
    output.title = "Metal shading language";
    output.words = "fragment functions of version 2.0, one a pass";
    output.ending = "metal";
    output.write = [](const ShipMaterial& material, const Cancel&) -> Result<ShippedFiles> {
        return crossed_files(material, msl_output(), &CrossedShader::msl);
    };
    return output;
}

}  // namespace lacquer
