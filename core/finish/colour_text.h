// Colours with their brightness as text, so that they can be typed and copied anywhere.
#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/finish/finish.h"

namespace lacquer {

/// "#D9472B" for a colour within 0..1, "#D9472B x 2.4" for a brighter one: the display value (sRGB) of the colour over
/// its largest part, and that part. A colour with a negative part is three numbers in linear light.
std::string colour_text(const DialValue& colour);

/// Reads what `colour_text` writes ("x", "×" or "*" before the brightness), or three numbers in linear light.
std::optional<DialValue> parse_colour(std::string_view text);

}  // namespace lacquer
