// A test picture of straight lines: whatever warps shows at once.
#pragma once

#include "core/picture/picture.h"

namespace lacquer {

/// White squares with dark lines between them, about 24 on the longer side, the middle lines red and the diagonals
/// grey; four channels, opaque.
Picture line_grid(int width, int height);

}  // namespace lacquer
