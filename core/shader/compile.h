// Code that follows GLSL, as the language's own tree.
#pragma once

#include <string_view>

#include "core/base/fault.h"
#include "core/base/result.h"
#include "core/lang/checker.h"

namespace lacquer {

/// What code means.
struct CompiledShader {
    Typed typed;   ///< a run of a function without arguments, as `check_code` gives it
    Faults notes;  ///< what is understood and has no effect, or another one than it may have elsewhere; warnings
};

/// Reads code by GLSL ES 3.00 (Khronos, document revision 6): functions and statements of which the last gives back the
/// step's value, or a whole fragment shader with `main` and one output. There are no conversions that are not written;
/// `1/2` is 0. Names that the scope knows are known; uniforms are looked for among them. In a whole shader places count
/// upwards from the lower left corner, as in GLSL, else as in formulas, from the upper left. What GLSL leaves open is
/// 0, places in brackets are held to the range. A step's value is up to four numbers, a yes or no, or a whole number.
/// Faults: those of the language (`check_code`), `lang.recursion`, `shader.directive`, `shader.macro`,
/// `shader.constant`, `shader.array`, `shader.uniform`, `shader.vertices`, `shader.output`.
Result<CompiledShader> compile_shader(std::string_view text, const Scope& scope);

}  // namespace lacquer
