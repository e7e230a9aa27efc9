// What a variable within code is worth, as code of its own that gives it back.
#pragma once

#include <cstdint>
#include <string>
#include <string_view>

#include "core/base/result.h"
#include "core/finish/checked.h"

namespace lacquer {

/// A variable, and the code that is changed so that it gives back the variable's value.
struct SeenVariable {
    std::string name;  ///< with the part that is looked at: "light.colour", "m[0]"
    std::string type;  ///< of that: float, vec3, int, ...
    std::string code;  ///< gives back a float or vector of as many numbers
};

/// The variable whose name stands at `place`, a byte of `code`: one that the code itself declares, anywhere in it,
/// parameters of functions included. Of a struct, an array or a matrix it is the part that stands behind the name, up
/// to where the mark is, and where that is too large for a picture the first part of it. Its value is the one after the
/// statement in which the name stands (before it where that leaves, or asks for a condition); in a loop and in a
/// function the last of them; 0 where the statement is not come to. Faults: `edit.extract`.
Result<SeenVariable> seen_variable(std::string_view code, std::uint32_t place);

/// The name of the step that gives a seen variable; no step of a user can have it.
inline constexpr std::string_view seen_step = "seen here";

/// The finish with one more step, called `seen_step`, before a step of which it gives a variable.
CheckedFinish with_seen(const CheckedFinish& checked, std::string_view step, const SeenVariable& variable);

}  // namespace lacquer
