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

}  // namespace

Picture table_of(std::vector<Stop> stops, StopMix mix, const StopEasing& eased) {
    if (stops.empty()) stops.emplace_back();
    std::stable_sort(stops.begin(), stops.end(), [](const Stop& a, const Stop& b) { return a.at < b.at; });
    Picture table(table_width, 1, 4);
    for (int x = 0; x < table_width; ++x) {
        const double t = static_cast<double>(x) / (table_width - 1);
        const auto after = std::find_if(stops.begin(), stops.end(), [&](const Stop& stop) { return stop.at > t; });
        const Stop& low = after == stops.begin() ? stops.front() : *(after - 1);
        const Stop& high = after == stops.end() ? stops.back() : *after;
        const double share = high.at > low.at ? std::clamp((t - low.at) / (high.at - low.at), 0.0, 1.0) : 0.0;
        const std::array<double, 4> value = between(low, high, spread(low, share, mix, eased), mix);
        std::transform(value.begin(), value.end(), table.at(x, 0), [](double v) { return static_cast<float>(v); });
    }
    return table;
}

}  // namespace lacquer
