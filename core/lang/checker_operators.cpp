// Operators: which types they take, and what comes out.
#include <fmt/core.h>

#include <algorithm>
#include <array>

#include "core/lang/expression_checker.h"

namespace lacquer {

namespace {

struct OperatorRow {
    std::string_view mark;
    Operator op;
};
constexpr std::array<OperatorRow, 19> binary_operators = {{{"+", Operator::add},
                                                           {"-", Operator::subtract},
                                                           {"*", Operator::multiply},
                                                           {"/", Operator::divide},
                                                           {"%", Operator::remainder},
                                                           {"<<", Operator::shift_left},
                                                           {">>", Operator::shift_right},
                                                           {"<", Operator::less},
                                                           {">", Operator::greater},
                                                           {"<=", Operator::less_equal},
                                                           {">=", Operator::greater_equal},
                                                           {"==", Operator::equal},
                                                           {"!=", Operator::not_equal},
                                                           {"&", Operator::bit_and},
                                                           {"^", Operator::bit_xor},
                                                           {"|", Operator::bit_or},
                                                           {"&&", Operator::both},
                                                           {"^^", Operator::either_one},
                                                           {"||", Operator::either}}};

// The kind of whole number that two sides of an operator are to be: that of the side which is not a plain literal.
Scalar common_whole(const Typed& left, const Typed& right) {
    return is_whole(left.type) ? scalar_of(left.type) : scalar_of(right.type);
}

bool is_equality(Operator op) { return op == Operator::equal || op == Operator::not_equal; }

}  // namespace

Operator binary_operator(std::string_view mark) {
    const auto* row = std::find_if(binary_operators.begin(), binary_operators.end(),
                                   [&](const OperatorRow& r) { return r.mark == mark; });
    return row->op;
}

Result<Typed> ExpressionChecker::unary(const Expression& e) {
    Result<Typed> operand = value(e.args[0]);
    if (!operand) return operand;
    const Type type = operand->type;
    const std::string who = "'" + e.text + "'";
    if (e.text == "!") {
        if (type != Type::boolean) return does_not_fit(*operand, Type::boolean, who);
    } else if (scalar_of(type) == Scalar::truth) {
        return does_not_fit(*operand, Type::number, who);
    } else if (e.text == "~" && !is_whole(type)) {
        if (!fits(*operand, Type::integer)) return does_not_fit(*operand, Type::integer, who);
        operand = fitted(std::move(*operand), Type::integer);
    }
    if (e.text == "+") return operand;
    if (e.text == "-" && operand->is<Literal>() && type != Type::natural) {
        operand->get<Literal>().number *= -1;
        operand->span = e.span;
        return operand;
    }
    const Operator op = e.text == "-" ? Operator::negate : e.text == "!" ? Operator::invert : Operator::bit_invert;
    Typed made = wrap(UnaryOperation{op}, type, std::move(*operand));
    made.span = e.span;
    return made;
}

Result<Typed> ExpressionChecker::sometimes(const Expression& e, const char* where) {
    const std::string outside = divergent;
    if (divergent.empty()) divergent = where;
    Result<Typed> made = value(e);
    divergent = outside;
    return made;
}

Result<Typed> ExpressionChecker::binary(const Expression& e) {
    Result<Typed> left = value(e.args[0]);
    if (!left) return left;
    const bool may_skip = e.text == "&&" || e.text == "||";
    Result<Typed> right = may_skip ? sometimes(e.args[1], "behind && or ||") : value(e.args[1]);
    if (!right) return right;
    return operation(binary_operator(e.text), e.span, e.text, std::move(*left), std::move(*right));
}

Result<Typed> ExpressionChecker::operation(Operator op, Span span, std::string_view mark, Typed left,
                                           Typed right) const {
    Typed made{BinaryOperation{op}, Type::number, span};
    made.args.push_back(std::move(left));
    made.args.push_back(std::move(right));
    switch (op) {
        case Operator::both:
        case Operator::either:
        case Operator::either_one:
            return logical(mark, std::move(made));
        case Operator::remainder:
        case Operator::shift_left:
        case Operator::shift_right:
        case Operator::bit_and:
        case Operator::bit_or:
        case Operator::bit_xor:
            return whole_number_operator(mark, std::move(made));
        case Operator::less:
        case Operator::greater:
        case Operator::less_equal:
        case Operator::greater_equal:
            return comparison(mark, std::move(made));
        default:
            return arithmetic(mark, std::move(made));
    }
}

Result<Typed> ExpressionChecker::logical(std::string_view mark, Typed made) const {
    for (const Typed& arg : made.args) {
        if (arg.type != Type::boolean) return does_not_fit(arg, Type::boolean, fmt::format("'{}'", mark));
    }
    made.type = Type::boolean;
    return made;
}

Result<Typed> ExpressionChecker::whole_number_operator(std::string_view mark, Typed made) const {
    const bool some_whole = is_whole(made.args[0].type) || is_whole(made.args[1].type);
    const Scalar scalar = some_whole ? common_whole(made.args[0], made.args[1]) : Scalar::whole;
    for (Typed& arg : made.args) {
        if (!is_whole(arg.type) && !fits(arg, make_type(scalar, 1))) {
            Fault wrong = does_not_fit(arg, make_type(scalar, width_of(arg.type) <= 4 ? width_of(arg.type) : 1),
                                       fmt::format("'{}'", mark));
            if (mark == "%") {
                wrong.mend = fmt::format("write mod({}, {})", source(made.args[0].span), source(made.args[1].span));
            }
            return wrong;
        }
        if (!is_whole(arg.type)) arg = fitted(std::move(arg), make_type(scalar, 1));
    }
    return whole_arithmetic(mark, std::move(made));
}

Result<Typed> ExpressionChecker::whole_arithmetic(std::string_view mark, Typed made) const {
    Typed& left = made.args[0];
    Typed& right = made.args[1];
    const std::string who = fmt::format("'{}'", mark);
    const Scalar scalar = common_whole(left, right);
    const Operator op = made.get<BinaryOperation>().op;
    const bool shifts = op == Operator::shift_left || op == Operator::shift_right;
    int width = 1;
    for (const Typed& arg : made.args) {
        if (is_whole(arg.type)) width = std::max(width, width_of(arg.type));
    }
    for (Typed& arg : made.args) {
        // By how much is shifted may be with or without sign.
        const Scalar own = shifts && is_whole(arg.type) ? scalar_of(arg.type) : scalar;
        const Type wanted = make_type(own, width);
        if (!fits(arg, wanted)) {
            if (is_whole(arg.type) && scalar_of(arg.type) == own) return unequal_widths(left, right, who);
            // The plain number is easier to live with: its partner becomes one.
            if (is_float(arg.type)) return does_not_fit(&arg == &left ? right : left, arg.type, who);
            return does_not_fit(arg, wanted, who);
        }
        arg = fitted(std::move(arg), wanted);
    }
    const bool compares = is_equality(made.get<BinaryOperation>().op);
    made.type = compares ? Type::boolean : left.type;
    return made;
}

Result<Typed> ExpressionChecker::comparison(std::string_view mark, Typed made) const {
    const bool whole = is_whole(made.args[0].type) || is_whole(made.args[1].type);
    const Type wanted = whole ? make_type(common_whole(made.args[0], made.args[1]), 1) : Type::number;
    for (Typed& arg : made.args) {
        if (arg.type != wanted && !(whole && fits(arg, wanted))) {
            Fault wrong = does_not_fit(arg, wanted, fmt::format("'{}'", mark));
            if (width_of(arg.type) > 1 && !is_matrix(arg.type)) {
                wrong.mend += mark == "<"    ? ", or lessThan for each part"
                              : mark == ">"  ? ", or greaterThan for each part"
                              : mark == "<=" ? ", or lessThanEqual for each part"
                                             : ", or greaterThanEqual for each part";
            }
            return wrong;
        }
        arg = fitted(std::move(arg), wanted);
    }
    made.type = Type::boolean;
    return made;
}

Result<Typed> ExpressionChecker::arithmetic(std::string_view mark, Typed made) const {
    Typed& left = made.args[0];
    Typed& right = made.args[1];
    const bool compares = is_equality(made.get<BinaryOperation>().op);
    const std::string who = fmt::format("'{}'", mark);
    const bool truths = scalar_of(left.type) == Scalar::truth || scalar_of(right.type) == Scalar::truth;
    if (truths) {
        if (compares && left.type == right.type) {
            made.type = Type::boolean;
            return made;
        }
        return does_not_fit(scalar_of(left.type) == Scalar::truth ? left : right, Type::number, who);
    }
    if (is_matrix(left.type) || is_matrix(right.type)) return matrix_arithmetic(mark, std::move(made));
    if (is_whole(left.type) || is_whole(right.type)) return whole_arithmetic(mark, std::move(made));
    const int l = width_of(left.type);
    const int r = width_of(right.type);
    if ((l == 3 && r == 4) || (l == 4 && r == 3)) {
        if (compares) {
            left = fitted(std::move(left), Type::vec3);
            right = fitted(std::move(right), Type::vec3);
            made.type = Type::boolean;
            return made;
        }
        made.get<BinaryOperation>().opacity_of = l == 4 ? 0 : 1;
        made.type = Type::vec4;
        return made;
    }
    if (l != r && l != 1 && r != 1) return unequal_widths(left, right, who);
    const Type type = float_type(std::max(l, r));
    left = fitted(std::move(left), type);
    right = fitted(std::move(right), type);
    made.type = compares ? Type::boolean : type;
    return made;
}

Result<Typed> ExpressionChecker::matrix_arithmetic(std::string_view mark, Typed made) const {
    Typed& left = made.args[0];
    Typed& right = made.args[1];
    const Type matrix = is_matrix(left.type) ? left.type : right.type;
    Typed& other = is_matrix(left.type) ? right : left;
    const bool compares = is_equality(made.get<BinaryOperation>().op);
    if (left.type == right.type || (!compares && other.type == Type::number)) {
        made.type = compares ? Type::boolean : matrix;
        return made;
    }
    const Type vector = float_type(side_of(matrix));
    if (made.get<BinaryOperation>().op == Operator::multiply && fits(other, vector)) {
        other = fitted(std::move(other), vector);
        made.type = vector;
        return made;
    }
    return fault("lang.matrix", made.span,
                 fmt::format("{} is {} and {} is {}; '{}' cannot bring them together", quoted(left.span),
                             glsl_name(left.type), quoted(right.span), glsl_name(right.type), mark),
                 fmt::format("a {} goes with a number, a {} or another {}", glsl_name(matrix), glsl_name(vector),
                             glsl_name(matrix)));
}

Fault ExpressionChecker::unequal_widths(const Typed& a, const Typed& b, const std::string& who) const {
    const Typed& wide = width_of(a.type) > width_of(b.type) ? a : b;
    const Typed& narrow = width_of(a.type) > width_of(b.type) ? b : a;
    return fault("lang.width", cover(a.span, b.span),
                 fmt::format("{} is {} and {} is {}; {} needs them alike", quoted(a.span), said(a.type), quoted(b.span),
                             said(b.type), who),
                 mend_for(wide, narrow.type));
}

Result<Typed> ExpressionChecker::select(const Expression& e) {
    Result<Typed> condition = value(e.args[0]);
    if (!condition) return condition;
    if (condition->type != Type::boolean) return does_not_fit(*condition, Type::boolean, "'?'");
    Result<Typed> yes = sometimes(e.args[1], "behind ?");
    if (!yes) return yes;
    Result<Typed> no = sometimes(e.args[2], "behind ?");
    if (!no) return no;
    Type type = yes->type;
    if (yes->type != no->type) {
        const bool widen = fits(*yes, no->type) && (width_of(no->type) > width_of(yes->type) || !fits(*no, yes->type));
        type = widen ? no->type : yes->type;
        if (!fits(widen ? *yes : *no, type)) {
            if (is_float(yes->type) && is_float(no->type)) return unequal_widths(*yes, *no, "'?'");
            return does_not_fit(*no, yes->type, "':'");
        }
    }
    Typed made{ConditionalChoice(), type, e.span};
    made.args.push_back(std::move(*condition));
    made.args.push_back(fitted(std::move(*yes), type));
    made.args.push_back(fitted(std::move(*no), type));
    return made;
}

}  // namespace lacquer
