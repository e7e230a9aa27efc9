// Taking code apart that goes by GLSL's rules.
#pragma once

#include <string>
#include <string_view>

#include "core/base/result.h"
#include "core/finish/step_edits.h"

namespace lacquer {

/// A step of a variable of a step's code, which stands before that step. One that is declared with a value in main or
/// outside of all functions: the code up to there, giving back the variable, and the step takes its value from there
/// on; `place` is anywhere in the declaration, or in the variable's name where it is used later. Any other, in loops,
/// branches and functions, or set by a statement: the variable as it is after the statement at `place`
/// (`seen_variable`), and the step stays as it is. Faults: `edit.unknown`, `edit.extract`.
Result<StepEdit> extract_variable(Finish finish, std::string_view step, Span place);

}  // namespace lacquer
