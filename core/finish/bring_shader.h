// A fragment shader as a finish.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/base/result.h"
#include "core/finish/finish.h"

namespace lacquer {

/// Largest file of a shader that is read, in bytes.
inline constexpr std::size_t max_shader_file = std::size_t{1} << 20U;

struct BroughtShader {
    Finish finish;
    std::string step;               ///< the one that holds the shader
    std::vector<std::string> told;  ///< what became of what the shader takes from outside, a sentence each
};

/// A finish called `name` with one code step, the shader as it stands. What it takes from outside is connected: floats,
/// whole numbers, yes or no and colours become dials of the same name, with ranges and values by what stands behind
/// them (`// 0..1`) or by their names; vectors become a dial for each number; time and the size of the frame are
/// connected; pictures become stand-in scenes. Where a name is taken, or is none here, the shader's text says by a
/// `#define` what stands for it. What cannot be connected stays as it is. Faults: `lang.too-long`, `lang.comment`,
/// `shader.empty`.
Result<BroughtShader> bring_shader(std::string_view text, std::string_view name);

}  // namespace lacquer
