// At the end of the sweep nothing is left, or all of the picture has changed.
#include <cmath>

#include "core/base/text.h"
#include "core/inspect/formula_parts.h"
#include "core/inspect/measure.h"
#include "core/inspect/picture_changes.h"

namespace lacquer {

namespace {

// What changes less than this share of the picture isn't meant to change all of it.
constexpr double nearly_all = 0.8;

struct Left {
    std::size_t pixels = 0;
    std::size_t there = 0;  // of the picture
    int x = 0;              // of the first that is left
    int y = 0;
};

void count(Left& left, bool there, bool is_left, int x, int y) {
    left.there += there ? 1 : 0;
    if (!is_left) return;
    if (left.pixels == 0) {
        left.x = x;
        left.y = y;
    }
    ++left.pixels;
}

// Pixels with some opacity, as far as any differ from the start: what stands beside the effect is none of it.
Left with_opacity(const Picture& now, const Picture& start) {
    Left left;
    for (int y = 0; y < now.height; ++y) {
        for (int x = 0; x < now.width; ++x) {
            const bool there = start.at(x, y)[3] > seen_difference;
            count(left, there, now.at(x, y)[3] > seen_difference, x, y);
        }
    }
    return left;
}

// Pixels that are as they were, whatever the picture is: that two pictures agree somewhere is chance.
Left unchanged(const Picture& now, const Picture& picture, const Picture& of_lines, const Picture& lines) {
    const auto same = [](const Picture& a, const Picture& b, int x, int y) {
        return pixel_difference(a.at(x, y), a.channels, b.at(x, y), b.channels) <= seen_difference;
    };
    Left left;
    for (int y = 0; y < now.height; ++y) {
        for (int x = 0; x < now.width; ++x)
            count(left, true, same(now, picture, x, y) && same(of_lines, lines, x, y), x, y);
    }
    return left;
}

void tell(Swept& swept, double value, const Left& left, const std::string& done, Measured& measured) {
    measured.numbers = {{"left", static_cast<double>(left.pixels)}, {"of", static_cast<double>(left.there)}};
    const std::string at = "at " + swept.words_of(value) + " ";
    if (left.pixels == 0) {
        measured.verdict = Verdict::passes;
        measured.words = at + done + " (0 of " + counted(left.there, "pixel") + ")";
        return;
    }
    measured.verdict = Verdict::falls_short;
    measured.words = at + counted(left.pixels, "pixel") + " of " + std::to_string(left.there) +
                     " are left, the first at " + std::to_string(left.x) + ", " + std::to_string(left.y);
}

// The end that is not the rest: the farther one from it.
double end_value(Swept& swept) {
    const double start = swept.value_at(0);
    const double end = swept.value_at(1);
    double rest = start;
    if (const auto driven = swept.rest_value()) {
        rest = *driven;
    } else {
        const DrawnStep* before = swept.untouched();
        const DrawnStep* last = swept.at(end);
        const DrawnStep* first = swept.at(start);
        if (before != nullptr && last != nullptr && first != nullptr &&
            share_changed(*last, *before) < share_changed(*first, *before))
            rest = end;
    }
    return std::fabs(rest - end) < std::fabs(rest - start) ? start : end;
}

void measure_end(Swept& swept, Measured& measured) {
    const double value = end_value(swept);
    const double other = value == swept.value_at(1) ? swept.value_at(0) : swept.value_at(1);
    const DrawnStep* now = swept.whole_at(value);
    const DrawnStep* start = swept.whole_at(other);
    if (now == nullptr || start == nullptr) return;
    if (now->picture.channels == 4 && start->picture.channels == 4) {
        const Left left = with_opacity(now->picture, start->picture);
        if (left.there > 0 && static_cast<double>(left.pixels) <= (1 - nearly_all) * static_cast<double>(left.there))
            return tell(swept, value, left, "nothing is left", measured);
    }
    const DrawnStep* picture = swept.whole_untouched();
    const DrawnStep* of_lines = swept.whole_of_lines(value);
    const DrawnStep* lines = swept.whole_untouched_lines();
    if (picture != nullptr && of_lines != nullptr && lines != nullptr && now->picture.channels >= 3) {
        const Left left = unchanged(now->picture, picture->picture, of_lines->picture, lines->picture);
        if (static_cast<double>(left.pixels) <= (1 - nearly_all) * static_cast<double>(left.there))
            return tell(swept, value, left, "all of the picture has changed", measured);
        measured.words = "at " + swept.words_of(value) + " " +
                         percent(static_cast<double>(left.pixels) / static_cast<double>(left.there)) +
                         " of the picture is as it was: it isn't meant to change all";
        return;
    }
    measured.words = "there is no picture that could be gone";
}

}  // namespace

Measure end_measure() {
    return {"end", "End", "at the end nothing is left of the picture, or all has changed", measure_end};
}

}  // namespace lacquer
