// Changes to how steps go on from tick to tick.
#pragma once

#include <string>
#include <string_view>

#include "core/base/result.h"
#include "core/finish/checked.h"

namespace lacquer {

/// A step's name as it is typed, with the count of its numbers where that is said: "smoke", "smoke: 1".
std::string header_text(const Step& step);

/// Takes such a header: renames the step, and says how many numbers it has, or leaves that to its formula. Faults:
/// those of `rename`, `edit.width`.
Result<Finish> set_header(Finish finish, std::string_view step, std::string_view typed);

/// The step's name in a header.
std::string name_in_header(std::string_view typed);

/// The finish with widths said of those steps that `step` asks for by `previous` and of which nobody has said it: the
/// fewest numbers with which there is no fault. As it was where there is none to say.
Finish declare_past(const CheckedFinish& checked, std::string_view step);

}  // namespace lacquer
