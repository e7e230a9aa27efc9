#include "core/lang/typed.h"

#include <algorithm>

#include "core/base/text.h"

namespace lacquer {

namespace {

std::string list(const std::vector<Typed>& args) {
    std::string text;
    for (const Typed& arg : args) text += (text.empty() ? "" : ", ") + to_text(arg);
    return text;
}

std::string statements_text(const std::vector<TypedStatement>& statements, const TypedFunction& function, int depth);

std::string target_text(const TypedStatement& s, const TypedFunction& function) {
    std::string text = function.variables[static_cast<std::size_t>(s.variable)].name;
    if (s.part_count > 0) text += ".";
    for (int i = 0; i < s.part_count; ++i) text += "xyzw"[s.parts[static_cast<std::size_t>(i)]];
    return text;
}

// A declaration or an assignment, without the semicolon.
std::string simple_text(const TypedStatement& s, const TypedFunction& function) {
    const TypedVariable& variable = function.variables[static_cast<std::size_t>(s.variable)];
    const bool declares = s.kind == StatementKind::declare;
    std::string text = declares ? std::string(glsl_name(variable.type)) + " " : "";
    text += target_text(s, function) + " = ";
    return text + (s.values.empty() ? std::string(glsl_name(variable.type)) + "(0)" : to_text(s.values[0]));
}

std::string statement_text(const TypedStatement& s, const TypedFunction& function, int depth) {
    const std::string margin(static_cast<std::size_t>(depth) * 4, ' ');
    const auto braced = [&](const std::vector<TypedStatement>& body) {
        return "{\n" + statements_text(body, function, depth + 1) + margin + "}";
    };
    switch (s.kind) {
        case StatementKind::declare:
        case StatementKind::assign:
            return margin + simple_text(s, function) + ";\n";
        case StatementKind::branch:
            return margin + "if (" + to_text(s.values[0]) + ") " + braced(s.body) +
                   (s.otherwise.empty() ? "" : " else " + braced(s.otherwise)) + "\n";
        case StatementKind::loop:
            return margin + "for (" + (s.first.empty() ? "" : simple_text(s.first[0], function)) + "; " +
                   to_text(s.values[0]) + "; " + (s.last.empty() ? "" : simple_text(s.last[0], function)) + ") " +
                   braced(s.body) + "\n";
        case StatementKind::leave:
            return margin + "break;\n";
        case StatementKind::skip:
            return margin + "continue;\n";
        case StatementKind::give_back:
            return margin + "return " + to_text(s.values[0]) + ";\n";
        case StatementKind::block:
            break;
    }
    return margin + braced(s.body) + "\n";
}

std::string statements_text(const std::vector<TypedStatement>& statements, const TypedFunction& function, int depth) {
    std::string text;
    for (const TypedStatement& s : statements) text += statement_text(s, function, depth);
    return text;
}

// Functions that this one calls, innermost first, each once.
void collect_functions(const Typed& typed, std::vector<const TypedFunction*>& functions) {
    const auto look = [&](const Typed& node) {
        const TypedFunction* function = node.function.get();
        if (function == nullptr || function->name.empty()) return;
        if (std::find(functions.begin(), functions.end(), function) == functions.end()) functions.push_back(function);
    };
    visit_nodes(typed, look);
    std::reverse(functions.begin(), functions.end());
}

std::string code_text(const Typed& typed) {
    std::vector<const TypedFunction*> functions;
    collect_functions(typed, functions);
    std::string text = "{\n";
    for (const TypedFunction* function : functions) {
        text += "    " + std::string(glsl_name(function->type)) + " " + function->name + "(";
        for (int i = 0; i < function->parameters; ++i) {
            const TypedVariable& variable = function->variables[static_cast<std::size_t>(i)];
            text += (i == 0 ? "" : ", ") + std::string(glsl_name(variable.type)) + " " + variable.name;
        }
        text += ") {\n" + statements_text(function->body, *function, 2) + "    }\n";
    }
    return text + statements_text(typed.function->body, *typed.function, 1) + "}";
}

std::string literal(const Typed& typed) {
    if (typed.type == Type::boolean) return typed.number != 0 ? "true" : "false";
    std::string text = shortest_number(typed.number);
    if (typed.type == Type::natural) return text + "u";
    if (typed.type == Type::number && text.find_first_of(".en") == std::string::npos) text += ".0";
    return text;
}

std::string parts_text(const Typed& typed) {
    std::string text = "(" + to_text(typed.args[0]) + ").";
    if (typed.args[0].kind != TypedKind::binary && typed.args[0].kind != TypedKind::select) {
        text = to_text(typed.args[0]) + ".";
    }
    for (int i = 0; i < typed.part_count; ++i) text += "xyzw"[typed.parts[static_cast<std::size_t>(i)]];
    return text;
}

std::string binary_text(const Typed& typed) {
    // 3 with 4 numbers need no more words: the language keeps the opacity by itself.
    return "(" + to_text(typed.args[0]) + " " + std::string(operator_mark(typed.op)) + " " + to_text(typed.args[1]) +
           ")";
}

std::string read_text(const Typed& typed) {
    const std::string name(builtin_row(typed.builtin).name);
    return name + "(" + typed.name + (typed.args.empty() ? "" : ", " + list(typed.args)) + ")";
}

}  // namespace

std::string to_text(const Typed& typed) {
    switch (typed.kind) {
        case TypedKind::literal:
            return literal(typed);
        case TypedKind::symbol:
        case TypedKind::variable:
            return typed.name;
        case TypedKind::parts:
            return parts_text(typed);
        case TypedKind::construct:
        case TypedKind::convert:
            return std::string(glsl_name(typed.type)) + "(" + list(typed.args) + ")";
        case TypedKind::unary:
            return std::string(operator_mark(typed.op)) + to_text(typed.args[0]);
        case TypedKind::binary:
            return binary_text(typed);
        case TypedKind::select:
            return "(" + to_text(typed.args[0]) + " ? " + to_text(typed.args[1]) + " : " + to_text(typed.args[2]) + ")";
        case TypedKind::call:
            return std::string(builtin_row(typed.builtin).name) + "(" + list(typed.args) + ")";
        case TypedKind::read:
            return read_text(typed);
        case TypedKind::run:
            return typed.name.empty() ? code_text(typed) : typed.name + "(" + list(typed.args) + ")";
    }
    return "";
}

namespace {

// Those whose spans lie in the text at hand.
template <class Visit>
void visit_own_nodes(const Typed& typed, Visit& visit) {
    visit(typed);
    for (const Typed& arg : typed.args) visit_own_nodes(arg, visit);
    if (typed.function == nullptr || typed.function->foreign) return;
    const auto inner = [&](const Typed& node) {
        const bool own = node.function == nullptr || !node.function->foreign;
        if (own) visit(node);
    };
    visit_nodes(typed.function->body, inner);
}

}  // namespace

bool counts_turns(const Typed& typed) {
    return (typed.function != nullptr && !typed.function->turns) ||
           std::any_of(typed.args.begin(), typed.args.end(), counts_turns);
}

std::vector<AdaptationMark> adaptations(const Typed& typed) {
    std::vector<AdaptationMark> marks;
    const auto collect = [&](const Typed& node) {
        if (node.adaptation != Adaptation::none) marks.push_back({node.adaptation, node.span});
    };
    visit_own_nodes(typed, collect);
    return marks;
}

std::string_view operator_mark(Operator op) {
    switch (op) {
        case Operator::add:
            return "+";
        case Operator::subtract:
            return "-";
        case Operator::multiply:
            return "*";
        case Operator::divide:
            return "/";
        case Operator::remainder:
            return "%";
        case Operator::shift_left:
            return "<<";
        case Operator::shift_right:
            return ">>";
        case Operator::less:
            return "<";
        case Operator::greater:
            return ">";
        case Operator::less_equal:
            return "<=";
        case Operator::greater_equal:
            return ">=";
        case Operator::equal:
            return "==";
        case Operator::not_equal:
            return "!=";
        case Operator::bit_and:
            return "&";
        case Operator::bit_xor:
            return "^";
        case Operator::bit_or:
            return "|";
        case Operator::both:
            return "&&";
        case Operator::either_one:
            return "^^";
        case Operator::either:
            return "||";
        case Operator::negate:
            return "-";
        case Operator::invert:
            return "!";
        case Operator::bit_invert:
            return "~";
    }
    return "";
}

}  // namespace lacquer
