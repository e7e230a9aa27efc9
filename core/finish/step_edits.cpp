#include "core/finish/step_edits.h"

#include "core/finish/shader_parts.h"

#include <algorithm>
#include <optional>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/operation_steps.h"
#include "core/lang/expression.h"
#include "core/lang/rename.h"
#include "core/lang/token.h"

namespace lacquer {

namespace {

Fault edit_fault(const char* id, std::string_view where, std::string message, std::string mend = {}) {
    return {id, std::move(message), std::move(mend), {std::string(where), {}, 0, 0}, Severity::fault};
}

Fault unknown(std::string_view name) {
    return edit_fault("edit.unknown", name, "nothing is called '" + std::string(name) + "'");
}

Step* find_in(Finish& finish, std::string_view name) {
    for (Coat& coat : finish.coats) {
        for (Step& step : coat.steps) {
            if (step.name == name) return &step;
        }
    }
    return nullptr;
}

std::string words(std::string_view text, Span span) {
    return std::string(text.substr(span.begin, span.end - span.begin));
}

bool contains(Span outer, Span inner) { return outer.begin <= inner.begin && inner.end <= outer.end; }

// The smallest part of the tree round `span` of which `good` is true.
template <class Good>
const Expression* innermost(const Expression& e, Span span, Good good) {
    if (!contains(e.span, span)) return nullptr;
    for (const Expression& arg : e.args) {
        if (const Expression* found = innermost(arg, span, good)) return found;
    }
    return good(e) ? &e : nullptr;
}

// A name that says what the part is: the function it calls, or the parts of the step.
std::string name_for(const Expression& e, std::string_view step) {
    if (e.kind == ExpressionKind::call && is_identifier(e.text)) return e.text;
    if (e.kind == ExpressionKind::field && e.args[0].kind == ExpressionKind::name) {
        return identifier_from(e.args[0].text + "_" + e.text);
    }
    return identifier_from(std::string(step) + "_part");
}

void collect_same(const Expression& e, std::string_view text, std::string_view wanted, std::vector<Span>& spans) {
    if (words(text, e.span) == wanted) {
        spans.push_back(e.span);
        return;
    }
    for (const Expression& arg : e.args) collect_same(arg, text, wanted, spans);
}

// Spans must not overlap and stand in order.
std::string with_replaced(std::string_view text, const std::vector<Span>& spans, std::string_view by) {
    std::string made;
    std::size_t copied = 0;
    for (const Span& span : spans) {
        made += text.substr(copied, span.begin - copied);
        made += by;
        copied = span.end;
    }
    return made + std::string(text.substr(copied));
}

// What binds at least as closely as a name: it can stand anywhere without brackets of its own.
bool stands_alone(const Expression& e) {
    return e.kind == ExpressionKind::number || e.kind == ExpressionKind::boolean || e.kind == ExpressionKind::name ||
           e.kind == ExpressionKind::field || e.kind == ExpressionKind::index || e.kind == ExpressionKind::call;
}

bool has_brackets(const Expression& e) {
    const bool begins_with_part = e.kind == ExpressionKind::binary || e.kind == ExpressionKind::select ||
                                  e.kind == ExpressionKind::field || e.kind == ExpressionKind::index;
    return e.span.begin < (begins_with_part ? e.args[0].span.begin : e.word.begin);
}

// How closely an operator binds.
int closeness(std::string_view mark) {
    if (mark == "*" || mark == "/" || mark == "%") return 2;
    return mark == "+" || mark == "-" ? 1 : 0;
}

// The part of the formula that stands behind "1 - " or "vec3(1) - " if that is all it says.
std::optional<std::string> turned_back(std::string_view formula) {
    for (const std::string_view begin : {"1.0 - (", "vec3(1) - ("}) {
        if (!formula.starts_with(begin) || !formula.ends_with(")")) continue;
        const std::string inner(formula.substr(begin.size(), formula.size() - begin.size() - 1));
        if (parse(inner)) return inner;
    }
    for (const std::string_view begin : {"1.0 - ", "1 - ", "vec3(1) - "}) {
        if (!formula.starts_with(begin)) continue;
        const Result<Expression> rest = parse(formula.substr(begin.size()));
        if (rest && stands_alone(*rest)) return std::string(formula.substr(begin.size()));
    }
    return std::nullopt;
}

// Code with each `return` giving back one minus what it gave.
std::string code_turned(const std::string& text, const std::string& one) {
    const Result<std::vector<Token>> tokens = tokenize(text);
    if (!tokens) return text;
    std::string made;
    std::size_t copied = 0;
    int depth = 0;
    bool within_function = false;
    for (std::size_t i = 0; i + 1 < tokens->size(); ++i) {
        const Token& token = (*tokens)[i];
        // A body that opens right behind a bracket of parameters at the outermost level belongs to a function.
        if (token.text == "{") {
            const bool function = depth == 0 && i > 0 && (*tokens)[i - 1].text == ")" && !within_function && [&] {
                std::size_t k = i - 1;
                int open = 1;
                while (k > 0 && open > 0) {
                    --k;
                    if ((*tokens)[k].text == ")") ++open;
                    if ((*tokens)[k].text == "(") --open;
                }
                const std::string_view before = k > 0 ? (*tokens)[k - 1].text : "";
                return before != "if" && before != "for" && before != "while";
            }();
            within_function = within_function || function;
            ++depth;
        }
        if (token.text == "}" && --depth == 0) within_function = false;
        if (token.text != "return" || within_function) continue;
        const auto end = std::find_if(tokens->begin() + static_cast<std::ptrdiff_t>(i), tokens->end(),
                                      [](const Token& t) { return t.text == ";"; });
        if (end == tokens->end()) break;
        const std::size_t first = (*tokens)[i + 1].span.begin;
        made += text.substr(copied, first - copied) + one + " - (" + text.substr(first, end->span.begin - first) + ")";
        copied = end->span.begin;
    }
    return made + text.substr(copied);
}

Finish with_formula(Finish finish, std::string_view step, std::string formula) {
    set_formula(*find_in(finish, step), std::move(formula));
    return finish;
}

}  // namespace

void set_formula(Step& step, std::string formula) {
    const bool was_code = is_code(step.formula);
    step.formula = std::move(formula);
    if (!is_code(step.formula)) {
        step.rules = CodeRules::formulas;
    } else if (!was_code) {
        step.rules = CodeRules::glsl;
    }
}

Result<Finish> replace_words(Finish finish, std::string_view step, Span span, std::string_view text) {
    Step* found = find_in(finish, step);
    if (found == nullptr) return unknown(step);
    if (span.begin > span.end || span.end > found->formula.size()) {
        return edit_fault("edit.span", step, "the formula has changed since", "try again");
    }
    found->formula.replace(span.begin, span.end - span.begin, text);
    return finish;
}

Result<Finish> add_step_before(Finish finish, std::string_view before, Step step) {
    if (find_in(finish, before) == nullptr) return unknown(before);
    const std::string name = step.name;
    Result<Finish> added = add_step(std::move(finish), before, std::move(step));
    if (!added) return added;
    return move_step(std::move(*added), name, -1);
}

Result<StepEdit> duplicate_step(Finish finish, std::string_view name) {
    const Step* found = find_step(finish, name);
    if (found == nullptr) return unknown(name);
    Step copy = *found;
    copy.name = free_name(finish, copy.name);
    const std::string made = copy.name;
    Result<Finish> added = add_step(std::move(finish), name, std::move(copy));
    if (!added) return added.fault();
    return StepEdit{std::move(*added), made};
}

Result<StepEdit> extract_step(Finish finish, std::string_view step, Span span) {
    const Step* found = find_step(finish, step);
    if (found == nullptr) return unknown(step);
    const std::string formula = found->formula;
    if (is_code(formula) && found->rules == CodeRules::glsl) return extract_variable(std::move(finish), step, span);
    if (is_code(formula)) {
        return edit_fault("edit.extract", step, "a part of code cannot become a step by itself",
                          "write the part as a step and use its name");
    }
    const Result<Expression> parsed = parse(formula);
    if (!parsed) return edit_fault("edit.extract", step, "the formula has a mistake", "mend it first");
    // A mere place means what is done there, not the number it happens to touch.
    const bool place = span.begin == span.end;
    const Expression* part = innermost(*parsed, span, [&](const Expression& e) {
        return !place || (e.kind != ExpressionKind::number && e.kind != ExpressionKind::name);
    });
    if (part == nullptr || part == &*parsed) {
        return edit_fault("edit.extract", step, "that is the whole step already", "choose a part of the formula");
    }
    if (part->kind == ExpressionKind::name) {
        return edit_fault("edit.extract", step, "'" + part->text + "' has a name already", "choose a larger part");
    }
    const std::string text = words(formula, part->span);
    Step made;
    made.formula = has_brackets(*part) ? text.substr(1, text.size() - 2) : text;
    made.name = free_name(finish, name_for(*part, step));
    std::vector<Span> spans;
    collect_same(*parsed, formula, text, spans);
    const std::string name = made.name;
    finish = with_formula(std::move(finish), step, with_replaced(formula, spans, name));
    Result<Finish> added = add_step_before(std::move(finish), step, std::move(made));
    if (!added) return added.fault();
    return StepEdit{std::move(*added), name};
}

Result<Finish> inline_step(const CheckedFinish& checked, std::string_view step) {
    const Finish& finish = *checked.finish;
    const Step* found = find_step(finish, step);
    if (found == nullptr) return unknown(step);
    const std::vector<std::string> users = users_of(finish, step);
    if (users.empty()) return edit_fault("edit.inline", step, "nothing uses '" + shown_name(found->name) + "'");
    const Result<Expression> parsed = parse(found->formula);
    if (is_code(found->formula) || !parsed) {
        return edit_fault("edit.inline", step, "code cannot stand within a formula", "keep it a step of its own");
    }
    const std::string text =
        stands_alone(*parsed) || has_brackets(*parsed) ? found->formula : "(" + found->formula + ")";
    Finish changed = finish;
    for (Coat& coat : changed.coats) {
        for (Step& user : coat.steps) user.formula = rename_in_formula(user.formula, step, text);
    }
    Result<Finish> without = delete_step(std::move(changed), step);
    if (!without) return without;
    // What reads it at another place would have to store it all the same, and some operations fill a whole step.
    const CheckedFinish after = check_finish(std::make_shared<const Finish>(*without), checked.catalogue, &checked);
    for (const std::string& user : users) {
        const CheckedStep* before = find_step(checked, user);
        const CheckedStep* now = find_step(after, user);
        if (before == nullptr || before->fault || now == nullptr || !now->fault) continue;
        return edit_fault("edit.inline", step, "'" + shown_name(user) + "' needs it as a step: " + now->fault->message,
                          "keep it a step of its own");
    }
    return without;
}

Result<Finish> invert_step(const CheckedFinish& checked, std::string_view step) {
    const Finish& finish = *checked.finish;
    const Step* found = find_step(finish, step);
    if (found == nullptr) return unknown(step);
    const CheckedStep* known = find_step(checked, step);
    if (known == nullptr || !known->typed) {
        return edit_fault("edit.invert", step, "the step has a fault", "mend it first");
    }
    if (scalar_of(known->typed->type) != Scalar::real) {
        return edit_fault("edit.invert", step, "only numbers can be turned round", "");
    }
    const bool colour = width_of(known->typed->type) == 4;
    const std::string one = colour ? "vec3(1)" : "1.0";
    const std::string& formula = found->formula;
    if (whole_step_operation(formula, *checked.catalogue) != nullptr) {
        return edit_fault("edit.invert", step, "'" + shown_name(found->name) + "' is filled by an operation",
                          "add a step below it and turn that round");
    }
    if (is_code(formula)) return with_formula(finish, step, code_turned(formula, one));
    if (const auto inner = turned_back(formula)) return with_formula(finish, step, *inner);
    const Result<Expression> parsed = parse(formula);
    const bool alone = parsed && stands_alone(*parsed);
    return with_formula(finish, step, one + (alone ? " - " + formula : " - (" + formula + ")"));
}

Result<Finish> swap_arguments(Finish finish, std::string_view step, Span span) {
    const Step* found = find_step(finish, step);
    if (found == nullptr) return unknown(step);
    const std::string formula = found->formula;
    const Result<Expression> parsed = parse(formula);
    if (is_code(formula) || !parsed) {
        return edit_fault("edit.swap", step, "only the parts of one formula can be swapped", "");
    }
    const Expression* part = innermost(*parsed, span, [](const Expression& e) {
        return e.kind == ExpressionKind::binary || (e.kind == ExpressionKind::call && e.args.size() >= 2) ||
               e.kind == ExpressionKind::select;
    });
    if (part == nullptr) return edit_fault("edit.swap", step, "there are no two parts here to swap", "");
    const bool select = part->kind == ExpressionKind::select;
    const Expression& a = part->args[select ? 1 : 0];
    const Expression& b = part->args[select ? 2 : 1];
    std::string left = words(formula, a.span);
    std::string right = words(formula, b.span);
    // A sum that becomes the right side of a difference needs brackets to stay one.
    const auto bracketed = [&](const Expression& e, std::string text) {
        const bool loose = e.kind == ExpressionKind::select ||
                           (e.kind == ExpressionKind::binary && closeness(e.text) <= closeness(part->text));
        return loose && !has_brackets(e) ? "(" + text + ")" : text;
    };
    if (part->kind == ExpressionKind::binary) {
        left = bracketed(a, std::move(left));
        right = bracketed(b, std::move(right));
    }
    const std::string between = formula.substr(a.span.end, b.span.begin - a.span.end);
    std::string made = formula.substr(0, a.span.begin) + right + between + left + formula.substr(b.span.end);
    if (!parse(made)) return edit_fault("edit.swap", step, "these two cannot be swapped", "swap them by hand");
    return with_formula(std::move(finish), step, std::move(made));
}

Result<Finish> use_instead(Finish finish, std::string_view from, std::string_view to) {
    for (const std::string_view name : {from, to}) {
        if (!is_name_taken(finish, name)) return unknown(name);
    }
    for (Dial& dial : finish.dials) dial.formula = rename_in_formula(dial.formula, from, to);
    for (Coat& coat : finish.coats) {
        for (Step& step : coat.steps) {
            if (step.name != to) step.formula = rename_in_formula(step.formula, from, to);
        }
    }
    return finish;
}

Result<Finish> move_step_below(Finish finish, std::string_view step, std::string_view other) {
    const Step* found = find_step(finish, step);
    if (found == nullptr) return unknown(step);
    if (!other.empty() && find_step(finish, other) == nullptr) return unknown(other);
    if (step == other) return finish;
    Step moved = *found;
    Result<Finish> without = delete_step(std::move(finish), step);
    if (!without) return without;
    if (!other.empty()) return add_step(std::move(*without), other, std::move(moved));
    auto& steps = without->coats.front().steps;
    steps.insert(steps.begin(), std::move(moved));
    return without;
}

namespace {

// Takes steps out of their coats, in the ladder's order.
Result<std::vector<Step>> taken_out(Finish& finish, const std::vector<std::string>& names) {
    for (const std::string& name : names) {
        if (find_step(finish, name) == nullptr) return unknown(name);
    }
    std::vector<Step> taken;
    const auto is_wanted = [&](const Step& step) {
        return std::find(names.begin(), names.end(), step.name) != names.end();
    };
    for (Coat& coat : finish.coats) {
        for (const Step& step : coat.steps) {
            if (is_wanted(step)) taken.push_back(step);
        }
        std::erase_if(coat.steps.own(), is_wanted);
    }
    return taken;
}

}  // namespace

Result<Finish> move_steps_to_coat(Finish finish, const std::vector<std::string>& steps, std::size_t coat) {
    if (coat >= finish.coats.size()) return unknown("coat");
    Result<std::vector<Step>> taken = taken_out(finish, steps);
    if (!taken) return taken.fault();
    for (Step& step : *taken) finish.coats[coat].steps.push_back(std::move(step));
    return finish;
}

Result<Finish> group_steps(Finish finish, const std::vector<std::string>& steps, const std::string& heading) {
    if (steps.empty()) return unknown("step");
    std::size_t last = 0;
    for (const std::string& name : steps) last = std::max(last, place_of(finish, name).coat);
    Result<std::vector<Step>> taken = taken_out(finish, steps);
    if (!taken) return taken.fault();
    finish = add_coat(std::move(finish), last, heading);
    for (Step& step : *taken) finish.coats[last + 1].steps.push_back(std::move(step));
    return finish;
}

Result<Finish> move_coat(Finish finish, std::size_t coat, int direction) {
    if (coat >= finish.coats.size()) return unknown("coat");
    const auto to = static_cast<std::ptrdiff_t>(coat) + direction;
    if (to < 0 || to >= static_cast<std::ptrdiff_t>(finish.coats.size())) {
        return edit_fault("edit.end", finish.coats[coat].name,
                          "'" + finish.coats[coat].name + "' is " + (direction < 0 ? "first" : "last") + " already");
    }
    std::swap(finish.coats[coat], finish.coats[static_cast<std::size_t>(to)]);
    return finish;
}

std::vector<std::string> stand_ins(const Finish& finish) {
    std::vector<std::string> names;
    for_each_step(finish, [&](const Coat&, const Step& step) {
        if (step.stand_in) names.push_back(step.name);
    });
    return names;
}

std::vector<OutOfOrder> out_of_order(const Finish& finish) {
    std::vector<OutOfOrder> found;
    std::vector<const Step*> all;
    for_each_step(finish, [&](const Coat&, const Step& step) { all.push_back(&step); });
    for (std::size_t i = 0; i < all.size(); ++i) {
        const Result<std::vector<Token>> tokens = tokenize(all[i]->formula);
        if (!tokens) continue;
        for (std::size_t k = i + 1; k < all.size(); ++k) {
            const bool names = std::any_of(tokens->begin(), tokens->end(), [&](const Token& t) {
                return t.kind == TokenKind::name && t.text == all[k]->name;
            });
            if (names) found.push_back({all[i]->name, all[k]->name});
        }
    }
    return found;
}

}  // namespace lacquer
