// A curve between a dial and what uses it, by which each step of the dial changes as much of the picture.
#pragma once

#include <string>

#include "core/base/result.h"
#include "core/finish/finish.h"
#include "core/inspect/swept.h"

namespace lacquer {

/// The names under which the curve and the step that reads it are found again: `gone_pace` and `gone_even`.
struct EvenNames {
    std::string curve;
    std::string step;
};
EvenNames even_names(const std::string& dial);

/// Puts the inverse of a measured way between a dial and the steps that use it: a curve among the grounds, and a step
/// at the top that looks it up. If both are there already, the curve is changed. The way must go one way over the
/// sweep; from end to end of the dial's range. Faults: `edit.unknown`, `edit.name`, `edit.pace` if the names are taken
/// by something else.
Result<Finish> even_the_pace(const Finish& finish, const Sweep& sweep, const Way& way);

}  // namespace lacquer
