// The stops of gradients and curves as text, so that they can be typed and copied anywhere.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/base/result.h"
#include "core/finish/finish.h"

namespace lacquer {

/// "0 #101820 opacity 0, 1 #FFCC88 x 2" for a gradient, "0 0, 0.5 1, 1 0" for a curve.
std::string stops_text(StopValues values, const std::vector<Stop>& stops);

/// Reads what `stops_text` writes, for a gradient or a curve. Fault `finish.stops` with the words at fault.
Result<std::vector<Stop>> parse_stops(StopValues values, std::string_view text);

}  // namespace lacquer
