// The plainest way to compute a formula: one place, by walking the tree. It drives dials and responses, and the fast
// back ends are tested against it.
#pragma once

#include <cstdint>
#include <functional>

#include "core/lang/typed.h"
#include "core/lang/value.h"

namespace lacquer {

/// Where the oracle gets what is not in the formula.
struct OracleInputs {
    /// The value of a name, of this type, here or at the neighbour (dx, dy) drawn pixels away.
    std::function<Value(const std::string& name, Type type, int dx, int dy)> name;
    /// What reading a picture gives, as this type, with the values of the arguments.
    std::function<Value(const PictureReading& reading, Type type, const std::vector<Value>& args)> picture;
    /// Where in its 2 x 2 block of drawn pixels this one lies, for derivatives.
    bool right = false;
    bool lower = false;
};

/// The value of a checked formula or code. Every operation is rounded to single precision; elementary functions are
/// computed in double precision first. Never fails: what GLSL ES 3.00 leaves undefined has the value that the table of
/// built-ins says; loops end after `max_turns`.
Value evaluate(const Typed& typed, const OracleInputs& inputs);

/// Number to whole number as the language does it: towards 0, held to the range, NaN gives 0.
std::int32_t to_whole(float x);

/// The same without sign: below 0 gives 0.
std::uint32_t to_natural(float x);

}  // namespace lacquer
