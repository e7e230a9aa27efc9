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

std::vector<played::lq_key> played_keys(const PathKeys& keys) {
    std::vector<played::lq_key> made;
    made.reserve(keys.size());
    for (std::size_t i = 0; i < keys.size(); ++i) {
        const bool stays = keys[i].after.kind == SlopeKind::stay;
        made.push_back(
            {keys[i].at, keys[i].value, path_slope(keys, i, false), path_slope(keys, i, true), stays ? 1 : 0});
    }
    return made;
}

double path_value(const PathKeys& keys, double time) {
    const std::vector<played::lq_key> made = played_keys(keys);
    return lq_keys_value(made.data(), static_cast<int>(made.size()), time);
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
