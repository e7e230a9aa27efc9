// What all dials and responses are worth at a moment.
#pragma once

#include <map>
#include <string>

#include "core/finish/checked.h"
#include "core/lang/value.h"

namespace lacquer {

/// Dials that are held by hand, against their formula.
using HeldDials = std::map<std::string, DialValue, std::less<>>;

/// Values by name: every dial, every response and `response.presence`.
using DriveValues = std::map<std::string, Value, std::less<>>;

/// Evaluates all dials and responses. A held dial has its held value, a driven one that of its formula, any other its
/// working value.
DriveValues drive_values(const CheckedFinish& checked, const Moment& moment, const HeldDials& held = {});

/// A dial's setting as a value of the language.
Value dial_value(DialKind kind, const DialValue& setting);

/// The other way round, for display: up to three numbers.
DialValue setting_from(const Value& value);

}  // namespace lacquer
