// One line of the furthest values over discs, whole vectors at a time; compiled once for each instruction set, all of
// which give the same bits.
#pragma once

#include <cstddef>
#include <span>

#include "core/cpu/line_tap.h"

namespace lacquer {

/// Which of two values is the further one.
enum class Further { greatest, least };

/// Numbers at a distance across and down, mixed of those of two lines.
struct DiscTap {
    LineTap upper;
    LineTap lower;    ///< not looked at where its share is 0
    float share = 0;  ///< of the lower one
};

/// A row of a disc, made up of two runs of pixels, which may lie upon each other.
struct DiscRow {
    DiscTap left;
    DiscTap right;
};

/// Stores the furthest of what the taps of all rows, at least one, read, `from` up to `end` of a line.
void furthest_line(std::span<const DiscRow> rows, Further further, std::size_t from, std::size_t end, float* to);

}  // namespace lacquer
