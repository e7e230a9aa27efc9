// Words in pictures.
#pragma once

#include <string_view>

#include "core/base/result.h"
#include "core/picture/picture.h"

namespace lacquer::cli {

/// Writes `words` in B612, `size` pixels high, from the left end of their base line; what does not fit is cut off.
/// Letters outside ASCII are left out. Faults: `cli.font`.
Result<Done> write_words(Image8& image, std::string_view words, int x, int base_line, int size, std::uint8_t grey);

}  // namespace lacquer::cli
