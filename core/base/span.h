// A run of characters in a text, so that a fault can point at the very words it speaks of.
#pragma once

#include <cstdint>

namespace lacquer {

/// Half-open range of byte offsets [begin, end) in the text that was read.
struct Span {
    std::uint32_t begin = 0;
    std::uint32_t end = 0;

    friend bool operator==(const Span&, const Span&) = default;
};

/// The smallest span that covers both.
constexpr Span cover(Span a, Span b) { return {a.begin < b.begin ? a.begin : b.begin, a.end > b.end ? a.end : b.end}; }

}  // namespace lacquer
