// A flow by vectors that stand still: all gathers on the same lines and gets stuck there.
#include <algorithm>
#include <cmath>

#include "core/finish/limits.h"
#include "core/finish/step_edits.h"
#include "core/inspect/formula_parts.h"
#include "core/inspect/inspection.h"
#include "core/lang/expression.h"
#include "core/lang/rename.h"

namespace lacquer {

namespace {

void collect_pushes(const Expression& e, std::vector<const Expression*>& found) {
    for (const Expression& arg : e.args) collect_pushes(arg, found);
    if (e.kind == ExpressionKind::call && e.text == "flow_push" && e.args.size() == 2) found.push_back(&e.args[1]);
}

bool is_alike(const DrawnStep& a, const DrawnStep& b) {
    return std::equal(a.picture.data.begin(), a.picture.data.end(), b.picture.data.begin(), b.picture.data.end());
}

// An even wind carries all along; only what turns can gather.
bool varies(const DrawnStep& drawn) {
    for (int part = 0; part < drawn.picture.channels; ++part) {
        float least = HUGE_VALF;
        float most = -HUGE_VALF;
        for (int y = 0; y < drawn.picture.height; ++y) {
            for (int x = 0; x < drawn.picture.width; ++x) {
                least = std::min(least, drawn.picture.at(x, y)[part]);
                most = std::max(most, drawn.picture.at(x, y)[part]);
            }
        }
        if (most - least > 1e-4F) return true;
    }
    return false;
}

// The step among those that `step` goes by that names the place itself; empty if there is none.
std::string placed(const Finish& finish, const std::string& step) {
    std::vector<std::string> todo{step};
    for (std::size_t at = 0; at < todo.size() && at < max_members; ++at) {
        const Step* found = find_step(finish, todo[at]);
        if (found == nullptr) continue;
        if (rename_in_formula(found->formula, "uv", "*") != found->formula) return found->name;
        for (const std::string& name : names_in(finish, found->formula)) {
            if (std::find(todo.begin(), todo.end(), name) == todo.end()) todo.push_back(name);
        }
    }
    return {};
}

void find_still_vectors(Inspected& inspected, Warnings& warnings) {
    if (inspected.checked().ticked.empty()) return;
    const double rate = inspected.finish().ticks.rate;
    for_each_formula(inspected.checked(), [&](const Step& step, const Typed&) {
        const Result<Expression> parsed = parse(step.formula);
        std::vector<const Expression*> pushes;
        if (parsed) collect_pushes(*parsed, pushes);
        for (const Expression* vector : pushes) {
            if (vector->kind != ExpressionKind::name || find_step(inspected.finish(), vector->text) == nullptr)
                continue;
            const DrawnStep* soon = inspected.after(vector->text, 0.5, rate);
            const DrawnStep* later = inspected.after(vector->text, 2, rate);
            if (soon == nullptr || later == nullptr || !is_alike(*soon, *later) || !varies(*soon)) continue;
            Warning warning{"inspect.still-vectors",
                            step.name,
                            vector->span,
                            "these vectors stand still, so what flows gets stuck on the same lines",
                            {}};
            if (const std::string from = placed(inspected.finish(), vector->text); !from.empty()) {
                const std::string formula = find_step(inspected.finish(), from)->formula;
                const std::string drifting = rename_in_formula(formula, "uv", "(uv + vec2(0.03, 0.1) * time)");
                const Span whole{0, static_cast<std::uint32_t>(formula.size())};
                warning.mends.push_back({"let " + from + " drift", [from, whole, drifting](const Finish& finish) {
                                             return replace_words(finish, from, whole, drifting);
                                         }});
            }
            warnings.push_back(std::move(warning));
        }
    });
}

}  // namespace

Inspection still_vectors_inspection() { return {"still_vectors", "flows that get stuck", find_still_vectors}; }

}  // namespace lacquer
