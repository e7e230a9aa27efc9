// A finish as one HTML file that needs nothing else.
#pragma once

#include <string>

#include "core/base/cancel.h"
#include "core/ship/material.h"

namespace lacquer {

/// The moment at which a page's grounds stand that move, in seconds: 0, or, with droplets, where most of the effect is
/// seen.
double page_moment(const ShipMaterial& material);

/// The page: the effect on its grounds, with its dials, cues, signals and tape; no request leaves it. What moves among
/// grounds stands still as at `page_moment`, but for droplets, which come along, smaller, as they are over the tape.
/// Faults: those of reading grounds, `ship.formula`.
Result<std::string> page_of(const ShipMaterial& material, const Cancel& cancel);

}  // namespace lacquer
