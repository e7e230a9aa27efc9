// Small parts that all of the translation shares: leaves of values, and what is said of them.
#include <fmt/core.h>

#include <algorithm>
#include <utility>

#include "core/lang/completed.h"
#include "core/lang/fitting.h"
#include "core/shader/refusal.h"
#include "core/shader/translator.h"

namespace lacquer {

Typed literal_leaf(Type type, double number, Span span) { return {Literal{number}, type, span}; }

Typed joined(Operator op, Typed left, Typed right, Type type) {
    Typed made{BinaryOperation{op}, type, cover(left.span, right.span)};
    made.args.push_back(std::move(left));
    made.args.push_back(std::move(right));
    return made;
}

Typed spread(Typed number, Type type) {
    return number.type == type ? number : wrap(Construction(), type, std::move(number));
}

Typed part_of(Typed vector, int part) {
    return width_of(vector.type) == 1 ? vector : take_parts(std::move(vector), {part});
}

Typed variable_leaf(int number, const std::string& name, Type type, Span span) {
    return {VariableHere{number, name}, type, span};
}

Typed chosen_leaf(Typed condition, Typed yes, Typed no) {
    Typed made{ConditionalChoice(), yes.type, condition.span};
    made.args.push_back(std::move(condition));
    made.args.push_back(std::move(yes));
    made.args.push_back(std::move(no));
    return made;
}

std::string ShaderTranslator::quoted(Span span) const {
    std::string words(text_.substr(span.begin, span.end - span.begin));
    std::replace(words.begin(), words.end(), '\n', ' ');
    return "'" + (words.size() <= 40 ? words : words.substr(0, 37) + "...") + "'";
}

void ShaderTranslator::does_not_fit(const ShaderValue& value, const GlslShape& wanted, const std::string& who) const {
    const bool both_numbers = value.shape.is_scalar() && wanted.is_scalar();
    refuse(both_numbers ? "lang.kind" : "lang.width", value.span,
           fmt::format("{} is {}, {} needs {}", quoted(value.span), shape_text(value.shape), who, shape_text(wanted)),
           both_numbers ? "write " + converted_text(value.span, wanted) : "");
}

// How a number is written to be of another type: a whole literal with a point, all else in a constructor.
std::string ShaderTranslator::converted_text(Span span, const GlslShape& wanted) const {
    const std::string words(text_.substr(span.begin, std::min<std::size_t>(span.end - span.begin, 40)));
    const bool plain = !words.empty() && words.find_first_not_of("0123456789") == std::string::npos;
    return plain && wanted.is(Type::number) ? words + ".0" : fmt::format("{}({})", shape_text(wanted), words);
}

void ShaderTranslator::count_work(Span span, std::size_t much) {
    work_ += much;
    if (work_ > 50 * max_nodes)
        refuse("lang.too-big", at(span), "with the functions it calls, this is too long to compute",
               "split it into several steps");
}

void ShaderTranslator::note(Span span, std::string message) {
    if (!told_.insert(message).second) return;
    notes_.push_back({"shader.note", std::move(message), "", {{}, at(span), 0, 0}, Severity::warning});
}

void ShaderTranslator::emit(TypedStatement statement) {
    count_work(statement.span);
    out_->push_back(std::move(statement));
}

void ShaderTranslator::assign(int variable, Typed value) {
    TypedStatement s;
    s.kind = StatementKind::assign;
    s.span = value.span;
    s.variable = variable;
    s.values.push_back(std::move(value));
    emit(std::move(s));
}

int ShaderTranslator::new_leaf(const std::string& name, Type type, Typed value) {
    const int number = static_cast<int>(making_->function.variables.size());
    making_->function.variables.push_back({name, type});
    TypedStatement s;
    s.kind = StatementKind::declare;
    s.span = value.span;
    s.variable = number;
    s.values.push_back(std::move(value));
    emit(std::move(s));
    return number;
}

int ShaderTranslator::new_flag(const std::string& name) {
    return new_leaf(name, Type::boolean, literal_leaf(Type::boolean, 0, {}));
}

namespace {

// May be written down more than once.
bool is_simple(const Typed& leaf) {
    if (leaf.is<Literal>() || leaf.is<VariableHere>()) return true;
    if (const auto* here = leaf.as<NameHere>())
        return here->symbol != SymbolKind::step && here->symbol != SymbolKind::ground;
    if (leaf.is<PartsOf>()) return is_simple(leaf.args[0]);
    return leaf.is<Construction>() &&
           std::all_of(leaf.args.begin(), leaf.args.end(), [](const Typed& arg) { return arg.is<Literal>(); });
}

bool uses_variables(const Typed& leaf) {
    return leaf.is<VariableHere>() || std::any_of(leaf.args.begin(), leaf.args.end(), uses_variables);
}

}  // namespace

Typed ShaderTranslator::bound(Typed leaf) {
    if (is_simple(leaf)) return leaf;
    const Type type = leaf.type;
    const Span span = leaf.span;
    return variable_leaf(new_leaf("part", type, std::move(leaf)), "part", type, span);
}

ShaderValue ShaderTranslator::bound(ShaderValue value) {
    for (Typed& leaf : value.leaves) leaf = bound(std::move(leaf));
    return value;
}

// Stays what it is though variables change after it.
ShaderValue ShaderTranslator::kept(ShaderValue value) {
    for (Typed& leaf : value.leaves) {
        if (!uses_variables(leaf)) continue;
        const Type type = leaf.type;
        const Span span = leaf.span;
        leaf = variable_leaf(new_leaf("before", type, std::move(leaf)), "before", type, span);
    }
    return value;
}

}  // namespace lacquer
