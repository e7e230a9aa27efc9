// The file's words for kinds of dial.
#pragma once

#include <optional>
#include <string_view>

#include "core/finish/finish.h"

namespace lacquer {

/// "number", "integer", "switch" or "colour".
constexpr std::string_view dial_kind_name(DialKind kind) {
    switch (kind) {
        case DialKind::number:
            return "number";
        case DialKind::integer:
            return "integer";
        case DialKind::toggle:
            return "switch";
        case DialKind::colour:
            return "colour";
    }
    return "";
}

/// The kind of that name.
constexpr std::optional<DialKind> dial_kind_named(std::string_view name) {
    for (const DialKind kind : {DialKind::number, DialKind::integer, DialKind::toggle, DialKind::colour}) {
        if (dial_kind_name(kind) == name) return kind;
    }
    return std::nullopt;
}

}  // namespace lacquer
