#include "core/lang/tree_printer.h"

#include <fmt/core.h>

#include <utility>

#include "core/base/overloaded.h"

namespace lacquer {

int strength_of(Operator op) {
    switch (op) {
        case Operator::either:
            return 1;
        case Operator::either_one:
            return 2;
        case Operator::both:
            return 3;
        case Operator::bit_or:
            return 4;
        case Operator::bit_xor:
            return 5;
        case Operator::bit_and:
            return 6;
        case Operator::equal:
        case Operator::not_equal:
            return 7;
        case Operator::less:
        case Operator::greater:
        case Operator::less_equal:
        case Operator::greater_equal:
            return 8;
        case Operator::shift_left:
        case Operator::shift_right:
            return 9;
        case Operator::add:
        case Operator::subtract:
            return 10;
        case Operator::multiply:
        case Operator::divide:
        case Operator::remainder:
            return 11;
        case Operator::negate:
        case Operator::invert:
        case Operator::bit_invert:
            break;
    }
    return sign_strength;
}

std::string bracketed(std::string text, bool brackets) { return brackets ? "(" + std::move(text) + ")" : text; }

std::string TreePrinter::expression(const Typed& t, int strength) {
    const auto choice = [&] {
        return bracketed(expression(t.args[0], 1) + " ? " + expression(t.args[1], 1) + " : " + expression(t.args[2], 1),
                         strength > 0);
    };
    return std::visit(
        Overloaded{[&](const Literal&) { return literal(t, strength); }, [&](const NameHere&) { return symbol(t); },
                   [&](const VariableHere& v) { return variable(v.number, v.name); },
                   [&](const PartsOf& taken) { return parts(t, taken); },
                   [&](const Construction&) { return std::string(glsl_name(t.type)) + "(" + list(t.args) + ")"; },
                   [&](const Conversion&) { return convert(t); },
                   [&](const UnaryOperation& operation) { return unary(t, operation.op); },
                   [&](const BinaryOperation&) { return binary(t, strength); },
                   [&](const ConditionalChoice&) { return choice(); }, [&](const BuiltinCall&) { return call(t); },
                   [&](const PictureReading&) { return read(t); }, [&](const FunctionRun&) { return run(t); }},
        t.node);
}

std::string TreePrinter::list(std::span<const Typed> args) {
    std::string text;
    for (const Typed& arg : args) text += (text.empty() ? "" : ", ") + expression(arg, 0);
    return text;
}

// The parts of a vector by their letters; of a matrix, whose parts lie in one column, by that column's number.
std::string TreePrinter::part_names(Type of, std::span<const std::uint8_t> parts) const {
    if (!is_matrix(of)) {
        std::string text = ".";
        for (const std::uint8_t part : parts) text += part_letters(of)[part];
        return text;
    }
    const int side = side_of(of);
    const int column = parts[0] / side;
    std::vector<std::uint8_t> rows;
    bool whole = static_cast<int>(parts.size()) == side;
    for (const std::uint8_t part : parts) {
        whole = whole && part % side == static_cast<int>(rows.size());
        rows.push_back(static_cast<std::uint8_t>(part % side));
    }
    const std::string text = fmt::format("[{}]", column);
    return whole ? text : text + part_names(make_type(Scalar::real, side), rows);
}

std::string TreePrinter::parts(const Typed& t, const PartsOf& taken) {
    return expression(t.args[0], sign_strength + 1) +
           part_names(t.args[0].type, std::span(taken.parts.data(), static_cast<std::size_t>(taken.count)));
}

std::string TreePrinter::unary(const Typed& t, Operator op) {
    const std::string inner = expression(t.args[0], sign_strength);
    // Two signs in a row would read as one of another kind.
    return std::string(operator_mark(op)) + bracketed(inner, !inner.empty() && inner[0] == operator_mark(op)[0]);
}

std::string TreePrinter::function_text(const TypedFunction& function, const std::string& name, int depth) {
    const TypedFunction* const outside = std::exchange(function_, &function);
    const std::string margin(static_cast<std::size_t>(depth) * 4, ' ');
    std::string head = margin + std::string(glsl_name(function.type)) + " " + name + "(";
    for (int i = 0; i < function.parameters; ++i) {
        const TypedVariable& parameter = function.variables[static_cast<std::size_t>(i)];
        head += fmt::format("{}{} {}", i == 0 ? "" : ", ", glsl_name(parameter.type), variable(i, parameter.name));
    }
    std::string text = head + ") {\n" + statements(function.body, depth + 1) + margin + "}\n";
    function_ = outside;
    return text;
}

std::string TreePrinter::statements(std::span<const TypedStatement> list, int depth) {
    std::string text;
    for (const TypedStatement& s : list) text += statement(s, depth);
    return text;
}

// A declaration or an assignment, without the semicolon.
std::string TreePrinter::simple(const TypedStatement& s) {
    const TypedVariable& changed = function_->variables[static_cast<std::size_t>(s.variable)];
    std::string text = s.kind == StatementKind::declare ? std::string(glsl_name(changed.type)) + " " : "";
    text += variable(s.variable, changed.name);
    if (s.part_count > 0)
        text += part_names(changed.type, std::span(s.parts.data(), static_cast<std::size_t>(s.part_count)));
    if (!s.values.empty()) return text + " = " + expression(s.values[0], 0);
    const char* zero = scalar_of(changed.type) == Scalar::real      ? "0.0"
                       : scalar_of(changed.type) == Scalar::truth   ? "false"
                       : scalar_of(changed.type) == Scalar::natural ? "0u"
                                                                    : "0";
    return text + " = " +
           (width_of(changed.type) == 1 ? zero : std::string(glsl_name(changed.type)) + "(" + zero + ")");
}

std::string TreePrinter::statement(const TypedStatement& s, int depth) {
    const std::string margin(static_cast<std::size_t>(depth) * 4, ' ');
    const auto braced = [&](const std::vector<TypedStatement>& body) {
        return "{\n" + statements(body, depth + 1) + margin + "}";
    };
    switch (s.kind) {
        case StatementKind::declare:
        case StatementKind::assign:
            return margin + simple(s) + ";\n";
        case StatementKind::branch:
            return margin + "if (" + expression(s.values[0], 0) + ") " + braced(s.body) +
                   (s.otherwise.empty() ? "" : " else " + braced(s.otherwise)) + "\n";
        case StatementKind::loop:
            return margin + "for (" + (s.first.empty() ? "" : simple(s.first[0])) + "; " + condition(s.values[0]) +
                   "; " + (s.last.empty() ? "" : simple(s.last[0])) + ") " + braced(s.body) + "\n";
        case StatementKind::leave:
            return margin + "break;\n";
        case StatementKind::skip:
            return margin + "continue;\n";
        case StatementKind::give_back:
            return margin + "return " + expression(s.values[0], 0) + ";\n";
        case StatementKind::block:
            break;
    }
    return margin + braced(s.body) + "\n";
}

}  // namespace lacquer
