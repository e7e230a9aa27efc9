// The seam between the core and the module that carries shaders over to other languages.
#pragma once

#include <string>

namespace lacquer {

/// File name of the module; it lies beside the program or in ../lib/lacquer.
inline constexpr const char* cross_module_file = "lacquer-cross.so";

enum class ShaderStage { vertex, fragment };

/// A shader for Vulkan in the other languages that follow from it.
struct CrossedShader {
    std::string spirv;  ///< SPIR-V 1.0, little-endian words as bytes
    std::string hlsl;   ///< shader model 5.0
    std::string msl;    ///< version 2.0
};

using CrossShaderFunction = bool (*)(const std::string& glsl_450, ShaderStage stage, CrossedShader& crossed,
                                     std::string& error) noexcept;
using SpirvFromHlslFunction = bool (*)(const std::string& hlsl, std::string& spirv, std::string& error) noexcept;

}  // namespace lacquer
