// Gradients and curves to begin with.
#pragma once

#include <string_view>
#include <vector>

#include "core/finish/finish.h"

namespace lacquer {

/// Stops under a name, and the way from one to the next.
struct StopPreset {
    std::string_view name;
    StopMix between = StopMix::straight;
    std::vector<Stop> stops;
};

/// Those for a gradient or a curve, in the order in which they are offered; none for other kinds.
const std::vector<StopPreset>& stop_presets(GroundKind kind);

/// The preset of that name; null if there is none.
const StopPreset* find_stop_preset(GroundKind kind, std::string_view name);

}  // namespace lacquer
