// What a hand can do to the window, drawn by lot from a seed, as lines of text that can be done again.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace lacquer::test {

enum class Kind {
    key,     ///< a key of the list, with modifiers
    text,    ///< words of the list, typed
    action,  ///< one of the table of actions
    click,   ///< at a place of the window
    twice,   ///< clicked twice
    menu,    ///< clicked with the other button
    drag,    ///< from one place to another
    wheel,   ///< turned at a place
    size,    ///< of the window
    time,    ///< passes
    file,    ///< something on disk changes
    drop,    ///< a file is dropped
    answer,  ///< what questions are answered with from here on
    rest,    ///< until all is drawn
    escape   ///< whatever is open closes
};

/// Numbers are 0..999 and mean a place, or which of a list.
struct Act {
    Kind kind = Kind::key;
    int a = 0;
    int b = 0;
    int c = 0;
    int d = 0;
    friend bool operator==(const Act&, const Act&) = default;
};

/// `count` acts; the same ones for the same seed.
std::vector<Act> acts_of(std::uint64_t seed, std::size_t count);

std::string to_line(const Act& act);
/// Nothing for a line that is none.
std::optional<Act> act_of(const std::string& line);

}  // namespace lacquer::test
