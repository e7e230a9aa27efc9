// A share that is left after each tick: at another tick rate all fades faster or slower.
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/step_edits.h"
#include "core/inspect/formula_parts.h"
#include "core/inspect/inspection.h"
#include "core/lang/expression.h"

namespace lacquer {

namespace {

// What is left after each tick, as it stands in a formula: previous(x) * 0.98.
struct ShareATick {
    Span span;
    Span value;
    double share = 1;
};

bool goes_on(const CheckedFinish& checked, const Expression& e) {
    if (e.kind == ExpressionKind::call) return e.text == "previous";
    return e.kind == ExpressionKind::name && find_ticked(checked, e.text) != nullptr;
}

void collect(const CheckedFinish& checked, const Expression& e, std::vector<ShareATick>& found) {
    for (const Expression& arg : e.args) collect(checked, arg, found);
    if (e.kind != ExpressionKind::binary || e.text != "*") return;
    for (const std::size_t value : {std::size_t{0}, std::size_t{1}}) {
        const Expression& share = e.args[1 - value];
        const bool is_share = share.kind == ExpressionKind::number && share.value > 0 && share.value < 1;
        if (is_share && goes_on(checked, e.args[value])) found.push_back({e.span, e.args[value].span, share.value});
    }
}

// By how much two pictures differ, as a share of what there is.
double difference(const DrawnStep& a, const DrawnStep& b) {
    double apart = 0;
    double all = 0;
    for (std::size_t i = 0; i < std::min(a.picture.data.size(), b.picture.data.size()); ++i) {
        apart += std::fabs(static_cast<double>(a.picture.data[i] - b.picture.data[i]));
        all += std::fabs(static_cast<double>(a.picture.data[i]));
    }
    return all > 0 ? apart / all : 0;
}

void find_tick_rate(Inspected& inspected, Warnings& warnings) {
    if (inspected.checked().ticked.empty()) return;
    const double rate = inspected.finish().ticks.rate;
    for_each_formula(inspected.checked(), [&](const Step& step, const Typed&) {
        if (find_ticked(inspected.checked(), step.name) == nullptr) return;
        const Result<Expression> parsed = parse(step.formula);
        std::vector<ShareATick> found;
        if (parsed) collect(inspected.checked(), *parsed, found);
        if (found.empty()) return;
        const DrawnStep* now = inspected.after(step.name, 1, rate);
        const DrawnStep* twice = inspected.after(step.name, 1, rate * 2);
        constexpr double seen = 0.03;
        if (now == nullptr || twice == nullptr || !(difference(*now, *twice) > seen)) return;
        const ShareATick& first = found.front();
        const std::string better = "fade_by(" + words_of(step.formula, first.value) + ", " +
                                   plain_number(std::pow(first.share, rate), 6) + ")";
        Warning warning{"inspect.tick-rate",
                        step.name,
                        first.span,
                        "this is left after each tick, so that at twice as many ticks it differs by " +
                            percent(std::min(1.0, difference(*now, *twice))),
                        {}};
        warning.mends.push_back(
            {"say what is left after a second", [name = step.name, first, better](const Finish& finish) {
                 return replace_words(finish, name, first.span, better);
             }});
        warnings.push_back(std::move(warning));
    });
}

}  // namespace

Inspection tick_rate_inspection() { return {"tick_rate", "fades that depend on the tick rate", find_tick_rate}; }

}  // namespace lacquer
