// The picture that a gradient or curve is looked up in.
#pragma once

#include <string>
#include <vector>

#include "core/finish/grounds/stops.h"

namespace lacquer {

/// How a stop can lead to the next: the named easings (W3C CSS Easing Functions Level 1), and "stay".
const std::vector<std::string>& stop_easings();

/// The one with which a stop stays until the next.
inline constexpr std::string_view stay_easing = "stay";

/// The easing as it is called now; earlier files call "stay" "hold".
inline std::string_view stop_easing_named(std::string_view name) { return name == "hold" ? stay_easing : name; }

/// The table that stops are looked up in; see `table_of`. Where a stop has an easing of its own, the way to the next
/// stop is spread by it.
Picture stops_table(const Stops& stops);

}  // namespace lacquer
