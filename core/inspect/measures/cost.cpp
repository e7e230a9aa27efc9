// How long a frame takes along the sweep.
#include <algorithm>

#include "core/base/text.h"
#include "core/inspect/measure.h"

namespace lacquer {

namespace {

void measure_cost(Swept& swept, Measured& measured) {
    constexpr int parts = 4;
    MeasureCurve curve{"ms a frame", {}};
    for (int i = 0; i <= parts; ++i) {
        const double value = swept.value_at(static_cast<double>(i) / parts);
        const auto taken = swept.milliseconds_at(value);
        if (!taken) return;
        curve.points.emplace_back(value, *taken);
    }
    const auto [least, most] = std::minmax_element(curve.points.begin(), curve.points.end(),
                                                   [](const auto& a, const auto& b) { return a.second < b.second; });
    measured.numbers = {{"least", least->second}, {"most", most->second}, {"at", most->first}};
    measured.words = plain_number(least->second, 1) + " to " + plain_number(most->second, 1) +
                     " ms a frame on this machine, most at " + swept.words_of(most->first);
    measured.curves = {std::move(curve)};
}

}  // namespace

Measure cost_measure() { return {"cost", "Cost", "how long a frame takes along the sweep", measure_cost}; }

}  // namespace lacquer
