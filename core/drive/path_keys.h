// Keys of a path: values at times, and how steeply it goes through them.
#pragma once

#include <cstddef>
#include <string_view>
#include <vector>

#include "core/drive/played.h"

namespace lacquer {

/// How steep a path is on one side of a key: worked out so that it never swings beyond its keys; level; straight to the
/// next key; as set by hand; or not at all: it stays and jumps at the next key.
enum class SlopeKind { smooth, level, straight, by_hand, stay };

struct Slope {
    SlopeKind kind = SlopeKind::smooth;
    double by_hand = 0;  ///< units a second
    friend bool operator==(const Slope&, const Slope&) = default;
};

/// A value at a time (seconds), with the slopes before and after it. `stay` counts only after a key.
struct PathKey {
    double at = 0;
    double value = 0;
    Slope before = {};
    Slope after = {};
    friend bool operator==(const PathKey&, const PathKey&) = default;
};

/// Keys in the order of their times.
using PathKeys = std::vector<PathKey>;

/// The path's value at a time: cubic Hermite pieces between keys; before the first and after the last it stays. Smooth
/// slopes are those of F. N. Fritsch and J. Butland, "A method for constructing local monotone piecewise cubic
/// interpolants", SIAM J. Sci. Stat. Comput. 5(2), 1984 (the weighted harmonic mean), from memory; level at the ends.
double path_value(const PathKeys& keys, double time);

/// The slope that `path_value` uses before or after a key, units a second.
double path_slope(const PathKeys& keys, std::size_t key, bool after);

/// The keys as the texts of play/ know them, with their slopes worked out.
std::vector<played::lq_key> played_keys(const PathKeys& keys);

/// Puts the keys in order of time; of several at one time, all stay, and the path jumps there.
void sort_keys(PathKeys& keys);

/// "smooth", "level", "straight", "by_hand", "stay".
std::string_view slope_kind_name(SlopeKind kind);

}  // namespace lacquer
