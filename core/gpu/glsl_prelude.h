// The helper functions that emitted shaders may need: what GLSL leaves open is settled here as in the rest of Lacquer.
#pragma once

#include <set>
#include <string>
#include <string_view>

namespace lacquer {

/// The definitions of these helpers and of those that they need, each once, in an order that GLSL can read. All names
/// begin with `lq_`.
std::string helper_definitions(const std::set<std::string, std::less<>>& names);

}  // namespace lacquer
