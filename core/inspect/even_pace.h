// A curve between a dial and what uses it, by which each step of the dial changes as much of the picture.
#pragma once

#include <string>

#include "core/base/result.h"
#include "core/finish/finish.h"
#include "core/inspect/swept.h"

namespace lacquer {

/// Puts the inverse of a measured way between a dial and the steps that use it: a curve among the grounds, such as
/// `gone_pace`, and a step at the top that looks it up, `gone_even`. Where such a pair is there for the same range, its
/// curve is changed instead. The way must go one way over the sweep, from end to end of the dial's range. Faults:
/// `edit.pace` for a way that can't be evened.
Result<Finish> even_the_pace(const Finish& finish, const Sweep& sweep, const Way& way);

}  // namespace lacquer
