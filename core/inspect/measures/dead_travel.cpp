// Parts of the range that change nothing.
#include <algorithm>
#include <cmath>
#include <functional>

#include "core/base/text.h"
#include "core/inspect/measure.h"
#include "core/inspect/picture_changes.h"
#include "core/inspect/range_edits.h"

namespace lacquer {

namespace {

constexpr double worth_telling = 0.01;  // share of the range
constexpr int range_parts = 32;
constexpr int halvings = 8;

struct DeadPart {
    double from = 0;  // shares of the range
    double to = 0;
};

bool same(Swept& swept, double one, double other) {
    const DrawnStep* a = swept.at(swept.value_at(one));
    const DrawnStep* b = swept.at(swept.value_at(other));
    if (a == nullptr || b == nullptr) return false;
    const auto apart = difference(a->picture, b->picture);
    return apart && apart->seen == 0;
}

// How far from `still` towards `other` the picture stays the same.
double edge_of(Swept& swept, double still, double other) {
    const double end = still;
    for (int i = 0; i < halvings; ++i) {
        const double middle = (still + other) / 2;
        (same(swept, middle, end) ? still : other) = middle;
    }
    return still;
}

std::vector<DeadPart> dead_parts(Swept& swept) {
    std::vector<DeadPart> found;
    for (int i = 0; i < range_parts; ++i) {
        int last = i;
        while (last < range_parts && same(swept, static_cast<double>(i) / range_parts, (last + 1.0) / range_parts))
            ++last;
        if (last == i) continue;
        DeadPart part{static_cast<double>(i) / range_parts, static_cast<double>(last) / range_parts};
        if (i > 0) part.from = edge_of(swept, part.from, (i - 1.0) / range_parts);
        if (last < range_parts) part.to = edge_of(swept, part.to, (last + 1.0) / range_parts);
        found.push_back(part);
        i = last;
    }
    // Less than a part, at an end.
    if (found.empty() || found.front().from > 0) found.insert(found.begin(), {0, edge_of(swept, 0, 1.0 / range_parts)});
    if (found.back().to < 1) found.push_back({edge_of(swept, 1, 1 - 1.0 / range_parts), 1});
    std::erase_if(found, [](const DeadPart& part) { return part.to - part.from < worth_telling; });
    return found;
}

void measure_dead_travel(Swept& swept, Measured& measured) {
    if (!swept.is_smooth()) {
        measured.words = "it has whole values only";
        return;
    }
    const std::vector<DeadPart> dead = dead_parts(swept);
    if (swept.called_off()) return;
    if (dead.empty()) {
        measured.verdict = Verdict::passes;
        measured.words = "every part of the range changes something";
        return;
    }
    if (dead.front().from <= 0 && dead.front().to >= 1) {
        measured.words = "nothing that can be seen changes over the whole range";
        return;
    }
    measured.verdict = Verdict::falls_short;
    double sum = 0;
    std::string where;
    for (const DeadPart& part : dead) {
        sum += part.to - part.from;
        where += (where.empty() ? "" : ", ") + swept.words_of(swept.value_at(part.from)) + " to " +
                 swept.words_of(swept.value_at(part.to));
        measured.numbers.emplace_back("from", swept.value_at(part.from));
        measured.numbers.emplace_back("to", swept.value_at(part.to));
    }
    measured.words = plain_number(sum * 100, 1) + " % of the range changes nothing: " + where;
    if (swept.dial().kind != DialKind::number) return;
    const Sweep whole = whole_range(swept.dial());
    const bool is_whole = whole.from == swept.from() && whole.to == swept.to();
    const bool at_start = dead.front().from <= 0;
    const bool at_end = dead.back().to >= 1;
    if (!is_whole || (!at_start && !at_end)) return;
    measured.mends.push_back({"cut the range",
                              [name = swept.dial().name, at_start, at_end, start = swept.value_at(dead.front().to),
                               end = swept.value_at(dead.back().from)](const Finish& finish) -> Result<Finish> {
                                  const auto tidy = [](double value) { return std::round(value * 1e4) / 1e4; };
                                  Finish cut = finish;
                                  if (at_start) cut = with_range_end(std::move(cut), name, true, tidy(start));
                                  if (at_end) cut = with_range_end(std::move(cut), name, false, tidy(end));
                                  return cut;
                              }});
}

}  // namespace

Measure dead_travel_measure() {
    return {"dead_travel", "Dead travel", "every part of the range changes something", measure_dead_travel};
}

}  // namespace lacquer
