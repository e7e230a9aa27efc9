// A place where a step of the dial, however small, changes much of the picture.
#include <cmath>

#include "core/base/text.h"
#include "core/inspect/measure.h"
#include "core/inspect/picture_changes.h"

namespace lacquer {

namespace {

constexpr double jump_worth_telling = 0.02;
constexpr int jump_halvings = 12;

// How much of the picture's brightness and opacity is another: the mean over all pixels, each at most 1.
double change_between(const DrawnStep& a, const DrawnStep& b) {
    double sum = 0;
    for (int y = 0; y < a.picture.height; ++y) {
        for (int x = 0; x < a.picture.width; ++x) {
            const float apart =
                pixel_difference(a.picture.at(x, y), a.picture.channels, b.picture.at(x, y), b.picture.channels);
            sum += static_cast<double>(std::min(apart, 1.0F));
        }
    }
    return sum / a.picture.width / a.picture.height;
}

void measure_jump(Swept& swept, Measured& measured) {
    if (!swept.is_smooth()) {
        measured.words = "it has whole values only";
        return;
    }
    constexpr int parts = 32;
    MeasureCurve curve{"change by a thirty-second of the range", {}};
    double low = swept.from();
    double high = swept.to();
    double most = -1;
    for (int i = 0; i < parts; ++i) {
        const double from = swept.value_at(static_cast<double>(i) / parts);
        const double to = swept.value_at((i + 1.0) / parts);
        const DrawnStep* before = swept.at(from);
        const DrawnStep* after = swept.at(to);
        if (before == nullptr || after == nullptr) return;
        const double change = change_between(*before, *after);
        curve.points.emplace_back((from + to) / 2, change);
        if (change <= most) continue;
        most = change;
        low = from;
        high = to;
    }
    measured.curves = {std::move(curve)};
    for (int i = 0; i < jump_halvings && most > jump_worth_telling; ++i) {
        const double middle = (low + high) / 2;
        const DrawnStep* before = swept.at(low);
        const DrawnStep* between = swept.at(middle);
        const DrawnStep* after = swept.at(high);
        if (before == nullptr || between == nullptr || after == nullptr) return;
        const double first = change_between(*before, *between);
        const double second = change_between(*between, *after);
        (first > second ? high : low) = middle;
        most = std::max(first, second);
    }
    measured.numbers = {{"largest", most}, {"at", high}};
    if (most > jump_worth_telling) {
        measured.verdict = Verdict::falls_short;
        measured.words = "at " + swept.words_of(high) + " it jumps: by " + plain_number(most * 100, 1) +
                         " % of the picture within a " + std::to_string(parts << jump_halvings) + "th of the range";
        return;
    }
    measured.verdict = Verdict::passes;
    measured.words = "a small step changes little everywhere";
}

}  // namespace

Measure jump_measure() { return {"jump", "Jump", "a small step of the dial changes little", measure_jump}; }

}  // namespace lacquer
