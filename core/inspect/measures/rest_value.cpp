// The value of a threshold up to which nothing is changed, and the one from which on all is: found by search, beyond
// the range, too.
#include <algorithm>
#include <cmath>
#include <functional>
#include <optional>

#include "core/base/text.h"
#include "core/inspect/measure.h"
#include "core/inspect/picture_changes.h"
#include "core/inspect/range_edits.h"

namespace lacquer {

namespace {

constexpr int rest_halvings = 14;
constexpr double near_enough = 0.01;  // of the range

using Holds = std::function<bool(double value)>;

// The last value, seen from `inside` outwards or inwards from `end`, at which it still holds.
std::optional<double> boundary(double end, double other, const Holds& holds) {
    double good = end;
    double bad = other;
    if (!holds(end)) {
        bad = end;
        bool found = false;
        for (const double share : {0.05, 0.1, 0.2, 0.4, 0.8, 1.6}) {
            good = end + (end - other) * share;
            found = holds(good);
            if (found) break;
            bad = good;
        }
        if (!found) return std::nullopt;
    }
    for (int i = 0; i < rest_halvings; ++i) {
        const double middle = (good + bad) / 2;
        (holds(middle) ? good : bad) = middle;
    }
    return good;
}

bool untouched(const std::optional<DrawnStep>& now, const DrawnStep& picture) {
    if (!now) return false;
    const auto apart = difference(now->picture, picture.picture);
    return apart && apart->seen == 0;
}

// Nothing of the picture is left: no opacity, or the same whatever the value does from there on.
bool all_gone(const std::optional<DrawnStep>& now, const DrawnStep& far) {
    if (!now) return false;
    if (now->picture.channels == 4 && share_opaque(*now) == 0) return true;
    const auto apart = difference(now->picture, far.picture);
    return apart && apart->seen == 0;
}

void measure_rest_value(Swept& swept, Measured& measured) {
    if (!swept.is_smooth() || swept.dial().kind == DialKind::colour) {
        measured.words = "it is no threshold";
        return;
    }
    const DrawnStep* picture = swept.whole_untouched();
    const DrawnStep* first = swept.at(swept.from());
    const DrawnStep* last = swept.at(swept.to());
    const DrawnStep* before = swept.untouched();
    if (picture == nullptr || first == nullptr || last == nullptr || before == nullptr) {
        measured.words = "there is no picture that could burn";
        return;
    }
    constexpr double little = 0.2;
    const double at_first = share_changed(*first, *before);
    const double at_last = share_changed(*last, *before);
    const double gone = 1 - std::min(share_opaque(*first), share_opaque(*last));
    if (std::min(at_first, at_last) > little || std::max({at_first, at_last, gone}) < 1 - little) {
        measured.words = "it doesn't go from nothing to all";
        return;
    }
    const bool rests_first = at_first <= at_last;
    const double rest_end = rests_first ? swept.from() : swept.to();
    const double burnt_end = rests_first ? swept.to() : swept.from();
    const auto rest =
        boundary(rest_end, burnt_end, [&](double value) { return untouched(swept.whole_once(value), *picture); });
    const std::optional<DrawnStep> far = swept.whole_once(burnt_end + (burnt_end - rest_end) * 2);
    if (!far) return;
    const auto burnt =
        boundary(burnt_end, rest_end, [&](double value) { return all_gone(swept.whole_once(value), *far); });
    if (swept.called_off()) return;
    if (!rest || !burnt) {
        // Something else than the dial changes the picture, too.
        measured.words =
            !rest ? "no value was found at which nothing is changed" : "no value was found from which on all is gone";
        return;
    }
    measured.numbers = {{"rest", *rest}, {"burnt", *burnt}};
    measured.words =
        "nothing is changed up to " + swept.words_of(*rest) + ", all is from " + swept.words_of(*burnt) + " on";
    const double span = std::fabs(swept.to() - swept.from());
    const bool fits =
        std::fabs(*rest - rest_end) <= near_enough * span && std::fabs(*burnt - burnt_end) <= near_enough * span;
    measured.verdict = fits ? Verdict::passes : Verdict::falls_short;
    if (fits) return;
    measured.mends.push_back(
        {"set the range to it",
         [name = swept.dial().name, rests_first, rest = *rest, burnt = *burnt](const Finish& finish) -> Result<Finish> {
             const auto tidy = [](double value) { return std::round(value * 1e4) / 1e4; };
             Finish set = with_range_end(finish, name, true, tidy(rests_first ? rest : burnt));
             return with_range_end(std::move(set), name, false, tidy(rests_first ? burnt : rest));
         }});
}

}  // namespace

Measure rest_value_measure() {
    return {"rest_value", "Rest value", "the range goes from where nothing is changed to where all is",
            measure_rest_value};
}

}  // namespace lacquer
