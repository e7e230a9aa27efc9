// From a pass's typed trees to instructions on single values.
#pragma once

#include "core/cpu/ir.h"
#include "core/plan/plan.h"

namespace lacquer {

/// The program of a pass, nothing optimised. Truths and whole numbers are handed out as numbers. Uniforms are named by
/// dial, response or known name; pictures by ground or stored step.
Ir lower(const Pass& pass);

}  // namespace lacquer
