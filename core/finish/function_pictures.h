// Functions whose picture cannot be made by handing numbers over one by one: code that shows what they do.
#pragma once

#include <span>
#include <string_view>

namespace lacquer {

struct FunctionPicture {
    std::string_view name;
    std::string_view code;        ///< of a step over `finish_on_samples`; GLSL where it has a `return`
    std::string_view words = {};  ///< what it does, where builtins.h has no line on it
};

/// By name. Meanings are those of GLSL ES 3.00, chapter 8.
std::span<const FunctionPicture> function_pictures();

}  // namespace lacquer
