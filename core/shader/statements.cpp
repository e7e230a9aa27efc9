// Statements: GLSL ES 3.00, chapter 6.
#include <fmt/core.h>

#include <algorithm>
#include <utility>

#include "core/lang/completed.h"
#include "core/shader/refusal.h"
#include "core/shader/translator.h"

namespace lacquer {

namespace {

using Kind = ShaderStatementKind;

// Whether some statement of a kind stands in a list. `continue` in a loop within belongs to that loop, `break` in a
// loop or switch to that one.
bool holds(const std::vector<ShaderStatement>& list, Kind wanted) {
    return std::any_of(list.begin(), list.end(), [&](const ShaderStatement& s) {
        if (s.kind == wanted) return true;
        const bool is_loop = s.kind == Kind::loop || s.kind == Kind::loop_after;
        if (is_loop && (wanted == Kind::skip || wanted == Kind::leave)) return false;
        if (s.kind == Kind::choose && wanted == Kind::leave) return false;
        return holds(s.body, wanted) || holds(s.otherwise, wanted) || holds(s.first, wanted);
    });
}

bool gives_back_within_loop(const std::vector<ShaderStatement>& list, bool in_loop) {
    return std::any_of(list.begin(), list.end(), [&](const ShaderStatement& s) {
        if (s.kind == Kind::give_back || s.kind == Kind::discard) return in_loop;
        const bool inside = in_loop || s.kind == Kind::loop || s.kind == Kind::loop_after || s.kind == Kind::choose;
        return gives_back_within_loop(s.body, inside) || gives_back_within_loop(s.otherwise, inside);
    });
}

}  // namespace

bool returns_within_loop(const std::vector<ShaderStatement>& list) { return gives_back_within_loop(list, false); }

// What some work emits, by itself.
std::vector<TypedStatement> ShaderTranslator::inside(const std::function<void()>& work) {
    std::vector<TypedStatement> made;
    std::vector<TypedStatement>* const outside = std::exchange(out_, &made);
    work();
    out_ = outside;
    return made;
}

void ShaderTranslator::statements(const std::vector<ShaderStatement>& list) {
    for (const ShaderStatement& s : list) statement(s);
}

// Statements with names of their own.
void ShaderTranslator::scoped(const std::vector<ShaderStatement>& list) {
    names_.emplace_back();
    statements(list);
    names_.pop_back();
}

void ShaderTranslator::statement(const ShaderStatement& s) {
    count_work(s.span);
    switch (s.kind) {
        case Kind::nothing:
            return;
        case Kind::declare:
            return declare(s);
        case Kind::compute:
            return compute(s.nodes[0]);
        case Kind::branch:
            return branch(s);
        case Kind::loop:
        case Kind::loop_after:
            return loop(s);
        case Kind::choose:
            return choose(s);
        case Kind::label:
            refuse("lang.statement", at(s.span), "there is no switch around this", "take it out");
        case Kind::leave:
            return leave_loop(s.span);
        case Kind::skip:
            return skip_turn(s.span);
        case Kind::give_back:
            return give_back(s);
        case Kind::discard:
            return discard(s);
        case Kind::block:
            return scoped(s.body);
    }
}

// What nobody asks for the value of: then i++ is ++i, which needs not remember what was before.
void ShaderTranslator::compute(const ShaderNode& node) {
    if (node.kind == ShaderNodeKind::sequence) {
        compute(node.args[0]);
        return compute(node.args[1]);
    }
    if (node.kind != ShaderNodeKind::after) return void(value(node));
    ShaderNode before = node;
    before.kind = ShaderNodeKind::before;
    value(before);
}

Typed ShaderTranslator::condition(const ShaderNode& node, const char* who) {
    ShaderValue made = value(node);
    if (!made.shape.is(Type::boolean)) does_not_fit(made, leaf_shape(Type::boolean), who);
    return std::move(made.leaves[0]);
}

void ShaderTranslator::branch(const ShaderStatement& s) {
    TypedStatement made;
    made.kind = StatementKind::branch;
    made.span = at(s.span);
    made.values.push_back(condition(s.nodes[0], "'if'"));
    made.body = inside([&] { scoped(s.body); });
    made.otherwise = inside([&] { scoped(s.otherwise); });
    emit(std::move(made));
}

// Loops.

void ShaderTranslator::leave() {
    TypedStatement s;
    s.kind = StatementKind::leave;
    emit(std::move(s));
}

void ShaderTranslator::leave_loop(Span span) {
    for (auto around = run_.around.rbegin(); around != run_.around.rend(); ++around) {
        if (around->kind == Around::Kind::function) break;
        if (around->kind == Around::Kind::body) assign(around->flag, literal_leaf(Type::boolean, 1, at(span)));
        return leave();
    }
    refuse("lang.statement", at(span), "there is no loop around this", "take it out");
}

void ShaderTranslator::skip_turn(Span span) {
    for (auto around = run_.around.rbegin(); around != run_.around.rend(); ++around) {
        if (around->kind == Around::Kind::function) break;
        if (around->kind == Around::Kind::body) return leave();
        if (around->kind == Around::Kind::choice) {
            // The switch is left, and the turn of the loop around it after that.
            if (around->flag < 0) continue;
            assign(around->flag, literal_leaf(Type::boolean, 1, at(span)));
            return leave();
        }
        TypedStatement s;
        s.kind = StatementKind::skip;
        s.span = at(span);
        return emit(std::move(s));
    }
    refuse("lang.statement", at(span), "there is no loop around this", "take it out");
}

// Statements that can be left at any point: a loop of one turn.
void ShaderTranslator::once(Around around, Span span, const std::function<void()>& work) {
    TypedStatement s;
    s.kind = StatementKind::loop;
    s.span = at(span);
    const int counter = static_cast<int>(making_->function.variables.size());
    making_->function.variables.push_back({"once", Type::integer});
    const Typed here = variable_leaf(counter, "once", Type::integer, s.span);
    const auto number = [&](double value) { return literal_leaf(Type::integer, value, s.span); };
    TypedStatement first;
    first.kind = StatementKind::declare;
    first.variable = counter;
    first.values.push_back(number(0));
    s.first.push_back(std::move(first));
    s.values.push_back(joined(Operator::less, here, number(1), Type::boolean));
    TypedStatement last;
    last.kind = StatementKind::assign;
    last.variable = counter;
    last.values.push_back(joined(Operator::add, here, number(1), Type::integer));
    s.last.push_back(std::move(last));
    s.turns = 1;
    run_.around.push_back(around);
    s.body = inside(work);
    run_.around.pop_back();
    emit(std::move(s));
}

// After a loop in which the function may have given back.
void ShaderTranslator::leave_if_gone() {
    if (run_.gone < 0 || run_.around.empty()) return;
    TypedStatement s;
    s.kind = StatementKind::branch;
    s.values.push_back(variable_leaf(run_.gone, "gone", Type::boolean, {}));
    s.body = inside([&] { leave(); });
    emit(std::move(s));
}

void ShaderTranslator::loop(const ShaderStatement& s) {
    names_.emplace_back();
    if (s.kind != Kind::loop || !plain_loop(s)) general_loop(s);
    names_.pop_back();
    if (gives_back_within_loop(s.body, true)) leave_if_gone();
}

// A loop whose head changes nothing but its counter stays one.
bool ShaderTranslator::plain_loop(const ShaderStatement& s) {
    const bool head_changes = !s.condition.empty() && has_effects(s.condition[0]);
    if (head_changes || (!s.last.empty() && s.last[0].kind == ShaderNodeKind::sequence)) return false;
    TypedStatement made;
    made.kind = StatementKind::loop;
    made.span = at(s.span);
    // The head is tried first; what it needs before it tells whether it is plain.
    const std::size_t variables = making_->function.variables.size();
    std::vector<TypedStatement> first = inside([&] { statements(s.first); });
    Typed holds_on = literal_leaf(Type::boolean, 1, made.span);
    const std::vector<TypedStatement> before = inside([&] {
        if (!s.condition.empty()) holds_on = condition(s.condition[0], "'for'");
    });
    made.last = inside([&] {
        if (!s.last.empty()) compute(s.last[0]);
    });
    if (!before.empty() || made.last.size() > 1) {
        making_->function.variables.resize(variables);
        names_.back().clear();
        return false;
    }
    if (first.size() > 1) {
        for (std::size_t k = 0; k + 1 < first.size(); ++k) emit(std::move(first[k]));
        first.erase(first.begin(), first.end() - 1);
    }
    made.first = std::move(first);
    made.values.push_back(std::move(holds_on));
    run_.around.push_back({Around::Kind::loop, -1});
    made.body = inside([&] { scoped(s.body); });
    run_.around.pop_back();
    made.turns = counted_turns(made);
    emit(std::move(made));
    return true;
}

void ShaderTranslator::general_loop(const ShaderStatement& s) {
    statements(s.first);
    TypedStatement made;
    made.kind = StatementKind::loop;
    made.span = at(s.span);
    made.values.push_back(literal_leaf(Type::boolean, 1, made.span));
    const bool skips = holds(s.body, Kind::skip);
    const bool after = s.kind == Kind::loop_after;
    run_.around.push_back({Around::Kind::loop, -1});
    made.body = inside([&] {
        const auto look = [&] {
            if (s.condition.empty()) return;
            TypedStatement ends;
            ends.kind = StatementKind::branch;
            ends.span = made.span;
            Typed holds_on = condition(s.condition[0], "a loop");
            ends.values.push_back(std::move(holds_on));
            ends.otherwise = inside([&] { leave(); });
            emit(std::move(ends));
        };
        if (!after) look();
        if (skips) {
            const int left = new_flag("left");
            once({Around::Kind::body, left}, s.span, [&] { scoped(s.body); });
            TypedStatement ends;
            ends.kind = StatementKind::branch;
            ends.values.push_back(variable_leaf(left, "left", Type::boolean, made.span));
            ends.body = inside([&] { leave(); });
            emit(std::move(ends));
            if (gives_back_within_loop(s.body, true)) leave_if_gone();
        } else {
            scoped(s.body);
        }
        if (after) look();
        if (!s.last.empty()) compute(s.last[0]);
    });
    run_.around.pop_back();
    emit(std::move(made));
}

// A switch: from which label on is run, then everything behind that.
void ShaderTranslator::choose(const ShaderStatement& s) {
    ShaderValue number = value(s.nodes[0]);
    if (!number.shape.is(Type::integer) && !number.shape.is(Type::natural))
        does_not_fit(number, leaf_shape(Type::integer), "'switch'");
    const Type type = number.shape.leaf;
    const Span span = at(s.span);
    if (!s.body.empty() && s.body.front().kind != Kind::label)
        refuse("lang.statement", at(s.body.front().span), "nothing comes to this", "write a case before it");
    if (!s.body.empty() && s.body.back().kind == Kind::label)
        refuse("lang.statement", at(s.body.back().span), "nothing follows this label", "write break;");
    const Typed chosen = bound(std::move(number.leaves[0]));
    std::set<std::int64_t> seen;
    int labels = 0;
    int otherwise = -1;
    // The number of the label at which it begins.
    std::vector<std::pair<double, int>> cases;
    for (const ShaderStatement& each : s.body) {
        if (each.kind != Kind::label) continue;
        if (each.nodes.empty()) {
            if (otherwise >= 0) refuse("lang.statement", at(each.span), "there is a default already", "take one out");
            otherwise = labels;
        } else {
            const ShaderValue of = folded(value(each.nodes[0]));
            if (!(of.shape == number.shape)) does_not_fit(of, number.shape, "'case'");
            const std::int64_t value = whole_constant(each.nodes[0], "a case");
            if (!seen.insert(value).second)
                refuse("lang.statement", at(each.span), "this case is there already", "take one out");
            cases.emplace_back(static_cast<double>(value), labels);
        }
        ++labels;
    }
    Typed begins = literal_leaf(Type::integer, otherwise >= 0 ? otherwise : labels, span);
    for (const auto& [value, label] : cases)
        begins = chosen_leaf(joined(Operator::equal, chosen, literal_leaf(type, value, span), Type::boolean),
                             literal_leaf(Type::integer, label, span), std::move(begins));
    begins.span = span;
    const int begin = new_leaf("begin", Type::integer, std::move(begins));
    const bool in_loop = std::any_of(run_.around.begin(), run_.around.end(),
                                     [](const Around& a) { return a.kind == Around::Kind::loop; });
    const int skipped = in_loop && holds(s.body, Kind::skip) ? new_flag("skipped") : -1;
    once({Around::Kind::choice, skipped}, s.span, [&] {
        names_.emplace_back();
        int label = -1;
        for (std::size_t k = 0; k < s.body.size();) {
            if (s.body[k].kind == Kind::label) {
                ++label;
                ++k;
                continue;
            }
            // Declarations are known in all that follows, so they stand outside of the branches.
            if (s.body[k].kind == Kind::declare) {
                statement(s.body[k++]);
                continue;
            }
            TypedStatement reached;
            reached.kind = StatementKind::branch;
            reached.span = span;
            reached.values.push_back(joined(Operator::less_equal, variable_leaf(begin, "begin", Type::integer, span),
                                            literal_leaf(Type::integer, label, span), Type::boolean));
            reached.body = inside([&] {
                while (k < s.body.size() && s.body[k].kind != Kind::label && s.body[k].kind != Kind::declare)
                    statement(s.body[k++]);
            });
            emit(std::move(reached));
        }
        names_.pop_back();
    });
    if (skipped >= 0) {
        TypedStatement skip;
        skip.kind = StatementKind::branch;
        skip.span = span;
        skip.values.push_back(variable_leaf(skipped, "skipped", Type::boolean, span));
        skip.body = inside([&] { skip_turn(s.span); });
        emit(std::move(skip));
    }
    if (gives_back_within_loop(s.body, true)) leave_if_gone();
}

// Results.

// Leaves the function, whose result is set.
void ShaderTranslator::go() {
    if (run_.around.empty()) return;
    if (run_.around.back().kind != Around::Kind::function && run_.gone >= 0)
        assign(run_.gone, literal_leaf(Type::boolean, 1, {}));
    leave();
}

void ShaderTranslator::give_back(const ShaderStatement& s) {
    const Span span = at(s.span);
    if (run_.function == nullptr) {
        if (s.nodes.empty()) refuse("lang.no-result", span, "a step gives back a value", "write it after return");
        ShaderValue result = value(s.nodes[0]);
        if (!result.shape.is(GlslShape::Kind::leaf))
            refuse("lang.step-type", result.span,
                   "a step has up to four numbers, and this is a " + shape_text(result.shape), "give back one vector");
        TypedStatement made;
        made.kind = StatementKind::give_back;
        made.span = span;
        made.values.push_back(std::move(result.leaves[0]));
        return emit(std::move(made));
    }
    const std::string who = "'" + run_.function->name + "'";
    if (s.nodes.empty()) {
        if (!run_.type.is(GlslShape::Kind::nothing))
            refuse("lang.no-result", span, who + " gives back a " + shape_text(run_.type), "write it after return");
        return go();
    }
    ShaderValue result = value(s.nodes[0]);
    if (run_.type.is(GlslShape::Kind::nothing))
        refuse("lang.kind", span, who + " gives nothing back", "leave the value out");
    if (!(result.shape == run_.type)) does_not_fit(result, run_.type, who);
    if (run_.direct) {
        TypedStatement made;
        made.kind = StatementKind::give_back;
        made.span = span;
        made.values.push_back(std::move(result.leaves[0]));
        return emit(std::move(made));
    }
    if (result.leaves.size() > 1) result = kept(std::move(result));
    for (std::size_t k = 0; k < result.leaves.size(); ++k) assign(run_.result[k], std::move(result.leaves[k]));
    go();
}

// The pixel is clear.
void ShaderTranslator::discard(const ShaderStatement& s) {
    note(s.span, "discard leaves the pixel clear: its opacity is 0");
    if (run_.function == nullptr) {
        TypedStatement made;
        made.kind = StatementKind::give_back;
        made.span = at(s.span);
        made.values.push_back(literal_leaf(Type::number, 0, at(s.span)));
        return emit(std::move(made));
    }
    assign(discarded_, literal_leaf(Type::boolean, 1, at(s.span)));
    go();
}

}  // namespace lacquer
