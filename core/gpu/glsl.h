// A pass as a fragment shader that a person would want to read.
#pragma once

#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "core/plan/plan.h"

namespace lacquer {

/// The language versions that are written: GLSL 3.30 core for drawing here and for shipping, GLSL ES 3.00, and
/// GLSL 4.50 for Vulkan, where uniforms lie in one block (std140, set 0, binding 0) and pictures at the bindings that
/// follow.
enum class Dialect { desktop_330, es_300, vulkan_450 };

/// How pictures are read: as Lacquer does it, or by the sampler's own filtering, which is a read each but rounds as the
/// driver likes and knows nothing of opacity.
enum class PictureAccess { exact, native };

/// What a shader is written for besides its language.
struct ShaderStyle {
    PictureAccess access = PictureAccess::exact;
    /// What the artist has noted of steps, by their names; written above their lines.
    std::map<std::string, std::string, std::less<>> notes = {};
};

/// A uniform of the shader and the name whose value it takes: a dial, a response, time, frame_size, pixel_size, aspect,
/// or `lq_drawn_size`, the size of what is drawn in pixels.
struct ShaderUniform {
    std::string name;
    std::string source;
    Type type = Type::number;
    int offset = -1;  ///< bytes from the beginning of the block, for a dialect that has one
    friend bool operator==(const ShaderUniform&, const ShaderUniform&) = default;
};

/// A sampler of the shader and the ground, gradient or stored step that it reads.
struct ShaderPicture {
    std::string name;
    std::string source;
    int binding = -1;  ///< for a dialect that has bindings
    friend bool operator==(const ShaderPicture&, const ShaderPicture&) = default;
};

struct Shader {
    std::string text;
    std::vector<ShaderUniform> uniforms;
    std::vector<ShaderPicture> pictures;
    std::vector<std::string> outputs;  ///< steps, by colour attachment; missing parts are 0
    int block_size = 0;                ///< bytes of the block of uniforms, for a dialect that has one
};

/// Most outputs that one shader can have.
inline constexpr std::size_t max_shader_outputs = 4;

/// The shader of a pass, which must have at most `max_shader_outputs` outputs. Row 0 of what is drawn is the top. Names
/// stay the artist's, but for those that GLSL reserves; helpers begin with `lq_`; every step has its line.
Shader emit_glsl(const Pass& pass, Dialect dialect, const ShaderStyle& style = {});

/// One line of a comment that says `text`, whatever that holds: line feeds and what could end or continue a comment are
/// taken out.
std::string comment_text(std::string_view text);

}  // namespace lacquer
