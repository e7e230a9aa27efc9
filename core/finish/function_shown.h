// What built-in functions look like.
#pragma once

#include <string>

#include "core/lang/builtins.h"

namespace lacquer {

/// A formula over `finish_on_samples` that shows what a function does: it is handed places, numbers that grow across
/// and down, or a sample; what comes out is brought into 0..1 where it is known to lie elsewhere. Empty for what shows
/// nothing by itself.
std::string shown_formula(const BuiltinRow& row);

}  // namespace lacquer
