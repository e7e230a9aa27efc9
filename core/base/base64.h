// Bytes as text. Source: RFC 4648, section 4.
#pragma once

#include <string>

namespace lacquer {

/// The bytes in letters, digits, + and /, filled up with = to fours.
std::string base64(const std::string& bytes);

}  // namespace lacquer
