// What responses do, as it is shipped: the C99 texts of play/, compiled here as they are.
#pragma once

// The texts use the names of C.
#include <math.h>
#include <stdint.h>
#include <string.h>

namespace lacquer::played {

// clang-format off
#include "core/drive/play/basics.h"
#include "core/drive/play/machine.h"
#include "core/drive/play/easing.h"
#include "core/drive/play/track.h"
#include "core/drive/play/chase.h"
#include "core/drive/play/clock.h"
#include "core/drive/play/drift.h"
#include "core/drive/play/gate.h"
#include "core/drive/play/jolt.h"
#include "core/drive/play/path.h"
#include "core/drive/play/strike.h"
#include "core/drive/play/sweep.h"
#include "core/drive/play/wave.h"
#include "core/drive/play/noise.h"
#include "core/drive/play/formulas.h"
// clang-format on

}  // namespace lacquer::played
