// The same step of the dial changes the same share of the picture everywhere along its range.
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/inspect/even_pace.h"
#include "core/inspect/measure.h"

namespace lacquer {

namespace {

constexpr double even_within = 0.01;

double share_of_range(const Swept& swept, double value) { return (value - swept.from()) / (swept.to() - swept.from()); }

void measure_pace(Swept& swept, Measured& measured) {
    if (!swept.is_smooth()) {
        measured.words = "it has whole values only";
        return;
    }
    const Way& way = swept.way();
    if (!way.ends_differ || way.points.size() < 2) {
        measured.words = "both ends of its range look the same";
        return;
    }
    MeasureCurve curve{"changed", {}};
    MeasureCurve even{"even", {{swept.from(), 0}, {swept.to(), 1}}};
    double worst = 0;
    for (const WayPoint& point : way.points) {
        curve.points.emplace_back(point.value, point.share);
        worst = std::max(worst, std::fabs(point.share - share_of_range(swept, point.value)));
    }
    measured.curves = {std::move(curve), std::move(even)};
    measured.numbers = {{"largest deviation", worst}};
    if (!way.is_one_way) {
        measured.words = "it goes to and fro over this range, so that there is no pace";
        return;
    }
    if (worst <= even_within) {
        measured.verdict = Verdict::passes;
        measured.words = "even within " + plain_number(worst * 100, 2) + " %";
        return;
    }
    measured.verdict = Verdict::falls_short;
    measured.words = "half of the picture goes between " + swept.words_of(way.value_at(0.25)) + " and " +
                     swept.words_of(way.value_at(0.75)) + "; up to " + plain_number(worst * 100, 1) + " % from even";
    // A curve over a part of the range would flatten the rest of it.
    const Sweep whole = whole_range(swept.dial());
    const bool is_whole = whole.from == swept.from() && whole.to == swept.to();
    if (swept.dial().kind == DialKind::number && is_whole) {
        measured.mends.push_back({"even the pace", [way, sweep = swept.sweep()](const Finish& finish) {
                                      return even_the_pace(finish, sweep, way);
                                  }});
    }
}

}  // namespace

Measure pace_measure() {
    return {"pace", "Pace", "each step of the dial changes as much of the picture", measure_pace};
}

}  // namespace lacquer
