// Built-in functions that are made of others, each written once, in the language itself.
#pragma once

#include <memory>
#include <span>
#include <string_view>

#include "core/lang/typed.h"

namespace lacquer {

/// One of them: an expression or statements over the parameters that the table of built-ins names. `same` is
/// the type of the first argument.
struct CompositionText {
    Builtin id;
    int width;  ///< of the first argument; 0 for any
    /// Says how one part is made of the parts of the arguments that stand at the same place.
    bool by_part;
    std::string_view text;
};

/// All of them. Where a built-in has a text for a width, it goes before the one for any.
std::span<const CompositionText> composition_texts();

/// A composition for arguments of certain types.
struct Composition {
    std::shared_ptr<const TypedFunction> function;
    bool by_part = false;
};

/// What a built-in called with such a first argument is made of; null for those that are computed directly.
const Composition* composition_of(Builtin id, Type first);

}  // namespace lacquer
