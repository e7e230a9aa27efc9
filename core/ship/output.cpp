#include "core/ship/output.h"

#include <array>

namespace lacquer {

std::span<const ShipOutput> ship_outputs() {
    static const std::array outputs = {glsl330_output(), es300_output(),     glsl450_output(), spirv_output(),
                                       hlsl_output(),    msl_output(),       play_output(),    grounds_output(),
                                       drops_output(),   page_output(),      still_output(),   frames_output(),
                                       sheet_output(),   animation_output(), gif_output(),     webp_output(),
                                       webm_output(),    mp4_output(),       cube_output()};
    return outputs;
}

const ShipOutput* find_ship_output(std::string_view id) {
    for (const ShipOutput& output : ship_outputs()) {
        if (output.id == id) return &output;
    }
    return nullptr;
}

std::string shader_path(const ShipOutput& output, const ShippedPass& pass) {
    return "shaders/" + std::string(output.id) + "/" + pass.stem + "." + std::string(output.ending);
}

}  // namespace lacquer
