// A call of each built-in function with arguments that vary over the picture.
#pragma once

#include <string>

#include "core/lang/builtins.h"

namespace lacquer::test {

/// A formula that calls the function, over the names of RandomFormulas and the gradient `ramp`; its value is up to four
/// numbers, a yes or no, or a whole number.
std::string formula_of(const BuiltinRow& row);

}  // namespace lacquer::test
