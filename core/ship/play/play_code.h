// What drives an effect, as code for a game.
#pragma once

#include <string>

#include "core/base/result.h"
#include "core/ship/material.h"

namespace lacquer {

/// Cues that wait for a response that lets them queue; more are dropped by shipped code.
inline constexpr int most_waiting = 16;

/// Plain functions without allocation or dependencies: NAME_init, NAME_cue_..., NAME_set_..., NAME_at.
struct PlayCode {
    std::string header;  ///< NAME_play.h, C99 and C++
    std::string module;  ///< NAME_play.js, an ES module
};

/// Both, from the same text. Faults: `ship.formula`.
Result<PlayCode> play_code(const ShipMaterial& material);

}  // namespace lacquer
