// What built-in functions do, and what they look like.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/lang/builtins.h"

namespace lacquer {

/// One way to call a function.
struct ShownCall {
    std::string head;   ///< with what it takes and gives
    std::string words;  ///< what it does; empty where the one before says it
};

struct ShownFunction {
    std::vector<ShownCall> rows;
    /// Of a step over `finish_on_samples` that shows what the function does: it is handed places, numbers that grow
    /// across and down, or a sample; what comes out is brought into 0..1 where it is known to lie elsewhere.
    std::string formula;
};

/// A function of the language by its name; nothing if there is none.
std::optional<ShownFunction> shown_function(std::string_view name);

}  // namespace lacquer
