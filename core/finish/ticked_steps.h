// Steps that go on from tick to tick, as far as checking a finish goes.
#pragma once

#include <vector>

#include "core/finish/checked.h"

namespace lacquer {

/// Makes known to `scope` what the step was in the last tick, if it is said how many numbers it has; else why that
/// isn't known before the step itself is.
void add_past(const Step& step, Scope& scope);

/// The step's value, of as many numbers as are said. Fault `finish.past` if it doesn't fit them.
Result<Typed> as_declared(Typed typed, const Step& step);

/// What a step of this type was before the first tick, as the last of the steps that have to be stored for it. Faults:
/// those of the language.
Result<std::vector<UnnamedStep>> start_of(const Step& step, const Scope& scope, Type type);

/// All steps that `previous` names, and all that use it, from the top.
std::vector<TickedStep> ticked_steps(const CheckedFinish& checked);

}  // namespace lacquer
