// The plainest way to compute a formula: one place, by walking the tree. It drives dials and responses, and the fast
// back ends are tested against it.
#pragma once

#include <functional>
#include <string>

#include "core/lang/typed.h"
#include "core/lang/value.h"

namespace lacquer {

/// Where the oracle gets what is not in the formula.
struct OracleInputs {
    /// The value of a name here.
    std::function<Value(const Typed& symbol)> name;
    /// The value of a step or ground at (u, v).
    std::function<Value(const Typed& read, float u, float v)> picture;
};

/// The value of a checked formula. Every operation is rounded to single precision; elementary functions are computed in
/// double precision first. Never fails: what GLSL ES 3.00 leaves undefined has the value that the table of built-ins
/// says.
Value evaluate(const Typed& typed, const OracleInputs& inputs);

/// Number to whole number as the language does it: towards 0, held to the range, NaN gives 0.
std::int32_t to_whole(float x);

}  // namespace lacquer
