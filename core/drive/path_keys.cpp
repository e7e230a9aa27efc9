#include "core/drive/path_keys.h"

#include <algorithm>

namespace lacquer {

namespace {

double rise_between(const PathKey& a, const PathKey& b) { return (b.value - a.value) / (b.at - a.at); }

// Level where it turns round or where there is no other side.
double smooth_slope(const PathKeys& keys, std::size_t i) {
    if (i == 0 || i + 1 == keys.size()) return 0;
    const double before = keys[i].at - keys[i - 1].at;
    const double after = keys[i + 1].at - keys[i].at;
    if (!(before > 0) || !(after > 0)) return 0;
    const double a = rise_between(keys[i - 1], keys[i]);
    const double b = rise_between(keys[i], keys[i + 1]);
    if (!(a * b > 0)) return 0;
    const double wa = 2 * after + before;
    const double wb = after + 2 * before;
    return (wa + wb) / (wa / a + wb / b);
}

}  // namespace

double path_slope(const PathKeys& keys, std::size_t key, bool after) {
    const Slope& slope = after ? keys[key].after : keys[key].before;
    switch (slope.kind) {
        case SlopeKind::smooth:
            return smooth_slope(keys, key);
        case SlopeKind::by_hand:
            return slope.by_hand;
        case SlopeKind::straight: {
            const std::size_t other = after ? key + 1 : key - 1;
            if (other >= keys.size()) return 0;
            const PathKey& from = keys[std::min(key, other)];
            const PathKey& to = keys[std::max(key, other)];
            return to.at > from.at ? rise_between(from, to) : 0;
        }
        case SlopeKind::level:
        case SlopeKind::stay:
            break;
    }
    return 0;
}

double path_value(const PathKeys& keys, double time) {
    if (keys.empty()) return 0;
    const auto next =
        std::upper_bound(keys.begin(), keys.end(), time, [](double t, const PathKey& key) { return t < key.at; });
    if (next == keys.begin()) return keys.front().value;
    if (next == keys.end()) return keys.back().value;
    const auto i = static_cast<std::size_t>(next - keys.begin()) - 1;
    const PathKey& from = keys[i];
    const PathKey& to = keys[i + 1];
    if (from.after.kind == SlopeKind::stay) return from.value;
    const double span = to.at - from.at;
    const double t = (time - from.at) / span;
    const double a = path_slope(keys, i, true) * span;
    const double b = path_slope(keys, i + 1, false) * span;
    // The cubic Hermite basis.
    const double t2 = t * t;
    const double t3 = t2 * t;
    return (2 * t3 - 3 * t2 + 1) * from.value + (t3 - 2 * t2 + t) * a + (3 * t2 - 2 * t3) * to.value + (t3 - t2) * b;
}

void sort_keys(PathKeys& keys) {
    std::stable_sort(keys.begin(), keys.end(), [](const PathKey& a, const PathKey& b) { return a.at < b.at; });
}

std::string_view slope_kind_name(SlopeKind kind) {
    switch (kind) {
        case SlopeKind::smooth:
            return "smooth";
        case SlopeKind::level:
            return "level";
        case SlopeKind::straight:
            return "straight";
        case SlopeKind::by_hand:
            return "by_hand";
        case SlopeKind::stay:
            return "stay";
    }
    return "";
}

}  // namespace lacquer
