#include "core/inspect/formula_parts.h"

#include <algorithm>
#include <set>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/lang/code.h"
#include "core/lang/expression.h"
#include "core/lang/token.h"

namespace lacquer {

namespace {

bool goes_by_shape(const CheckedFinish& checked, const std::string& step, std::set<std::string>& seen) {
    if (step == "aspect" || step == "frame_size") return true;
    const CheckedStep* found = find_step(checked, step);
    if (!seen.insert(step).second || found == nullptr || !found->typed) return false;
    const std::vector<std::string> names = names_used(*found->typed);
    return std::any_of(names.begin(), names.end(),
                       [&](const std::string& name) { return goes_by_shape(checked, name, seen); });
}

void collect_readings(const Expression& e, std::vector<Reading>& found) {
    for (const Expression& arg : e.args) collect_readings(arg, found);
    const bool reads =
        e.kind == ExpressionKind::call && (e.text == "texture" || e.text == "previous") && e.args.size() == 2;
    if (reads && e.args[0].kind == ExpressionKind::name) found.push_back({e.args[0].text, e.args[1].span});
}

void collect(const CheckedFinish& checked, const Expression& e, std::vector<HandedOver>& found) {
    for (const Expression& arg : e.args) collect(checked, arg, found);
    if (e.kind != ExpressionKind::call) return;
    if (e.text == "mix" && e.args.size() == 3) found.push_back({"mask", e.args[2].span, false});
    const auto operation = checked.catalogue->operations.find(e.text);
    if (operation == checked.catalogue->operations.end()) return;
    const auto& arguments = operation->second.arguments;
    const std::size_t given = std::min(arguments.size(), e.args.size());
    bool centred = false;
    for (std::size_t i = 0; i < given; ++i)
        centred = centred || (arguments[i].name == "centring" && e.args[i].value != 0);
    for (std::size_t i = 0; i < given; ++i) {
        if (!arguments[i].picture) found.push_back({arguments[i].role, e.args[i].span, centred});
    }
}

}  // namespace

std::string percent(double share) { return share < 0.01 ? "under 1 %" : plain_number(share * 100, 0) + " %"; }

void for_each_formula(const CheckedFinish& checked, const std::function<void(const Step&, const Typed&)>& visit) {
    for_each_step(*checked.finish, [&](const Coat& coat, const Step& step) {
        const CheckedStep* found = find_step(checked, step.name);
        if (!coat.on || !step.on || found == nullptr || !found->typed || is_code(step.formula)) return;
        visit(step, *found->typed);
    });
}

bool goes_by_shape(const CheckedFinish& checked, const std::string& step) {
    std::set<std::string> seen;
    return goes_by_shape(checked, step, seen);
}

std::vector<Reading> readings(const std::string& formula) {
    std::vector<Reading> found;
    if (const Result<Expression> parsed = parse(formula)) collect_readings(*parsed, found);
    return found;
}

std::vector<std::string> names_in(const Finish& finish, const std::string& formula) {
    std::vector<std::string> names;
    const Result<std::vector<Token>> tokens = tokenize(formula);
    if (!tokens) return names;
    for (std::size_t i = 0; i < tokens->size(); ++i) {
        const std::string name((*tokens)[i].text);
        if ((*tokens)[i].kind != TokenKind::name || (i > 0 && (*tokens)[i - 1].text == ".")) continue;
        if (is_name_taken(finish, name) && std::find(names.begin(), names.end(), name) == names.end())
            names.push_back(name);
    }
    return names;
}

std::vector<HandedOver> handed_over(const CheckedFinish& checked, const std::string& formula) {
    std::vector<HandedOver> found;
    if (const Result<Expression> parsed = parse(formula)) collect(checked, *parsed, found);
    return found;
}

}  // namespace lacquer
