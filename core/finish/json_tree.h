// Reading JSON from a source that is not to be trusted.
#pragma once

#include <string>
#include <string_view>

#include "core/base/result.h"
#include "core/finish/json.h"

namespace lacquer {

/// Deepest nesting of lists and objects that is read.
inline constexpr std::size_t max_json_depth = 32;
/// Most keys in one object.
inline constexpr std::size_t max_json_keys = 1024;

/// Most values of all kinds in one text.
inline constexpr std::size_t max_json_values = 8'000'000;

/// The values of a JSON text, keys in their order. Faults, with line and column: `file.json`, `file.depth`.
Result<Json> json_from_text(std::string_view text, const std::string& where);

}  // namespace lacquer
