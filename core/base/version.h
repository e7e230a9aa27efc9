// The version of this program.
#pragma once

#include <string_view>

namespace lacquer {

/// "0.1.0".
std::string_view program_version();

}  // namespace lacquer
