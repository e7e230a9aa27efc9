// The part of play's code that is a finish's own.
#pragma once

#include <string>

#include "core/base/result.h"
#include "core/ship/material.h"

namespace lacquer {

/// Its structs and functions, in C99 that `javascript_of` reads. Faults: `ship.formula`.
Result<std::string> play_text_of(const ShipMaterial& material);

}  // namespace lacquer
