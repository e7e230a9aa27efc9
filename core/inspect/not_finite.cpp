// Values that are no number, such as a division by zero gives.
#include <cmath>

#include "core/finish/step_edits.h"
#include "core/inspect/formula_parts.h"
#include "core/inspect/inspection.h"
#include "core/lang/expression.h"

namespace lacquer {

namespace {

std::size_t count_not_finite(const DrawnStep* drawn) {
    std::size_t count = 0;
    if (drawn == nullptr) return 0;
    for (const float value : drawn->picture.data) count += std::isfinite(value) ? 0 : 1;
    return count;
}

// The first thing that is divided by, where that is not a plain number.
std::optional<Span> divisor(const Expression& e) {
    if (e.kind == ExpressionKind::binary && e.text == "/" && e.args[1].kind != ExpressionKind::number)
        return e.args[1].span;
    for (const Expression& arg : e.args) {
        if (const auto found = divisor(arg)) return found;
    }
    return std::nullopt;
}

void find_not_finite(Inspected& inspected, Warnings& warnings) {
    for_each_formula(inspected.checked(), [&](const Step& step, const Typed&) {
        if (count_not_finite(inspected.drawn(step.name, step.formula)) == 0) return;
        for (const std::string& name : names_in(inspected.finish(), step.formula)) {
            // It only passes on what another step gave it.
            const Step* source = find_step(inspected.finish(), name);
            if (source != nullptr && count_not_finite(inspected.drawn(name, source->formula)) > 0) return;
        }
        Warning warning{
            "inspect.not-finite", step.name, {}, "some values are not numbers: something is divided by 0", {}};
        const Result<Expression> parsed = parse(step.formula);
        if (parsed && !divisor(*parsed) && step.formula.find("texture") != std::string::npos)
            warning.message = "some values are not numbers: a picture is read at places that are not numbers";
        if (const auto by = parsed ? divisor(*parsed) : std::nullopt) {
            warning.span = *by;
            const std::string guarded = "max(" + words_of(step.formula, *by) + ", 0.0001)";
            warning.mends.push_back(
                {"never divide by less than 0.0001", [name = step.name, span = *by, guarded](const Finish& finish) {
                     return replace_words(finish, name, span, guarded);
                 }});
        }
        warnings.push_back(std::move(warning));
    });
}

}  // namespace

Inspection not_finite_inspection() { return {"not_finite", "values that are not numbers", find_not_finite}; }

}  // namespace lacquer
