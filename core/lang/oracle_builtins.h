// The oracle's built-in functions.
#pragma once

#include <array>

#include "core/lang/typed.h"
#include "core/lang/value.h"

namespace lacquer {

/// What a built-in function gives, as this type, for these arguments. Not for those that look at neighbours or
/// pictures, nor for those that are made of others (compositions.h).
Value call_builtin(Builtin builtin, Type type, const std::array<Value, 3>& args);

}  // namespace lacquer
