// One line of a Gaussian, whole vectors at a time; compiled once for each instruction set, all of which give the same
// bits.
#pragma once

#include <cstddef>
#include <span>

#include "core/cpu/line_tap.h"

namespace lacquer {

/// Two places at the same distance, and how much they count.
struct LinePair {
    LineTap after;
    LineTap before;
    float weight = 0;
};

/// What a line is made of: the middle counts 1, all together `total`.
struct GaussianLine {
    const float* middle = nullptr;
    std::span<const LinePair> pairs;
    float total = 1;
};

/// Stores the weighted means of the numbers `from` up to `end` of a line, adding up pair by pair.
void weigh_line(const GaussianLine& line, std::size_t from, std::size_t end, float* to);

/// Stores the weighted sums of the numbers of lines that lie one after another, each `count` numbers long.
void mix_lines(const float* first, std::span<const float> weights, std::size_t count, float* to);

}  // namespace lacquer
