// Shaders in languages that others write: SPIR-V, HLSL and MSL.
#pragma once

#include <string>

#include "core/base/result.h"
#include "core/ship/cross_module.h"

namespace lacquer {

/// A shader of `Dialect::vulkan_450` in the other languages. Faults: `ship.module` if the part that does it is
/// not there, `ship.crossing` with its words.
Result<CrossedShader> cross_shader(const std::string& glsl_450, ShaderStage stage);

/// HLSL as SPIR-V, to be run: constants at binding 0, textures from `hlsl_first_texture` on, samplers from
/// `hlsl_first_sampler` on. Faults as above.
Result<std::string> spirv_from_hlsl(const std::string& hlsl);

inline constexpr int hlsl_first_texture = 1;
inline constexpr int hlsl_first_sampler = 33;

}  // namespace lacquer
