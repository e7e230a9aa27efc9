// Built-in functions of GLSL ES 3.00 that are made of others, in GLSL itself.
#pragma once

#include <string_view>

namespace lacquer {

/// Their text. It is read like any shader; who calls one of them finds it beside the functions of builtins.h.
std::string_view shader_prelude();

/// True for the names of functions that GLSL ES 3.00 has, chapter 8, and nobody may define anew.
bool is_glsl_function(std::string_view name);

}  // namespace lacquer
