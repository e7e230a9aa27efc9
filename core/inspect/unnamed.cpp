// Steps that still have the name they were made with: nobody can tell what they do.
#include <algorithm>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/inspect/inspection.h"
#include "core/lang/expression.h"

namespace lacquer {

namespace {

bool is_made_up(const std::string& name) {
    if (!name.starts_with("step")) return false;
    return std::all_of(name.begin() + 4, name.end(), [](char c) { return c == '_' || (c >= '0' && c <= '9'); });
}

void find_unnamed(Inspected& inspected, Warnings& warnings) {
    for_each_step(inspected.finish(), [&](const Coat&, const Step& step) {
        if (!is_made_up(step.name) || !step.note.empty()) return;
        Warning warning{"inspect.unnamed", step.name, {}, "its name does not say what it does", {}};
        const Result<Expression> parsed = parse(step.formula);
        if (parsed && parsed->kind == ExpressionKind::call && is_identifier(parsed->text)) {
            const std::string wish = free_name(inspected.finish(), parsed->text);
            warning.mends.push_back({"call it " + shown_name(wish), [from = step.name, wish](const Finish& finish) {
                                         return rename(finish, from, wish);
                                     }});
        }
        warnings.push_back(std::move(warning));
    });
}

}  // namespace

Inspection unnamed_inspection() { return {"unnamed", "steps without a name of their own", find_unnamed}; }

}  // namespace lacquer
