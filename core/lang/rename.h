// Changing a name in the text of a formula, leaving every other character as it is.
#pragma once

#include <string>
#include <string_view>

namespace lacquer {

/// `formula` with every use of the name `from` (as a whole word, not as the parts after a point) turned into `to`. A
/// text that is no formula comes back unchanged.
std::string rename_in_formula(std::string_view formula, std::string_view from, std::string_view to);

}  // namespace lacquer
