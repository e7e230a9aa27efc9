#include "core/picture/table.h"

#include <algorithm>
#include <cmath>

#include "core/picture/transfer.h"

namespace lacquer {

namespace {

using Rgb = std::array<double, 3>;
using Matrix = std::array<Rgb, 3>;

// The published matrices, and their inverses from the same place.
constexpr Matrix to_lms = {{{0.4122214708, 0.5363325363, 0.0514459929},
                            {0.2119034982, 0.6806995451, 0.1073969566},
                            {0.0883024619, 0.2817188376, 0.6299787005}}};
constexpr Matrix to_lab = {{{0.2104542553, 0.7936177850, -0.0040720468},
                            {1.9779984951, -2.4285922050, 0.4505937099},
                            {0.0259040371, 0.7827717662, -0.8086757660}}};
constexpr Matrix from_lab = {
    {{1, 0.3963377774, 0.2158037573}, {1, -0.1055613458, -0.0638541728}, {1, -0.0894841775, -1.2914855480}}};
constexpr Matrix from_lms = {{{4.0767416621, -3.3077115913, 0.2309699292},
                              {-1.2684380046, 2.6097574011, -0.3413193965},
                              {-0.0041960863, -0.7034186147, 1.7076147010}}};

Rgb times(const Matrix& m, const Rgb& v) {
    Rgb made{};
    for (std::size_t i = 0; i < 3; ++i) made[i] = m[i][0] * v[0] + m[i][1] * v[1] + m[i][2] * v[2];
    return made;
}

Rgb through(StopMix mix, Rgb colour) {
    if (mix == StopMix::display) {
        for (double& part : colour) part = srgb_encode(part);
    } else if (mix == StopMix::oklab) {
        colour = times(to_lms, colour);
        for (double& part : colour) part = std::cbrt(part);
        colour = times(to_lab, colour);
    }
    return colour;
}

Rgb back(StopMix mix, Rgb colour) {
    if (mix == StopMix::display) {
        for (double& part : colour) part = srgb_decode(part);
    } else if (mix == StopMix::oklab) {
        colour = times(from_lab, colour);
        for (double& part : colour) part = part * part * part;
        colour = times(from_lms, colour);
    }
    return colour;
}

double spread(const Stop& from, double share, StopMix mix, const StopEasing& eased) {
    if (!from.easing.empty() && eased) return eased(from.easing, share);
    if (mix == StopMix::hold) return share < 1 ? 0 : 1;
    return mix == StopMix::smooth ? share * share * (3 - 2 * share) : share;
}

std::array<double, 4> between(const Stop& low, const Stop& high, double share, StopMix mix) {
    std::array<double, 4> made{};
    for (std::size_t c = 0; c < 4; ++c) made[c] = low.value[c] * (1 - share) + high.value[c] * share;
    // At a stop it is that stop's value, to the last bit.
    if ((mix != StopMix::display && mix != StopMix::oklab) || share <= 0 || share >= 1) return made;
    const Rgb a = through(mix, {low.value[0], low.value[1], low.value[2]});
    const Rgb b = through(mix, {high.value[0], high.value[1], high.value[2]});
    Rgb mixed{};
    for (std::size_t c = 0; c < 3; ++c) mixed[c] = a[c] * (1 - share) + b[c] * share;
    mixed = back(mix, mixed);
    std::copy(mixed.begin(), mixed.end(), made.begin());
    return made;
}

// A way whose ends are further off than this jumps there.
constexpr double largest_slip = 1e-3;
// The share of a way shortly before its end.
constexpr double nearly_all = 1 - 1e-9;

// From the left a stop is reached, not left: a way that jumps at its end has not jumped yet.
enum class Side { left, right };

class Way {
public:
    Way(StopMix mix, const StopEasing& eased) : mix_(mix), eased_(eased) {}

    double at_start(const Stop& stop) const { return spread(stop, 0, mix_, eased_); }
    double at_end(const Stop& stop) const {
        const double share = spread(stop, nearly_all, mix_, eased_);
        return share > 1 - largest_slip && share < 1 + largest_slip ? 1 : share;
    }

    // In order of their places. Where there is an edge, the place is one between two cells.
    std::vector<Stop> with_edges_between_cells(std::vector<Stop> stops) const {
        std::vector<bool> edge(stops.size(), false);
        for (std::size_t i = 0; i + 1 < stops.size(); ++i) {
            const bool same = stops[i].at == stops[i + 1].at;
            if (same || std::fabs(at_start(stops[i])) > largest_slip) edge[i] = true;
            if (same || at_end(stops[i]) != 1) edge[i + 1] = true;
        }
        for (std::size_t i = 0; i < stops.size(); ++i) {
            if (edge[i]) stops[i].at = std::round(stops[i].at * table_cells) / table_cells;
        }
        return stops;
    }

    std::array<double, 4> value(const std::vector<Stop>& stops, double t, Side side) const {
        const auto after = std::find_if(stops.begin(), stops.end(), [&](const Stop& stop) {
            return side == Side::left ? stop.at >= t : stop.at > t;
        });
        if (after == stops.begin()) return stops.front().value;
        const Stop& low = *(after - 1);
        if (after == stops.end()) return low.value;
        const double share = std::clamp((t - low.at) / (after->at - low.at), 0.0, 1.0);
        return between(low, *after, share < 1 ? spread(low, share, mix_, eased_) : at_end(low), mix_);
    }

private:
    StopMix mix_;
    const StopEasing& eased_;
};

}  // namespace

Picture table_of(std::vector<Stop> stops, StopMix mix, const StopEasing& eased) {
    if (stops.empty()) stops.emplace_back();
    std::stable_sort(stops.begin(), stops.end(), [](const Stop& a, const Stop& b) { return a.at < b.at; });
    const Way way(mix, eased);
    stops = way.with_edges_between_cells(std::move(stops));
    Picture table(table_width, 1, 4);
    const auto put = [&](int x, const std::array<double, 4>& value) {
        std::transform(value.begin(), value.end(), table.at(x, 0), [](double v) { return static_cast<float>(v); });
    };
    const auto place = [](int cell) { return static_cast<double>(cell) / table_cells; };
    for (int cell = 0; cell < table_cells; ++cell) {
        put(2 * cell, way.value(stops, place(cell), Side::right));
        put(2 * cell + 1, way.value(stops, place(cell + 1), Side::left));
    }
    for (const int end : {table_width - 2, table_width - 1}) put(end, way.value(stops, 1, Side::right));
    return table;
}

std::array<double, 4> table_value(const Picture& table, double t) {
    const double along = std::clamp(t, 0.0, 1.0) * table_cells;
    const int cell = static_cast<int>(along);
    const double share = along - cell;
    std::array<double, 4> value{};
    for (std::size_t c = 0; c < 4; ++c) {
        value[c] = static_cast<double>(table.at(2 * cell, 0)[c]) * (1 - share) +
                   static_cast<double>(table.at(2 * cell + 1, 0)[c]) * share;
    }
    return value;
}

}  // namespace lacquer
