// Operators: GLSL ES 3.00, sections 5.8 to 5.11. There are no implicit conversions.
#include <fmt/core.h>

#include <utility>

#include "core/lang/expression_checker.h"
#include "core/shader/refusal.h"
#include "core/shader/translator.h"

namespace lacquer {

namespace {

bool is_arithmetic(const GlslShape& shape) {
    return shape.is(GlslShape::Kind::matrix) ||
           (shape.is(GlslShape::Kind::leaf) && scalar_of(shape.leaf) != Scalar::truth);
}
bool is_whole_leaf(const GlslShape& shape) { return shape.is(GlslShape::Kind::leaf) && is_whole(shape.leaf); }

}  // namespace

void ShaderTranslator::no_operation(const std::string& mark, Span span, const ShaderValue& left,
                                    const ShaderValue& right) const {
    std::string mend = "convert one of them, for example float(...)";
    const auto is_literal = [&](const ShaderValue& v) { return v.leaves.size() == 1 && v.leaves[0].is<Literal>(); };
    if (right.shape.is_scalar() && !right.shape.is(Type::number) && (left.shape.is_scalar() || is_literal(right)))
        mend = "write " + converted_text(right.span, left.shape.is_scalar() ? left.shape : leaf_shape(Type::number));
    else if (left.shape.is_scalar() && is_literal(left) && !left.shape.is(Type::number))
        mend = "write " + converted_text(left.span, leaf_shape(Type::number));
    refuse(left.shape.is_scalar() && right.shape.is_scalar() ? "lang.kind" : "lang.width", at(span),
           fmt::format("{} is {} and {} is {}; GLSL has no '{}' for them", quoted(left.span), shape_text(left.shape),
                       quoted(right.span), shape_text(right.shape), mark),
           mend);
}

ShaderValue ShaderTranslator::unary(const ShaderNode& node) {
    ShaderValue of = value(node.args[0]);
    const bool fits = node.text == "!"   ? of.shape.is(Type::boolean)
                      : node.text == "~" ? is_whole_leaf(of.shape)
                                         : is_arithmetic(of.shape);
    if (!fits)
        refuse("lang.kind", at(node.span), fmt::format("GLSL has no '{}' for a {}", node.text, shape_text(of.shape)),
               "");
    of.span = at(node.span);
    of.picture.reset();
    if (node.text == "+") return of;
    const Operator op = node.text == "!"   ? Operator::invert
                        : node.text == "~" ? Operator::bit_invert
                                           : Operator::negate;
    for (Typed& leaf : of.leaves) {
        Typed made{UnaryOperation{op}, leaf.type, of.span};
        made.args.push_back(std::move(leaf));
        leaf = std::move(made);
    }
    return of.constant ? folded(std::move(of)) : of;
}

ShaderValue ShaderTranslator::operation(const std::string& mark, Span span, ShaderValue left, ShaderValue right) {
    const bool constant = left.constant && right.constant;
    ShaderValue made;
    if (mark == "==" || mark == "!=") {
        made = equality(mark, span, std::move(left), std::move(right));
    } else if (mark == "^^") {
        if (!left.shape.is(Type::boolean) || !right.shape.is(Type::boolean)) no_operation(mark, span, left, right);
        made = {leaf_shape(Type::boolean),
                {joined(Operator::either_one, std::move(left.leaves[0]), std::move(right.leaves[0]), Type::boolean)},
                {}};
    } else if (mark == "<" || mark == ">" || mark == "<=" || mark == ">=") {
        const bool fits = left.shape.is_scalar() && is_arithmetic(left.shape) && left.shape == right.shape;
        if (!fits) no_operation(mark, span, left, right);
        made = {leaf_shape(Type::boolean),
                {joined(binary_operator(mark), std::move(left.leaves[0]), std::move(right.leaves[0]), Type::boolean)},
                {}};
    } else if (mark == "+" || mark == "-" || mark == "*" || mark == "/") {
        made = arithmetic(mark, span, std::move(left), std::move(right));
    } else {
        made = whole_operation(mark, span, std::move(left), std::move(right));
    }
    made.span = at(span);
    made.constant = constant;
    for (Typed& leaf : made.leaves) leaf.span = made.span;
    return made;
}

ShaderValue ShaderTranslator::equality(const std::string& mark, Span span, ShaderValue left, ShaderValue right) {
    const bool fits = left.shape == right.shape && !left.leaves.empty() && !holds_picture(left.shape);
    if (!fits) no_operation(mark, span, left, right);
    const bool equal = mark == "==";
    std::optional<Typed> all;
    for (std::size_t k = 0; k < left.leaves.size(); ++k) {
        Typed one = joined(equal ? Operator::equal : Operator::not_equal, std::move(left.leaves[k]),
                           std::move(right.leaves[k]), Type::boolean);
        all = all ? joined(equal ? Operator::both : Operator::either, std::move(*all), std::move(one), Type::boolean)
                  : std::move(one);
    }
    return {leaf_shape(Type::boolean), {std::move(*all)}, {}};
}

ShaderValue ShaderTranslator::arithmetic(const std::string& mark, Span span, ShaderValue left, ShaderValue right) {
    if (!is_arithmetic(left.shape) || !is_arithmetic(right.shape)) no_operation(mark, span, left, right);
    const Operator op = binary_operator(mark);
    const bool matrices = left.shape.is(GlslShape::Kind::matrix) || right.shape.is(GlslShape::Kind::matrix);
    if (!matrices) {
        const int l = width_of(left.shape.leaf);
        const int r = width_of(right.shape.leaf);
        if (scalar_of(left.shape.leaf) != scalar_of(right.shape.leaf) || (l != r && l != 1 && r != 1))
            no_operation(mark, span, left, right);
        const Type type = l > r ? left.shape.leaf : right.shape.leaf;
        if (op == Operator::divide && is_whole(type) && !elsewhere_)
            note(span, "whole numbers are divided by GLSL's rule: 1 / 2 is 0");
        return {leaf_shape(type),
                {joined(op, spread(std::move(left.leaves[0]), type), spread(std::move(right.leaves[0]), type), type)},
                {}};
    }
    const bool product = op == Operator::multiply && !left.shape.is(Type::number) && !right.shape.is(Type::number);
    if (product) return matrix_product(span, std::move(left), std::move(right));
    const bool number_left = left.shape.is(Type::number);
    const bool number_right = right.shape.is(Type::number);
    if (!number_left && !number_right && !(left.shape == right.shape)) no_operation(mark, span, left, right);
    ShaderValue made{number_left ? right.shape : left.shape, {}, {}};
    if (number_left) left = bound(std::move(left));
    if (number_right) right = bound(std::move(right));
    const Type column = float_type(made.shape.rows);
    for (std::size_t k = 0; k < static_cast<std::size_t>(made.shape.columns); ++k) {
        Typed a = number_left ? spread(left.leaves[0], column) : std::move(left.leaves[k]);
        Typed b = number_right ? spread(right.leaves[0], column) : std::move(right.leaves[k]);
        made.leaves.push_back(joined(op, std::move(a), std::move(b), column));
    }
    return made;
}

// Rows of the left times columns of the right; a vector on the left is a row, on the right a column.
ShaderValue ShaderTranslator::matrix_product(Span span, ShaderValue left, ShaderValue right) {
    const auto is_vector = [](const ShaderValue& v) {
        return v.shape.is(GlslShape::Kind::leaf) && is_float(v.shape.leaf);
    };
    const bool row = is_vector(left);
    const bool column = is_vector(right);
    if ((!row && !left.shape.is(GlslShape::Kind::matrix)) || (!column && !right.shape.is(GlslShape::Kind::matrix)))
        no_operation("*", span, left, right);
    const int inner_left = row ? width_of(left.shape.leaf) : left.shape.columns;
    const int inner_right = column ? width_of(right.shape.leaf) : right.shape.rows;
    if (inner_left != inner_right) no_operation("*", span, left, right);
    left = bound(std::move(left));
    right = bound(std::move(right));
    if (row) {
        // The products with each column of the right.
        Typed made{Construction(), float_type(right.shape.columns), at(span)};
        for (const Typed& of : right.leaves) {
            Typed product{BuiltinCall{Builtin::dot}, Type::number, at(span)};
            product.args = {left.leaves[0], of};
            made.args.push_back(std::move(product));
        }
        return {leaf_shape(made.type), {std::move(made)}, {}};
    }
    const int rows = left.shape.rows;
    const Type type = float_type(rows);
    const auto sum_of = [&](const Typed& of) {
        std::optional<Typed> sum;
        for (int k = 0; k < inner_left; ++k) {
            Typed term = joined(Operator::multiply, left.leaves[static_cast<std::size_t>(k)],
                                spread(part_of(of, k), type), type);
            sum = sum ? joined(Operator::add, std::move(*sum), std::move(term), type) : std::move(term);
        }
        return std::move(*sum);
    };
    ShaderValue made{column ? leaf_shape(type) : matrix_shape(right.shape.columns, rows), {}, {}};
    for (const Typed& of : right.leaves) made.leaves.push_back(sum_of(of));
    return made;
}

ShaderValue ShaderTranslator::whole_operation(const std::string& mark, Span span, ShaderValue left, ShaderValue right) {
    if (!is_whole_leaf(left.shape) || !is_whole_leaf(right.shape)) no_operation(mark, span, left, right);
    const bool shifts = mark == "<<" || mark == ">>";
    const int l = width_of(left.shape.leaf);
    const int r = width_of(right.shape.leaf);
    const bool widths_fit = l == r || r == 1 || (l == 1 && !shifts);
    const bool kinds_fit = shifts || scalar_of(left.shape.leaf) == scalar_of(right.shape.leaf);
    if (!widths_fit || !kinds_fit) no_operation(mark, span, left, right);
    const Type type = l >= r ? left.shape.leaf : right.shape.leaf;
    const Type by = make_type(scalar_of(right.shape.leaf), width_of(type));
    return {leaf_shape(type),
            {joined(binary_operator(mark), spread(std::move(left.leaves[0]), type),
                    spread(std::move(right.leaves[0]), by), type)},
            {}};
}

}  // namespace lacquer
