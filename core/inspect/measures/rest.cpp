// Where the effect says that it rests, the picture is untouched.
#include <algorithm>

#include "core/base/text.h"
#include "core/inspect/formula_parts.h"
#include "core/inspect/measure.h"
#include "core/inspect/picture_changes.h"

namespace lacquer {

namespace {

// An effect that changes more than this at its end of the range doesn't rest there.
constexpr double little_changed = 0.2;

void judge(const DrawnStep& picture, const DrawnStep& now, const std::string& where, Measured& measured) {
    const auto apart = difference(now.picture, picture.picture);
    if (!apart) return;
    measured.numbers = {{"largest difference", static_cast<double>(apart->largest)},
                        {"pixels", static_cast<double>(apart->seen)}};
    const std::string largest = plain_number(static_cast<double>(apart->largest), 4);
    if (apart->seen == 0) {
        measured.verdict = Verdict::passes;
        measured.words = where + " the picture is untouched (largest difference " + largest + ")";
        return;
    }
    measured.verdict = Verdict::falls_short;
    measured.words = where + " " + counted(apart->seen, "pixel") + " differ from the picture, most at " +
                     std::to_string(apart->x) + ", " + std::to_string(apart->y) + ": by " + largest;
}

void measure_rest(Swept& swept, Measured& measured) {
    const DrawnStep* picture = swept.whole_untouched();
    if (picture == nullptr) {
        measured.words = "there is no picture that it could leave untouched";
        return;
    }
    if (const auto rest = swept.rest_value()) {
        const DrawnStep* resting = swept.whole_at_rest();
        if (resting == nullptr) return;
        measured.numbers = {{"rest", *rest}};
        if (share_changed(*resting, *picture) <= little_changed)
            return judge(*picture, *resting, "at rest, " + swept.words_of(*rest) + ",", measured);
        measured.words = "it changes the picture at rest, too";
        return;
    }
    for (const double end : {0.0, 1.0}) {
        const double value = swept.value_at(end);
        const DrawnStep* small = swept.at(value);
        const DrawnStep* before = swept.untouched();
        if (small == nullptr || before == nullptr || share_changed(*small, *before) > little_changed) continue;
        if (const DrawnStep* now = swept.whole_at(value))
            judge(*picture, *now, "at " + swept.words_of(value), measured);
        return;
    }
    measured.words = "at neither end does it leave the picture as it is";
}

}  // namespace

Measure rest_measure() { return {"rest", "Rest", "where it rests, the picture is untouched", measure_rest}; }

}  // namespace lacquer
