// Literals, operators and conversions as instructions.
#include <algorithm>

#include "core/base/overloaded.h"
#include "core/cpu/lowering.h"

namespace lacquer {

namespace {

Op float_op(Operator op) {
    switch (op) {
        case Operator::add:
            return Op::add;
        case Operator::subtract:
            return Op::subtract;
        case Operator::multiply:
            return Op::multiply;
        default:
            return Op::divide;
    }
}

Op whole_op(Operator op, bool natural) {
    switch (op) {
        case Operator::add:
            return Op::add_int;
        case Operator::subtract:
            return Op::subtract_int;
        case Operator::multiply:
            return Op::multiply_int;
        case Operator::divide:
            return natural ? Op::divide_uint : Op::divide_int;
        case Operator::remainder:
            return natural ? Op::remainder_uint : Op::remainder_int;
        case Operator::shift_left:
            return Op::shift_left;
        case Operator::shift_right:
            return natural ? Op::shift_right_uint : Op::shift_right;
        case Operator::bit_and:
            return Op::bit_and;
        case Operator::bit_or:
            return Op::bit_or;
        default:
            return Op::bit_xor;
    }
}

}  // namespace

Parts Lowering::value(const Typed& t) {
    const auto all = [&] {
        std::vector<Parts> args;
        for (const Typed& arg : t.args) args.push_back(value(arg));
        return args;
    };
    return std::visit(
        Overloaded{[&](const Literal& node) { return Parts{literal(t.type, node.number)}; },
                   [&](const NameHere& node) { return symbol(t.type, node); },
                   [&](const VariableHere& node) { return frame_->variables[static_cast<std::size_t>(node.number)]; },
                   [&](const PartsOf& node) {
                       const Parts whole = value(t.args[0]);
                       return each(static_cast<std::size_t>(node.count),
                                   [&](std::size_t k) { return whole[node.parts[k]]; });
                   },
                   [&](const Construction&) { return construct(t); }, [&](const Conversion&) { return convert(t); },
                   [&](const UnaryOperation& node) { return unary(t, node.op); },
                   [&](const BinaryOperation& node) { return binary(t, node); },
                   [&](const ConditionalChoice&) { return select(t); },
                   [&](const BuiltinCall& node) { return call(node.builtin, t, all()); },
                   [&](const PictureReading& node) { return read(t, node); },
                   [&](const FunctionRun& node) { return run_function(*node.function, all()); }},
        t.node);
}

int Lowering::literal(Type type, double number) {
    switch (scalar_of(type)) {
        case Scalar::real:
            return constant(static_cast<float>(number));
        case Scalar::truth:
            return constant_bits(number != 0 ? 0xFFFFFFFFU : 0U);
        case Scalar::whole:
            return constant_bits(static_cast<std::uint32_t>(static_cast<std::int32_t>(number)));
        case Scalar::natural:
            break;
    }
    return constant_bits(static_cast<std::uint32_t>(std::min(number, 4294967295.0)));
}

Parts Lowering::construct(const Typed& t) {
    const auto width = static_cast<std::size_t>(width_of(t.type));
    Parts all;
    for (const Typed& arg : t.args) {
        for (const int part : value(arg)) all.push_back(part);
    }
    if (is_matrix(t.type) && t.args.size() == 1 && (is_matrix(t.args[0].type) || all.size() == 1)) {
        return diagonal(t.type, t.args[0].type, all);
    }
    if (all.size() == 1) return Parts(width, all[0]);
    all.cut(width);
    return all;
}

Parts Lowering::diagonal(Type type, Type from, const Parts& parts) {
    const int side = side_of(type);
    const int old = is_matrix(from) ? side_of(from) : 0;
    return each(static_cast<std::size_t>(side * side), [&](std::size_t k) {
        const int c = static_cast<int>(k) / side;
        const int r = static_cast<int>(k) % side;
        if (c < old && r < old) return parts[static_cast<std::size_t>(c * old + r)];
        if (c != r) return constant(0);
        return old == 0 ? parts[0] : constant(1);
    });
}

int Lowering::convert_part(Scalar from, Scalar to, int part) {
    if (to == Scalar::real) {
        if (from == Scalar::truth) return truth_as_number(part);
        return emit(from == Scalar::natural ? Op::from_uint : Op::from_int, {part});
    }
    if (to == Scalar::truth) {
        return emit(Op::bit_not, {emit(from == Scalar::real ? Op::equal : Op::equal_int, {part, constant(0)})});
    }
    if (from == Scalar::truth) return emit(Op::select, {part, constant_bits(1), constant(0)});
    if (from == Scalar::real) return emit(to == Scalar::natural ? Op::to_uint : Op::to_int, {part});
    return part;
}

Parts Lowering::convert(const Typed& t) {
    const Parts parts = value(t.args[0]);
    return each(parts.size(),
                [&](std::size_t k) { return convert_part(scalar_of(t.args[0].type), scalar_of(t.type), parts[k]); });
}

Parts Lowering::unary(const Typed& t, Operator operation) {
    Parts parts = value(t.args[0]);
    const Op op = operation != Operator::negate ? Op::bit_not : is_whole(t.type) ? Op::negate_int : Op::negate;
    for (int& part : parts) part = emit(op, {part});
    return parts;
}

Parts Lowering::binary(const Typed& t, const BinaryOperation& operation) {
    const Parts a = value(t.args[0]);
    const Parts b = value(t.args[1]);
    switch (operation.op) {
        case Operator::both:
            return {emit(Op::bit_and, {a[0], b[0]})};
        case Operator::either:
            return {emit(Op::bit_or, {a[0], b[0]})};
        case Operator::either_one:
            return {emit(Op::bit_xor, {a[0], b[0]})};
        default:
            break;
    }
    if (t.type == Type::boolean) return {compare(operation.op, scalar_of(t.args[0].type), a, b)};
    const auto width = static_cast<std::size_t>(width_of(t.type));
    if (is_whole(t.type)) {
        const Op op = whole_op(operation.op, scalar_of(t.type) == Scalar::natural);
        return each(width, [&](std::size_t k) { return emit(op, {a[k], b[k]}); });
    }
    const bool matrices = is_matrix(t.args[0].type) || is_matrix(t.args[1].type);
    if (matrices && operation.op == Operator::multiply && a.size() > 1 && b.size() > 1) return matrix_product(t, a, b);
    Parts parts = each(operation.opacity_of >= 0 ? 3 : width, [&](std::size_t k) {
        return emit(float_op(operation.op), {a[a.size() == 1 ? 0 : k], b[b.size() == 1 ? 0 : k]});
    });
    if (operation.opacity_of >= 0) parts.push_back(operation.opacity_of == 0 ? a[3] : b[3]);
    return parts;
}

// Rows of the left times columns of the right; a vector on the left is a row, on the right a column.
Parts Lowering::matrix_product(const Typed& t, const Parts& a, const Parts& b) {
    const bool left = is_matrix(t.args[0].type);
    const bool right = is_matrix(t.args[1].type);
    const auto side = static_cast<std::size_t>(side_of(left ? t.args[0].type : t.args[1].type));
    const std::size_t rows = left ? side : 1;
    const std::size_t columns = right ? side : 1;
    return each(rows * columns, [&](std::size_t n) {
        const std::size_t c = n / rows;
        const std::size_t r = n % rows;
        const Parts row = each(side, [&](std::size_t k) { return a[k * rows + r]; });
        const Parts column = each(side, [&](std::size_t k) { return b[c * side + k]; });
        return dot(row, column);
    });
}

int Lowering::compare_part(Operator op, Scalar scalar, int a, int b) {
    const bool floats = scalar == Scalar::real;
    const Op less = floats ? Op::less : scalar == Scalar::natural ? Op::less_uint : Op::less_int;
    switch (op) {
        case Operator::less:
            return emit(less, {a, b});
        case Operator::greater:
            return emit(less, {b, a});
        case Operator::less_equal:
            return floats ? emit(Op::less_equal, {a, b}) : emit(Op::bit_not, {emit(less, {b, a})});
        case Operator::greater_equal:
            return floats ? emit(Op::less_equal, {b, a}) : emit(Op::bit_not, {emit(less, {a, b})});
        case Operator::not_equal:
            return emit(Op::bit_not, {compare_part(Operator::equal, scalar, a, b)});
        default:
            return emit(floats ? Op::equal : Op::equal_int, {a, b});
    }
}

int Lowering::compare(Operator op, Scalar scalar, const Parts& a, const Parts& b) {
    if (op != Operator::equal && op != Operator::not_equal) return compare_part(op, scalar, a[0], b[0]);
    int all = compare_part(Operator::equal, scalar, a[0], b[0]);
    for (std::size_t k = 1; k < a.size(); ++k) {
        all = emit(Op::bit_and, {all, compare_part(Operator::equal, scalar, a[k], b[k])});
    }
    return op == Operator::equal ? all : emit(Op::bit_not, {all});
}

Parts Lowering::select(const Typed& t) {
    const int which = value(t.args[0])[0];
    const Parts yes = value(t.args[1]);
    const Parts no = value(t.args[2]);
    return each(yes.size(), [&](std::size_t k) { return emit(Op::select, {which, yes[k], no[k]}); });
}

}  // namespace lacquer
