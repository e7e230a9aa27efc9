// Taking code apart that goes by GLSL's rules.
#pragma once

#include <string>
#include <string_view>

#include "core/base/result.h"
#include "core/finish/step_edits.h"

namespace lacquer {

/// A step of a variable that a step's code declares with a value, in main or outside of all functions: the code up to
/// there, giving back the variable. It stands before the step, whose code takes its value from there on. `place` is
/// anywhere in the declaration, or in the variable's name where it is used later. Faults: `edit.unknown`,
/// `edit.extract`.
Result<StepEdit> extract_variable(Finish finish, std::string_view step, Span place);

}  // namespace lacquer
