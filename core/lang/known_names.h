// What every step knows without being told: one table, which the checker, the evaluators, both back ends and help read.
#pragma once

#include <span>
#include <string_view>

#include "core/lang/type.h"

namespace lacquer {

enum class Known { uv, pixel, frame_size, pixel_size, aspect, time, tick, tick_length, tick_part };

/// Where a known name has one value: at a pixel, in a whole frame, or at a moment, whatever is drawn then.
enum class KnownDomain { pixel, frame, moment };

struct KnownName {
    Known id;
    std::string_view name;
    Type type;
    KnownDomain domain;
    std::string_view words;  ///< one line of help
};

/// All of them, in the order of the ids.
std::span<const KnownName> known_names();

/// The one of this name, or null.
const KnownName* find_known(std::string_view name);

}  // namespace lacquer
