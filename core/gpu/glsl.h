// A pass as a fragment shader that a person would want to read.
#pragma once

#include <string>
#include <vector>

#include "core/plan/plan.h"

namespace lacquer {

/// The language versions that are written: GLSL 3.30 core for drawing here, GLSL ES 3.00 for shipping.
enum class Dialect { desktop_330, es_300 };

/// A uniform of the shader and the name whose value it takes: a dial, a response, time, frame_size, pixel_size, aspect,
/// or `lq_drawn_size`, the size of what is drawn in pixels.
struct ShaderUniform {
    std::string name;
    std::string source;
    Type type = Type::number;
    friend bool operator==(const ShaderUniform&, const ShaderUniform&) = default;
};

/// A sampler of the shader and the ground, gradient or stored step that it reads.
struct ShaderPicture {
    std::string name;
    std::string source;
    friend bool operator==(const ShaderPicture&, const ShaderPicture&) = default;
};

struct Shader {
    std::string text;
    std::vector<ShaderUniform> uniforms;
    std::vector<ShaderPicture> pictures;
    std::vector<std::string> outputs;  ///< steps, by colour attachment; missing parts are 0
};

/// Most outputs that one shader can have.
inline constexpr std::size_t max_shader_outputs = 4;

/// The shader of a pass, which must have at most `max_shader_outputs` outputs. Row 0 of what is drawn is the top. Names
/// stay the artist's, but for those that GLSL reserves; helpers begin with `lq_`; every step has its line.
Shader emit_glsl(const Pass& pass, Dialect dialect);

}  // namespace lacquer
