// Things in play that have a value all the time.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <string_view>

#include "core/base/kept_keys.h"

namespace lacquer {

/// A number within a range; a whole number; a switch; a place in the frame (0..1 from the top left, two numbers).
enum class SignalKind { number, integer, toggle, place };

/// A round area of the frame: a switch can be on while a place is within it. Its radius is in shorter sides.
struct Zone {
    std::string of = {};  ///< the signal whose place counts; empty for a switch without a zone
    double x = 0.5;
    double y = 0.5;
    double radius = 0.2;
    friend bool operator==(const Zone&, const Zone&) = default;
};

/// A signal: its name, its range and the value from which it starts.
struct Signal {
    std::string name = {};
    SignalKind kind = SignalKind::number;
    double least = 0;
    double most = 1;
    std::array<double, 3> value{};
    std::string unit = {};
    std::string note = {};
    Zone zone = {};
    KeptKeys extra = {};  ///< keys of the file that this version does not know

    friend bool operator==(const Signal&, const Signal&) = default;
};

/// "number", "integer", "switch" or "place".
constexpr std::string_view signal_kind_name(SignalKind kind) {
    switch (kind) {
        case SignalKind::number:
            return "number";
        case SignalKind::integer:
            return "integer";
        case SignalKind::toggle:
            return "switch";
        case SignalKind::place:
            return "place";
    }
    return "";
}

/// The kind of that name.
constexpr std::optional<SignalKind> signal_kind_named(std::string_view name) {
    for (const SignalKind kind : {SignalKind::number, SignalKind::integer, SignalKind::toggle, SignalKind::place}) {
        if (signal_kind_name(kind) == name) return kind;
    }
    return std::nullopt;
}

/// A value as the signal takes it: held to its range, whole for an integer, 0 or 1 for a switch, within the frame for a
/// place. What is no number becomes the least.
std::array<double, 3> signal_value(const Signal& signal, std::array<double, 3> value);

/// Whether the place (x, y) lies within the zone, in a frame of this aspect (width over height).
bool is_within(const Zone& zone, double x, double y, double aspect);

}  // namespace lacquer
