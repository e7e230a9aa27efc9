// A dial's value as the user reads and types it.
#pragma once

#include <QString>
#include <optional>

#include "core/finish/finish.h"

namespace lacquer {

/// "14 px", "0.45", "on", "#D9472B x 1.3".
QString dial_value_text(const Dial& dial, const DialValue& value);

/// What was typed, as a value of the dial's kind; a unit after the number is allowed.
std::optional<DialValue> dial_value_from(const Dial& dial, const QString& typed);

/// Where on its track the value stands, 0 to 1; a colour by its brightness.
double dial_share(const Dial& dial, const DialValue& value);

/// The value at a place on the track, in whole increments; a colour keeps its hue.
DialValue dial_value_at(const Dial& dial, const DialValue& from, double share, bool coarse);

/// The value some increments on.
DialValue dial_value_stepped(const Dial& dial, const DialValue& from, double increments);

}  // namespace lacquer
