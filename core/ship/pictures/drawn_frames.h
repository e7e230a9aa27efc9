// Frames of a tape for sheets and moving pictures.
#pragma once

#include <vector>

#include "core/base/cancel.h"
#include "core/picture/picture.h"
#include "core/ship/material.h"

namespace lacquer {

/// Frames as display values, one after another.
struct DrawnFrames {
    std::vector<Image8> images;
    double rate = 12;         ///< frames a second
    int loop_difference = 0;  ///< of the first frame and the one that would follow the last, in steps of 8 bits
};

/// The finish over its whole length, at its request's rate, with the longer side of so many pixels at most. Faults:
/// those of drawing; `ship.frames` for more than `most_shipped_frames`.
Result<DrawnFrames> drawn_frames(const ShipMaterial& material, int longest_side, const Cancel& cancel);

inline constexpr int most_shipped_frames = 600;

/// The finish at a moment, in its own frame. Faults: those of drawing.
Result<Image8> drawn_still(const ShipMaterial& material, double time, const Cancel& cancel);

}  // namespace lacquer
