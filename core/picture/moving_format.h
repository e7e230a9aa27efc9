// What a file begins with: whether it is a PNG, and whether it moves.
#pragma once

#include <string>

namespace lacquer {

/// Whether a file begins as a PNG does.
bool is_png(const std::string& path);

/// "apng", "gif", or null. The chunk that tells of several pictures stands before the first that holds pixels (W3C PNG,
/// third edition).
const char* moving_format(const std::string& path);

}  // namespace lacquer
