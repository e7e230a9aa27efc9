// Repairs for a step's fault: each is tried, and only what leaves the step without a fault is offered.
#include <algorithm>

#include "core/base/text.h"
#include "core/finish/step_edits.h"
#include "core/finish/try_on.h"
#include "core/inspect/formula_parts.h"
#include "core/inspect/inspection.h"
#include "core/lang/code.h"
#include "core/lang/expression.h"

namespace lacquer {

namespace {

struct Rewrite {
    Span span;
    std::string text;
    std::string words;  ///< what the repair says; empty for "write ..."
};

// The sides of an operator that stand at the span, or the span itself.
std::vector<Span> sides_at(const Expression& e, Span span) {
    if (e.span == span || (e.kind == ExpressionKind::binary && cover(e.args[0].span, e.args[1].span) == span)) {
        if (e.kind == ExpressionKind::binary) return {e.args[0].span, e.args[1].span};
        return {e.span};
    }
    for (const Expression& arg : e.args) {
        std::vector<Span> found = sides_at(arg, span);
        if (!found.empty()) return found;
    }
    return {};
}

std::vector<Rewrite> rewrites(const std::string& formula, const Fault& fault) {
    std::vector<Rewrite> tries;
    const Span span = fault.place.span;
    constexpr std::string_view ask = "did you mean ";
    if (fault.mend.starts_with(ask) && fault.mend.ends_with("?")) {
        const std::string name = fault.mend.substr(ask.size(), fault.mend.size() - ask.size() - 1);
        tries.push_back({span, name, "use " + shown_name(name)});
    }
    if (fault.id != "lang.width" && fault.id != "lang.kind") return tries;
    const Result<Expression> parsed = parse(formula);
    std::vector<Span> sides;
    if (parsed && !is_code(formula)) sides = sides_at(*parsed, span);
    if (sides.empty()) sides.push_back(span);
    for (const Span side : sides) {
        const std::string words = words_of(formula, side);
        const bool plain = std::all_of(words.begin(), words.end(), [](char c) {
            return c == '_' || c == '.' || (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9');
        });
        const std::string whole = plain ? words : "(" + words + ")";
        for (const char* part : {".x", ".xy", ".rgb"}) tries.push_back({side, whole + part, {}});
        for (const char* call : {"length(", "vec2(", "vec3(", "float("})
            tries.push_back({side, call + words + ")", {}});
    }
    return tries;
}

bool heals(const CheckedFinish& checked, const std::string& step, const std::string& formula) {
    const CheckedFinish after = candidates_on(checked, step, TryOnUse::replace, {formula});
    const CheckedStep* made = find_step(after, candidate_name(0));
    return made != nullptr && made->typed != nullptr;
}

}  // namespace

std::vector<Mend> mends_of_fault(const CheckedFinish& checked, const std::string& step, const Fault& fault) {
    std::vector<Mend> mends;
    const Step* found = find_step(*checked.finish, step);
    if (found == nullptr) return mends;
    const std::string formula = found->formula;
    if (fault.id == "lang.out-of-reach") {
        const std::string other = words_of(formula, fault.place.span);
        if (find_step(*checked.finish, other) != nullptr && other != step) {
            mends.push_back({"move it below " + shown_name(other),
                             [step, other](const Finish& finish) { return move_step_below(finish, step, other); }});
        }
        return mends;
    }
    constexpr std::size_t most = 3;
    for (const Rewrite& rewrite : rewrites(formula, fault)) {
        if (mends.size() == most) break;
        if (rewrite.span.end > formula.size()) continue;
        std::string healed = formula;
        healed.replace(rewrite.span.begin, rewrite.span.end - rewrite.span.begin, rewrite.text);
        if (!heals(checked, step, healed)) continue;
        mends.push_back(
            {rewrite.words.empty() ? "write " + rewrite.text : rewrite.words, [step, rewrite](const Finish& finish) {
                 return replace_words(finish, step, rewrite.span, rewrite.text);
             }});
    }
    return mends;
}

}  // namespace lacquer
