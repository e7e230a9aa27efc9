// Gradients and curves to begin with.
#pragma once

#include <string_view>
#include <vector>

#include "core/finish/grounds/stops.h"

namespace lacquer {

/// Stops under a name.
struct StopPreset {
    std::string_view name;
    Stops stops;
};

/// Those with colours or with heights, in the order in which they are offered.
const std::vector<StopPreset>& stop_presets(StopValues values);

/// The preset of that name; null if there is none.
const StopPreset* find_stop_preset(StopValues values, std::string_view name);

}  // namespace lacquer
