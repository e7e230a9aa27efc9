// A finish as one HTML file that needs nothing else.
#pragma once

#include <string>

#include "core/base/cancel.h"
#include "core/ship/material.h"

namespace lacquer {

/// The page: the effect on its grounds, with its dials, cues, signals and tape; no request leaves it. What moves among
/// grounds stands still as at 0 s, or, with droplets, where most of the effect is seen. Faults: those of reading
/// grounds, `ship.formula`.
Result<std::string> page_of(const ShipMaterial& material, const Cancel& cancel);

}  // namespace lacquer
