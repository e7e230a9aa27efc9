// Play as a script, from the same text.
#pragma once

#include <string>
#include <string_view>

namespace lacquer {

/// C99 of the plain kind that the texts of core/drive/play are written in, as a script: `typedef struct { } name;`
/// becomes a function `name_new()`, `static inline` functions become functions, pointers to structs become objects.
/// What it reads: one statement or declaration of variables of one name a line or several lines; no macros but
/// constants, no arithmetic on pointers, no structs assigned as a whole.
std::string javascript_of(std::string_view c_text);

}  // namespace lacquer
