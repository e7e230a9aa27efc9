// From a pass to single-assignment instructions on single values.
#pragma once

#include "core/cpu/ir.h"
#include "core/plan/plan.h"

namespace lacquer {

/// Whether short loops are written out turn by turn, and branches that may be skipped are marked. The result's bits are
/// the same.
enum class Unrolling { yes, no };

/// The pass as instructions, as they come; `optimised` makes them few. Names that are neither steps nor stored nor
/// grounds are uniforms.
Ir lower(const Pass& pass, Unrolling unrolling = Unrolling::yes);

}  // namespace lacquer
