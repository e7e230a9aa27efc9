// A shader's directives followed: macros written out, parts left out.
#pragma once

#include <string_view>
#include <vector>

#include "core/base/fault.h"
#include "core/shader/source_tokens.h"

namespace lacquer {

struct PreprocessedShader {
    std::vector<SourceToken> tokens;  ///< without ends of lines; the last is an `end`
    Faults notes;                     ///< what was read and has no effect here; warnings
};

/// Most tokens after all macros are written out.
inline constexpr std::size_t max_shader_tokens = 200'000;

/// By GLSL ES 3.00, section 3.4. Throws a `Refusal`: those of `source_tokens`, `shader.directive`, `shader.macro`.
PreprocessedShader preprocess(std::string_view text);

}  // namespace lacquer
