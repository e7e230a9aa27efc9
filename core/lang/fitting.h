// The rules of width: what can stand where something else is wanted, and how it is made to.
#pragma once

#include <initializer_list>

#include "core/lang/typed.h"

namespace lacquer {

/// A node around another, of the same span.
Typed wrap(TypedNode node, Type type, Typed inner);

/// Parts of a value, by number.
Typed take_parts(Typed value, std::initializer_list<int> parts);

/// A literal that was spelled without point and exponent: it can still become a whole number.
bool is_whole_literal(const Typed& value);

/// Whether a value can stand where `to` is wanted: 1 fits n; 4 numbers fit 3 and 3 fit 4; a literal without a point is
/// a whole number where one is wanted.
bool fits(const Typed& value, Type to);

/// The value as `to`; it must fit.
Typed fitted(Typed value, Type to);

}  // namespace lacquer
