// The font of the pictures that the command line writes.
#pragma once

#include <span>

namespace lacquer::cli {

/// The bytes of B612 Regular, an OpenType file.
std::span<const unsigned char> font_file();

}  // namespace lacquer::cli
