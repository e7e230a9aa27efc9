// The texts of core/drive/play, as they are shipped.
#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace lacquer {

/// A text: the name of its file without ending, and all that is in it.
struct PlayText {
    std::string_view name;
    std::string_view c99;
    std::string_view script;  ///< in place of what `javascript_of` would make; mostly empty
};

/// All of them.
std::span<const PlayText> play_texts();

/// Those of the names in `kinds` (strike, wave and so on) and of what they need, in an order in which they can be read.
std::vector<PlayText> play_texts_for(std::span<const std::string> kinds);

}  // namespace lacquer
