// Two responses to the same cue that move one dial at once.
#include "core/base/text.h"
#include "core/inspect/formula_parts.h"
#include "core/inspect/inspection.h"
#include "core/lang/expression.h"

namespace lacquer {

namespace {

const Response* response_named(const Finish& finish, const std::string& name) {
    for (const Response& response : finish.responses) {
        if (response.name == name) return &response;
    }
    return nullptr;
}

// Names that are added to each other at the top of a formula.
void collect_summands(const Expression& e, std::vector<std::string>& names) {
    if (e.kind == ExpressionKind::name) names.push_back(e.text);
    if (e.kind != ExpressionKind::binary || (e.text != "+" && e.text != "-")) return;
    for (const Expression& arg : e.args) collect_summands(arg, names);
}

void find_two_runs(Inspected& inspected, Warnings& warnings) {
    const Finish& finish = inspected.finish();
    for (const Dial& dial : finish.dials) {
        const Result<Expression> parsed = parse(dial.formula);
        if (!parsed) continue;
        std::vector<std::string> names;
        collect_summands(*parsed, names);
        for (std::size_t i = 0; i < names.size(); ++i) {
            for (std::size_t k = i + 1; k < names.size(); ++k) {
                const Response* a = response_named(finish, names[i]);
                const Response* b = response_named(finish, names[k]);
                if (a == nullptr || b == nullptr || a == b || a->cue.empty() || a->cue != b->cue) continue;
                Warning warning{"inspect.two-runs",
                                dial.name,
                                {},
                                "two runs fight over it: '" + shown_name(a->name) + "' and '" + shown_name(b->name) +
                                    "' both start at '" + shown_name(a->cue) + "' and are added",
                                {}};
                for (const Response* kept : {a, b}) {
                    warning.mends.push_back({"follow " + shown_name(kept->name) + " alone",
                                             [name = dial.name, by = kept->name](const Finish& now) -> Result<Finish> {
                                                 Finish changed = now;
                                                 for (Dial& own : changed.dials) {
                                                     if (own.name == name) own.formula = by;
                                                 }
                                                 return changed;
                                             }});
                }
                warnings.push_back(std::move(warning));
            }
        }
    }
}

}  // namespace

Inspection two_runs_inspection() { return {"two_runs", "two responses to one cue that are added", find_two_runs}; }

}  // namespace lacquer
