// Names of the pictures that steps leave from tick to tick. No step can be called so: names have no points.
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace lacquer {

/// A step's picture after the last tick, which `previous` reads, after the present one, and before the first.
inline std::string past_picture(std::string_view step) { return std::string(step) + ".previous"; }
inline std::string present_picture(std::string_view step) { return std::string(step) + ".tick"; }
inline std::string start_picture(std::string_view step) { return std::string(step) + ".start"; }

/// The step whose picture after the last or the present tick goes by this name; nothing for other names.
inline std::optional<std::string_view> step_of_tick_picture(std::string_view name) {
    for (const std::string_view ending : {std::string_view(".previous"), std::string_view(".tick")}) {
        if (name.ends_with(ending)) return name.substr(0, name.size() - ending.size());
    }
    return std::nullopt;
}

}  // namespace lacquer
