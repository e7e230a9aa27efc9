#include "core/droplets/drop_field.h"

#include <algorithm>
#include <cmath>
#include <unordered_map>

#include "core/base/hash.h"

namespace lacquer {

namespace {

double random(std::uint32_t seed, std::uint32_t index, std::uint32_t channel) {
    return static_cast<double>(unit_from_hash(pcg3d({seed, index, channel})[0]));
}

// Points by the square of a coarse grid in which they lie.
class Squares {
public:
    explicit Squares(double side) : side_(side) {}
    void add(Vector2 point, std::size_t index) { squares_[key(cell(point.x), cell(point.y))].push_back(index); }
    /// Calls `look` with the lists of all squares that touch the rectangle, until it says no.
    template <class Look>
    void around(Vector2 least, Vector2 most, Look look) {
        for (std::int64_t y = cell(least.y); y <= cell(most.y); ++y) {
            for (std::int64_t x = cell(least.x); x <= cell(most.x); ++x) {
                const auto found = squares_.find(key(x, y));
                if (found != squares_.end() && !look(found->second)) return;
            }
        }
    }

private:
    std::int64_t cell(double value) const {
        constexpr double farthest = 1e6;
        return static_cast<std::int64_t>(std::floor(std::clamp(value / side_, -farthest, farthest)));
    }
    static std::uint64_t key(std::int64_t x, std::int64_t y) {
        return (static_cast<std::uint64_t>(x) << 32U) ^ (static_cast<std::uint64_t>(y) & 0xFFFFFFFFU);
    }
    double side_;
    std::unordered_map<std::uint64_t, std::vector<std::size_t>> squares_;
};

std::vector<Vector2> grid(int count, double aspect, bool jittered, std::uint32_t seed) {
    const int columns = std::clamp(static_cast<int>(std::lround(std::sqrt(count * aspect))), 1, count);
    const int rows = (count + columns - 1) / columns;
    std::vector<Vector2> places;
    for (int i = 0; i < columns * rows; ++i) {
        const auto index = static_cast<std::uint32_t>(i);
        const double across = jittered ? random(seed, index, 1) : 0.5;
        const double down = jittered ? random(seed, index, 2) : 0.5;
        const int row = i / columns;
        places.push_back({(i % columns + across) / columns, (row + down) / rows});
    }
    return places;
}

// Darts that come too near to one that hangs already fall off.
std::vector<Vector2> scattered(int count, double apart, double aspect, std::uint32_t seed) {
    const Vector2 frame{std::max(aspect, 1.0), std::max(1 / aspect, 1.0)};
    // Nothing is nearer than a thousandth in any case, so that a square holds few.
    const double distance = std::max(apart, 1e-3);
    Squares squares(distance);
    std::vector<Vector2> inside;
    std::vector<Vector2> places;
    constexpr int throws_each = 12;
    for (int thrown = 0; thrown < count * throws_each && static_cast<int>(places.size()) < count; ++thrown) {
        const auto index = static_cast<std::uint32_t>(thrown);
        const Vector2 share{random(seed, index, 3), random(seed, index, 4)};
        const Vector2 point{share.x * frame.x, share.y * frame.y};
        bool hangs = true;
        squares.around({point.x - distance, point.y - distance}, {point.x + distance, point.y + distance},
                       [&](const std::vector<std::size_t>& near) {
                           hangs = std::none_of(near.begin(), near.end(), [&](std::size_t i) {
                               return std::hypot(inside[i].x - point.x, inside[i].y - point.y) < apart;
                           });
                           return hangs;
                       });
        if (!hangs) continue;
        squares.add(point, inside.size());
        inside.push_back(point);
        places.push_back(share);
    }
    return places;
}

}  // namespace

double squared_distance(Vector2 point, Vector2 from, Vector2 to) {
    const Vector2 along{to.x - from.x, to.y - from.y};
    const double length = along.x * along.x + along.y * along.y;
    const double dot = (point.x - from.x) * along.x + (point.y - from.y) * along.y;
    const double share = length > 0 ? std::clamp(dot / length, 0.0, 1.0) : 0;
    const double dx = point.x - from.x - along.x * share;
    const double dy = point.y - from.y - along.y * share;
    return dx * dx + dy * dy;
}

std::vector<Vector2> drop_field(DropField field, int count, double apart, double aspect, std::uint32_t seed) {
    if (field == DropField::none || count < 1) return {};
    const int held = std::min(count, most_drops);
    if (field == DropField::random) return scattered(held, apart, aspect, seed);
    return grid(held, aspect, field == DropField::jittered, seed);
}

std::vector<std::size_t> first_reached(const std::vector<Vector2>& places, const std::vector<double>& reaches,
                                       const std::vector<Vector2>& path) {
    std::vector<std::size_t> first(places.size(), path.size());
    if (places.empty() || path.empty()) return first;
    const double farthest = *std::max_element(reaches.begin(), reaches.end());
    Squares squares(std::max(farthest, 0.02));
    for (std::size_t i = 0; i < places.size(); ++i) squares.add(places[i], i);
    for (std::size_t k = 0; k < path.size(); ++k) {
        const Vector2 from = path[k == 0 ? 0 : k - 1];
        const Vector2 to = path[k];
        squares.around({std::min(from.x, to.x) - farthest, std::min(from.y, to.y) - farthest},
                       {std::max(from.x, to.x) + farthest, std::max(from.y, to.y) + farthest},
                       [&](std::vector<std::size_t>& near) {
                           std::erase_if(near, [&](std::size_t i) {
                               if (squared_distance(places[i], from, to) > reaches[i] * reaches[i]) return false;
                               first[i] = k;
                               return true;
                           });
                           return true;
                       });
    }
    return first;
}

}  // namespace lacquer
