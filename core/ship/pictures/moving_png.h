// Frames as one PNG that moves. Source of the format: W3C PNG, third edition, section 11.3.6 (acTL, fcTL, fdAT).
#pragma once

#include <string>

#include "core/base/result.h"
#include "core/ship/pictures/drawn_frames.h"

namespace lacquer {

/// The file's bytes; it repeats for ever. Faults: `picture.unwritable`.
Result<std::string> moving_png(const DrawnFrames& frames);

}  // namespace lacquer
