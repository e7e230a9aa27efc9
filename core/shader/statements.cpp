// Declarations and statements: GLSL ES 3.00, chapters 4 and 6.
#include <fmt/core.h>

#include <algorithm>
#include <utility>

#include "core/lang/completed.h"
#include "core/lang/fitting.h"
#include "core/shader/parser.h"
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

namespace {

// A dial of whole numbers gives a plain number.
bool is_counted(const GlslShape& shape, Type type) {
    return type == Type::number && (shape.is(Type::integer) || shape.is(Type::natural));
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

// Declarations.

GlslShape ShaderTranslator::shape_of(const TypeSyntax& type) {
    GlslShape shape;
    if (type.structure != nullptr) {
        shape = define(*type.structure);
    } else if (const ShaderName* known = find(type.name); known != nullptr && known->is_type) {
        shape = known->shape;
    } else {
        shape = shape_named(type.name);
        const bool is_hidden = known != nullptr;
        if (is_hidden || (shape.is(GlslShape::Kind::nothing) && type.name != "void"))
            refuse("lang.unknown-name", at(type.span), "there is no type '" + type.name + "'", "take another");
    }
    return sized(std::move(shape), type.is_array, type.size, type.span, nullptr);
}

GlslShape ShaderTranslator::sized(GlslShape element, bool is_array, const std::vector<ShaderNode>& size, Span span,
                                  const GlslShape* of_value) {
    if (!is_array) return element;
    if (element.is(GlslShape::Kind::array))
        refuse("lang.left-out", at(span), "arrays of arrays are not in GLSL ES 3.00", "put the array into a struct");
    if (element.is(GlslShape::Kind::nothing)) refuse("lang.kind", at(span), "there are no arrays of nothing", "");
    std::int64_t count = 0;
    if (!size.empty()) {
        count = whole_constant(size[0], "the size of an array");
    } else if (of_value != nullptr && of_value->is(GlslShape::Kind::array)) {
        count = of_value->count;
    } else {
        refuse("shader.array", at(span), "the array has no size", "write it in the brackets");
    }
    if (count < 1) refuse("shader.array", at(span), "an array has one place at least", "write a larger size");
    if (count > most_elements || static_cast<std::size_t>(count) * leaf_count(element) > most_elements)
        refuse("shader.array", at(span), fmt::format("an array has {} places at most", most_elements), "use a picture");
    return array_shape(std::move(element), static_cast<int>(count));
}

GlslShape ShaderTranslator::define(const StructSyntax& structure) {
    auto made = std::make_shared<StructShape>();
    made->name = structure.name;
    for (const FieldsSyntax& fields : structure.fields) {
        if (fields.type.structure != nullptr)
            refuse("lang.left-out", at(fields.type.span), "a struct is not defined within another",
                   "define it before this one");
        const GlslShape type = shape_of(fields.type);
        for (const Declarator& field : fields.names) {
            GlslShape shape = sized(type, field.is_array, field.size, field.span, nullptr);
            if (shape.is(GlslShape::Kind::nothing) || holds_picture(shape))
                refuse("lang.kind", at(field.span), "a part of a struct cannot be a " + shape_text(shape), "");
            for (const auto& [name, known] : made->parts) {
                if (name == field.name)
                    refuse("lang.duplicate", at(field.span), "there is a part '" + name + "' already",
                           "give one of them another name");
            }
            made->parts.emplace_back(field.name, std::move(shape));
        }
    }
    GlslShape shape;
    shape.kind = GlslShape::Kind::structure;
    shape.structure = std::move(made);
    if (leaf_count(shape) > most_elements)
        refuse("shader.array", at(structure.span), "the struct is too large", "use a picture");
    if (!structure.name.empty()) {
        ShaderName name;
        name.shape = shape;
        name.is_type = true;
        name.writable = false;
        add_name(structure.name, structure.span, std::move(name));
    }
    return shape;
}

void ShaderTranslator::add_name(const std::string& name, Span span, ShaderName made) {
    Names& scope = names_.empty() ? globals_ : names_.back();
    if (scope.contains(name) || (names_.empty() && overloads_.contains(name) && !overloads_[name][0]->built_in))
        refuse("lang.duplicate", at(span), "something is called '" + name + "' already",
               "give one of them another name");
    scope[name] = std::move(made);
}

// `value` may be null.
ShaderName ShaderTranslator::new_variable(const std::string& name, const GlslShape& shape, Span span,
                                          const ShaderValue* value) {
    ShaderName made;
    made.shape = shape;
    const std::vector<Type> leaves = leaves_of(shape);
    for (std::size_t k = 0; k < leaves.size(); ++k) {
        Typed first = value != nullptr ? value->leaves[k]
                      : width_of(leaves[k]) == 1
                          ? literal_leaf(leaves[k], 0, at(span))
                          : spread(literal_leaf(make_type(scalar_of(leaves[k]), 1), 0, at(span)), leaves[k]);
        const std::string leaf = leaves.size() == 1 ? name : fmt::format("{}_{}", name, k);
        made.variables.push_back(new_leaf(leaf, leaves[k], std::move(first)));
    }
    return made;
}

void ShaderTranslator::declare(const ShaderStatement& s) {
    const bool by_value = s.type.is_array && s.type.size.empty();
    TypeSyntax element = s.type;
    if (by_value) element.is_array = false;
    const GlslShape type = shape_of(element);
    for (const Declarator& name : s.names) {
        if (!by_value) {
            declare_name(s, name, type);
            continue;
        }
        if (name.is_array)
            refuse("lang.left-out", at(name.span), "arrays of arrays are not in GLSL ES 3.00",
                   "put the array into a struct");
        Declarator array = name;
        array.is_array = true;
        declare_name(s, array, type);
    }
}

void ShaderTranslator::declare_name(const ShaderStatement& s, const Declarator& name, const GlslShape& type) {
    const bool global = names_.empty();
    if (s.storage == Storage::uniform || s.storage == Storage::input || s.storage == Storage::output) {
        if (!global) refuse("lang.expected", at(s.span), "this is declared outside of functions", "move it to the top");
        if (!name.value.empty())
            refuse("lang.assignment", at(name.span), "'" + name.name + "' comes from outside, so it has no value here",
                   "take the value out");
        const GlslShape shape = sized(type, name.is_array, name.size, name.span, nullptr);
        if (s.storage == Storage::uniform) return declare_uniform(name, shape);
        if (s.storage == Storage::input) return declare_input(name, shape);
        if (!shape.is(GlslShape::Kind::leaf) || scalar_of(shape.leaf) != Scalar::real)
            refuse("lang.left-out", at(name.span), "what a shader gives here is a vector of numbers", "write vec4");
        add_name(name.name, name.span, new_variable(name.name, shape, name.span, nullptr));
        outputs_.push_back(name.name);
        return;
    }
    if (type.is(GlslShape::Kind::nothing) || type.is(GlslShape::Kind::picture))
        refuse("lang.kind", at(name.span), "'" + name.name + "' cannot be a " + shape_text(type),
               type.is(GlslShape::Kind::picture) ? "write uniform before it" : "write another type");
    if (name.value.empty()) {
        if (s.storage == Storage::constant)
            refuse("shader.constant", at(name.span), "'" + name.name + "' is constant and has no value", "give it one");
        const GlslShape shape = sized(type, name.is_array, name.size, name.span, nullptr);
        add_name(name.name, name.span, new_variable(name.name, shape, name.span, nullptr));
        return;
    }
    ShaderValue first = folded(value(name.value[0]));
    const GlslShape wanted = sized(type, name.is_array, name.size, name.span, &first.shape);
    if (!(first.shape == wanted)) does_not_fit(first, wanted, "'" + name.name + "'");
    if (s.storage == Storage::constant) {
        if (!first.constant)
            refuse("shader.constant", first.span, "'" + name.name + "' is constant, and this is not",
                   "leave const out");
        ShaderName made;
        made.shape = wanted;
        made.fixed = std::move(first.leaves);
        made.constant = true;
        made.writable = false;
        return add_name(name.name, name.span, std::move(made));
    }
    if (global && upward_ && !first.constant)
        refuse("shader.constant", first.span, "outside of functions only constants are computed",
               "set it at the beginning of main");
    add_name(name.name, name.span, new_variable(name.name, wanted, name.span, &first));
}

// What comes from outside is known by its name: a dial, a signal, a ground.
void ShaderTranslator::declare_uniform(const Declarator& name, const GlslShape& shape) {
    const auto known = scope_.symbols.find(name.name);
    const bool fits = known != scope_.symbols.end() &&
                      (shape.is(GlslShape::Kind::picture)
                           ? known->second.kind == SymbolKind::step || known->second.kind == SymbolKind::ground
                           : shape.is(known->second.type) || is_counted(shape, known->second.type));
    if (!fits)
        refuse(
            "shader.uniform", at(name.span),
            fmt::format("there is no {} '{}' that is a {}",
                        shape.is(GlslShape::Kind::picture) ? "ground or step" : "dial", name.name, shape_text(shape)),
            "add one of this name, or bring the shader in by the menu Finish");
    ShaderNode node{ShaderNodeKind::name, name.span, name.span, name.name};
    const ShaderValue value = this->name(node);
    ShaderName made;
    made.shape = shape;
    made.picture = value.picture;
    if (!shape.is(GlslShape::Kind::picture)) made.fixed = value.leaves;
    if (is_counted(shape, known->second.type)) made.fixed = {wrap(Conversion(), shape.leaf, value.leaves[0])};
    made.writable = false;
    add_name(name.name, name.span, std::move(made));
}

// Without vertices only the place is known.
void ShaderTranslator::declare_input(const Declarator& name, const GlslShape& shape) {
    if (!shape.is(Type::vec2))
        refuse("shader.vertices", at(name.span),
               "'" + name.name + "' would come from vertices, and there are none here", "make a dial or a step of it");
    note(name.span, "'" + name.name + "' is taken as the place in the frame, 0 to 1");
    Typed uv{NameHere{"uv", SymbolKind::known}, Type::vec2, at(name.span)};
    if (upward_) {
        Typed made{Construction(), Type::vec2, uv.span};
        made.args.push_back(part_of(uv, 0));
        made.args.push_back(
            joined(Operator::subtract, literal_leaf(Type::number, 1, uv.span), part_of(uv, 1), Type::number));
        uv = std::move(made);
    }
    ShaderName made;
    made.shape = shape;
    made.fixed.push_back(std::move(uv));
    made.writable = false;
    add_name(name.name, name.span, std::move(made));
}

}  // namespace lacquer
