// How much of the picture a dial changes over its range.
#include <algorithm>

#include "core/inspect/formula_parts.h"
#include "core/inspect/measure.h"
#include "core/inspect/picture_changes.h"

namespace lacquer {

namespace {

constexpr double least_share = 0.001;

void measure_seen(Swept& swept, Measured& measured) {
    const DrawnStep* start = swept.at(swept.value_at(0));
    if (start == nullptr) return;
    constexpr int parts = 8;
    MeasureCurve curve{"pixels changed", {}};
    double most = 0;
    for (int i = 0; i <= parts; ++i) {
        const double value = swept.value_at(static_cast<double>(i) / parts);
        const DrawnStep* now = swept.at(value);
        if (now == nullptr) return;
        const auto apart = difference(now->picture, start->picture);
        if (!apart) return;
        const double share = static_cast<double>(apart->seen) / start->picture.width / start->picture.height;
        curve.points.emplace_back(value, share);
        most = std::max(most, share);
    }
    measured.curves = {std::move(curve)};
    measured.numbers = {{"share", most}};
    measured.verdict = most >= least_share ? Verdict::passes : Verdict::falls_short;
    measured.words = most >= least_share ? "over its range it changes " + percent(most) + " of the pixels"
                     : most > 0          ? "it changes hardly a pixel at this moment"
                                         : "it changes nothing at this moment";
}

}  // namespace

Measure seen_measure() { return {"seen", "Seen", "the dial does something that can be seen", measure_seen}; }

}  // namespace lacquer
