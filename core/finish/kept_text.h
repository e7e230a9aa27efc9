// Texts of our own among the keys that a file keeps.
#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/base/kept_keys.h"

namespace lacquer {

/// Sets a key to a text.
void keep_text(KeptKeys& kept, std::string_view key, std::string_view text);
/// The text that a key holds; nothing if it holds none.
std::optional<std::string> kept_text(const KeptKeys& kept, std::string_view key);

}  // namespace lacquer
