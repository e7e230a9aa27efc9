// What drawing a set costs, counted.
#pragma once

#include <cstdint>

#include "core/ship/material.h"

namespace lacquer {

/// For one frame, or one tick.
struct SetCost {
    int passes = 0;
    double reads = 0;         ///< readings of pictures for each pixel of the frame, of all passes together
    double instructions = 0;  ///< the same, as counted on this processor
    std::int64_t bytes = 0;   ///< that passes store, at the finish's own frame
};

/// Of the passes that are drawn then.
SetCost set_cost(const ShipMaterial& material, PassMoment when);

}  // namespace lacquer
