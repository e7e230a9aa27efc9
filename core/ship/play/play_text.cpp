#include "core/ship/play/play_text.h"

#include <algorithm>
#include <array>

namespace lacquer {

std::vector<PlayText> play_texts_for(std::span<const std::string> kinds) {
    // Each needs some of those before it; a few lines too many hurt nobody.
    static constexpr std::array<std::string_view, 6> always = {"machine", "basics", "easing",
                                                               "track",   "noise",  "formulas"};
    static constexpr std::array<std::string_view, 9> of_kinds = {"chase", "clock",  "drift", "gate", "jolt",
                                                                 "path",  "strike", "sweep", "wave"};
    std::vector<PlayText> texts;
    const auto add = [&](std::string_view name) {
        const auto found = std::find_if(play_texts().begin(), play_texts().end(),
                                        [&](const PlayText& text) { return text.name == name; });
        if (found != play_texts().end()) texts.push_back(*found);
    };
    for (const std::string_view name : always) add(name);
    for (const std::string_view name : of_kinds) {
        if (std::find(kinds.begin(), kinds.end(), name) != kinds.end()) add(name);
    }
    return texts;
}

}  // namespace lacquer
