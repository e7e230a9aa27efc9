// What is known of a function once all of its statements stand.
#pragma once

#include <optional>
#include <vector>

#include "core/base/result.h"
#include "core/lang/typed.h"

namespace lacquer {

/// Most nodes of one formula or function, with those of the functions that it calls.
inline constexpr std::size_t max_nodes = 20000;

/// Whether statements give back a value on every way through them.
bool gives_back(const std::vector<TypedStatement>& statements);

/// How often a loop turns that counts from one literal to another by a third and leaves its counter alone within; at
/// most one more than is allowed. Nothing for others.
std::optional<int> counted_turns(const TypedStatement& loop);

/// Sets a function's turns and hash, by its statements and its size, which must be known. Faults at `where`:
/// `lang.too-big`, `lang.turns`.
Result<Done> complete(TypedFunction& function, Span where);

}  // namespace lacquer
