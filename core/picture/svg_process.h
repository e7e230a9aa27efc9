// What lacquer-svg and whoever asks it for a drawing say to one another: the SVG's text goes in, and a `SvgAnswer`
// comes out, followed by pixels or by a text.
#pragma once

#include <cstdint>

namespace lacquer {

/// File name of the program; it lies beside the module of picture files, or beside the program that asks.
inline constexpr const char* svg_program = "lacquer-svg";

/// Longest that a drawing may take, in seconds.
inline constexpr unsigned svg_patience_seconds = 20;

struct SvgAnswer {
    enum Kind : std::uint32_t { drawn = 0x6C717631, unreadable, too_large };
    Kind kind = unreadable;
    std::int32_t width = 0;  ///< pixels, each 8 bits of blue, green, red and opacity, which is multiplied in
    std::int32_t height = 0;
    std::uint32_t text = 0;  ///< bytes of a text that says what is wrong
};

}  // namespace lacquer
