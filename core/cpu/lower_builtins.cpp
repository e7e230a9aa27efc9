// The built-in functions as instructions.
#include "core/cpu/lowering.h"

namespace lacquer {

namespace {

Operator relation(Builtin builtin) {
    switch (builtin) {
        case Builtin::less_than:
            return Operator::less;
        case Builtin::less_than_equal:
            return Operator::less_equal;
        case Builtin::greater_than:
            return Operator::greater;
        case Builtin::greater_than_equal:
            return Operator::greater_equal;
        case Builtin::equal:
        case Builtin::equal_truth:
            return Operator::equal;
        default:
            return Operator::not_equal;
    }
}

}  // namespace

int Lowering::dot(const Parts& a, const Parts& b) {
    int sum = emit(Op::multiply, {a[0], b[0]});
    for (std::size_t k = 1; k < a.size(); ++k) sum = emit(Op::add, {sum, emit(Op::multiply, {a[k], b[k]})});
    return sum;
}
Parts Lowering::call(const Typed& t) {
    std::array<Parts, 3> args;
    for (std::size_t k = 0; k < t.args.size(); ++k) args[k] = value(t.args[k]);
    const Parts& a = args[0];
    const Parts& b = args[1];
    const Parts& c = args[2];
    switch (t.builtin) {
        case Builtin::length:
            return {length(a)};
        case Builtin::distance:
            return {length(each(a.size(), [&](std::size_t k) { return emit(Op::subtract, {a[k], b[k]}); }))};
        case Builtin::dot:
            return {dot(a, b)};
        case Builtin::cross:
            return cross(a, b);
        case Builtin::normalize: {
            const int size = length(a);
            const int zero = constant(0);
            const int none = emit(Op::equal, {size, zero});
            return each(a.size(), [&](std::size_t k) {
                return emit(Op::select, {none, zero, emit(Op::divide, {a[k], size})});
            });
        }
        case Builtin::faceforward: {
            const int facing = emit(Op::less, {dot(c, b), constant(0)});
            return each(a.size(), [&](std::size_t k) {
                return emit(Op::select, {facing, a[k], emit(Op::negate, {a[k]})});
            });
        }
        case Builtin::reflect: {
            const int twice = emit(Op::multiply, {constant(2), dot(b, a)});
            return each(a.size(), [&](std::size_t k) {
                return emit(Op::subtract, {a[k], emit(Op::multiply, {twice, b[k]})});
            });
        }
        case Builtin::refract:
            return refract(a, b, c[0]);
        case Builtin::mix_choice:
            return each(a.size(), [&](std::size_t k) { return emit(Op::select, {c[k], b[k], a[k]}); });
        case Builtin::matrix_parts_2:
        case Builtin::matrix_parts_3:
        case Builtin::outer_2:
        case Builtin::outer_3:
        case Builtin::transpose_2:
        case Builtin::transpose_3:
        case Builtin::determinant_2:
        case Builtin::determinant_3:
        case Builtin::inverse_2:
        case Builtin::inverse_3:
            return matrix_call(t, a, b);
        case Builtin::less_than:
        case Builtin::less_than_equal:
        case Builtin::greater_than:
        case Builtin::greater_than_equal:
        case Builtin::equal:
        case Builtin::equal_truth:
        case Builtin::not_equal:
        case Builtin::not_equal_truth:
            return each(a.size(), [&](std::size_t k) {
                return compare_part(relation(t.builtin), scalar_of(t.args[0].type), a[k], b[k]);
            });
        case Builtin::any:
        case Builtin::all: {
            int joined = a[0];
            for (std::size_t k = 1; k < a.size(); ++k) {
                joined = emit(t.builtin == Builtin::any ? Op::bit_or : Op::bit_and, {joined, a[k]});
            }
            return {joined};
        }
        case Builtin::opposite:
            return each(a.size(), [&](std::size_t k) { return emit(Op::bit_not, {a[k]}); });
        case Builtin::derivative_x:
        case Builtin::derivative_y:
            ir_.quads = true;
            return each(a.size(), [&](std::size_t k) {
                return emit(t.builtin == Builtin::derivative_x ? Op::derivative_x : Op::derivative_y, {a[k]});
            });
        case Builtin::derivative_width:
            ir_.quads = true;
            return each(a.size(), [&](std::size_t k) {
                return emit(Op::add, {emit(Op::absolute, {emit(Op::derivative_x, {a[k]})}),
                                      emit(Op::absolute, {emit(Op::derivative_y, {a[k]})})});
            });
        case Builtin::premultiply:
            if (a.size() < 4) return a;
            return each(4, [&](std::size_t k) { return k == 3 ? a[3] : emit(Op::multiply, {a[k], a[3]}); });
        case Builtin::unpremultiply: {
            if (a.size() < 4) return a;
            const int zero = constant(0);
            const int clear = emit(Op::equal, {a[3], zero});
            return each(4, [&](std::size_t k) {
                return k == 3 ? a[3] : emit(Op::select, {clear, zero, emit(Op::divide, {a[k], a[3]})});
            });
        }
        case Builtin::with_opacity_of:
            if (a.size() == 4) return {a[0], a[1], a[2], b[3]};
            return a;
        case Builtin::hash3:
            return row(emit(Op::hash3, {a[0], a[1], a[2]}), 3);
        case Builtin::hash_2:
            return {emit(Op::hash_2, {a[0], a[1]})};
        case Builtin::value_noise_2:
            return {emit(Op::value_noise_2, {a[0], a[1]})};
        case Builtin::gradient_noise_2:
            return {emit(Op::gradient_noise_2, {a[0], a[1]})};
        case Builtin::hash_3:
            return {emit(Op::hash_3, {a[0], a[1], a[2]})};
        case Builtin::value_noise_3:
            return {emit(Op::value_noise_3, {a[0], a[1], a[2]})};
        case Builtin::gradient_noise_3:
            return {emit(Op::gradient_noise_3, {a[0], a[1], a[2]})};
        case Builtin::cellular_noise_2:
            return {emit(Op::cellular_noise_2, {a[0], a[1]})};
        case Builtin::cellular_noise_3:
            return {emit(Op::cellular_noise_3, {a[0], a[1], a[2]})};
        case Builtin::fractal_value_2:
            return {emit(Op::fractal_value_2, {a[0], a[1], b[0]})};
        case Builtin::fractal_value_3:
            return {emit(Op::fractal_value_3, {a[0], a[1], a[2], b[0]})};
        case Builtin::fractal_gradient_2:
            return {emit(Op::fractal_gradient_2, {a[0], a[1], b[0]})};
        case Builtin::fractal_gradient_3:
            return {emit(Op::fractal_gradient_3, {a[0], a[1], a[2], b[0]})};
        case Builtin::fractal_cellular_2:
            return {emit(Op::fractal_cellular_2, {a[0], a[1], b[0]})};
        case Builtin::fractal_cellular_3:
            return {emit(Op::fractal_cellular_3, {a[0], a[1], a[2], b[0]})};
        case Builtin::float_bits_to_int:
        case Builtin::int_bits_to_float:
        case Builtin::float_bits_to_uint:
        case Builtin::uint_bits_to_float:
            return a;
        default:
            return each(a.size(), [&](std::size_t k) { return part(t.builtin, args, k); });
    }
}

// a * b - c * d
int Lowering::minus_product(int a, int b, int c, int d) {
    return emit(Op::subtract, {emit(Op::multiply, {a, b}), emit(Op::multiply, {c, d})});
}

Parts Lowering::cross(const Parts& a, const Parts& b) {
    const auto minor = [&](std::size_t i, std::size_t j) { return minus_product(a[i], b[j], a[j], b[i]); };
    return {minor(1, 2), minor(2, 0), minor(0, 1)};
}

Parts Lowering::matrix_call(const Typed& t, const Parts& a, const Parts& b) {
    const auto side =
        static_cast<std::size_t>(is_matrix(t.args[0].type) ? side_of(t.args[0].type) : width_of(t.args[0].type));
    const auto cell = [&](std::size_t c, std::size_t r) { return a[c * side + r]; };
    // The determinant of what is left without column c and row r, with its sign.
    const auto cofactor = [&](std::size_t c, std::size_t r) {
        const std::size_t c1 = (c + 1) % 3;
        const std::size_t c2 = (c + 2) % 3;
        const std::size_t r1 = (r + 1) % 3;
        const std::size_t r2 = (r + 2) % 3;
        return minus_product(cell(c1, r1), cell(c2, r2), cell(c2, r1), cell(c1, r2));
    };
    const auto determinant = [&] {
        if (side == 2) return minus_product(a[0], a[3], a[2], a[1]);
        return dot({a[0], a[1], a[2]}, {cofactor(0, 0), cofactor(0, 1), cofactor(0, 2)});
    };
    switch (t.builtin) {
        case Builtin::outer_2:
        case Builtin::outer_3:
            return each(side * side, [&](std::size_t k) { return emit(Op::multiply, {a[k % side], b[k / side]}); });
        case Builtin::transpose_2:
        case Builtin::transpose_3:
            return each(side * side, [&](std::size_t k) { return cell(k % side, k / side); });
        case Builtin::determinant_2:
        case Builtin::determinant_3:
            return {determinant()};
        case Builtin::inverse_2: {
            const int whole = determinant();
            const Parts adjugate = {a[3], emit(Op::negate, {a[1]}), emit(Op::negate, {a[2]}), a[0]};
            return each(4, [&](std::size_t k) { return emit(Op::divide, {adjugate[k], whole}); });
        }
        case Builtin::inverse_3: {
            const int whole = determinant();
            return each(9, [&](std::size_t k) { return emit(Op::divide, {cofactor(k % 3, k / 3), whole}); });
        }
        default:
            return each(side * side, [&](std::size_t k) { return emit(Op::multiply, {a[k], b[k]}); });
    }
}

Parts Lowering::refract(const Parts& incident, const Parts& normal, int eta) {
    const int one = constant(1);
    const int zero = constant(0);
    const int cosine = dot(normal, incident);
    const int rest = emit(Op::subtract, {one, emit(Op::multiply, {cosine, cosine})});
    const int k = emit(Op::subtract, {one, emit(Op::multiply, {emit(Op::multiply, {eta, eta}), rest})});
    const int along = emit(Op::add, {emit(Op::multiply, {eta, cosine}), emit(Op::sqrt, {k})});
    const int none = emit(Op::less, {k, zero});
    return each(incident.size(), [&](std::size_t i) {
        const int bent =
            emit(Op::subtract, {emit(Op::multiply, {eta, incident[i]}), emit(Op::multiply, {along, normal[i]})});
        return emit(Op::select, {none, zero, bent});
    });
}

// Functions that work on each part alone.
int Lowering::part(Builtin builtin, const std::array<Parts, 3>& args, std::size_t k) {
    const int a = args[0][k];
    const auto b = [&] { return args[1][k]; };
    const auto c = [&] { return args[2][k]; };
    switch (builtin) {
        case Builtin::radians:
            return emit(Op::multiply, {a, constant(0.017453292F)});
        case Builtin::degrees:
            return emit(Op::multiply, {a, constant(57.29578F)});
        case Builtin::sin:
            return emit(Op::sin, {a});
        case Builtin::cos:
            return emit(Op::cos, {a});
        case Builtin::tan:
            return emit(Op::tan, {a});
        case Builtin::asin:
            return emit(Op::asin, {a});
        case Builtin::acos:
            return emit(Op::acos, {a});
        case Builtin::atan:
            return emit(Op::atan, {a});
        case Builtin::atan2:
            return emit(Op::atan2, {a, b()});
        case Builtin::sinh:
            return emit(Op::sinh, {a});
        case Builtin::cosh:
            return emit(Op::cosh, {a});
        case Builtin::tanh:
            return emit(Op::tanh, {a});
        case Builtin::asinh:
            return emit(Op::asinh, {a});
        case Builtin::acosh:
            return emit(Op::acosh, {a});
        case Builtin::atanh:
            return emit(Op::atanh, {a});
        case Builtin::pow:
            return emit(Op::pow, {a, b()});
        case Builtin::exp:
            return emit(Op::exp, {a});
        case Builtin::log:
            return emit(Op::log, {a});
        case Builtin::exp2:
            return emit(Op::exp2, {a});
        case Builtin::log2:
            return emit(Op::log2, {a});
        case Builtin::sqrt:
            return emit(Op::sqrt, {a});
        case Builtin::inversesqrt:
            return emit(Op::inversesqrt, {a});
        case Builtin::abs:
            return emit(Op::absolute, {a});
        case Builtin::sign:
            return emit(Op::sign, {a});
        case Builtin::floor:
            return emit(Op::floor, {a});
        case Builtin::trunc:
            return emit(Op::trunc, {a});
        case Builtin::round:
        case Builtin::round_even:
            return emit(Op::round, {a});
        case Builtin::ceil:
            return emit(Op::ceil, {a});
        case Builtin::fract:
            return emit(Op::fract, {a});
        case Builtin::mod:
            return emit(Op::mod, {a, b()});
        case Builtin::min:
            return emit(Op::min, {a, b()});
        case Builtin::max:
            return emit(Op::max, {a, b()});
        case Builtin::clamp:
            return emit(Op::clamp, {a, b(), c()});
        case Builtin::mix:
            return emit(Op::mix, {a, b(), c()});
        case Builtin::step:
            return emit(Op::step, {a, b()});
        case Builtin::smoothstep:
            return emit(Op::smoothstep, {a, b(), c()});
        case Builtin::is_nan:
            return emit(Op::is_nan, {a});
        case Builtin::is_inf:
            return emit(Op::is_inf, {a});
        case Builtin::abs_int:
            return emit(Op::max_int, {a, emit(Op::negate_int, {a})});
        case Builtin::sign_int: {
            const int zero = constant(0);
            const int above = emit(Op::less_int, {zero, a});
            return emit(Op::subtract_int, {emit(Op::less_int, {a, zero}), above});
        }
        case Builtin::min_int:
            return emit(Op::min_int, {a, b()});
        case Builtin::max_int:
            return emit(Op::max_int, {a, b()});
        case Builtin::clamp_int:
            return emit(Op::min_int, {emit(Op::max_int, {a, b()}), c()});
        case Builtin::min_uint:
            return emit(Op::min_uint, {a, b()});
        case Builtin::max_uint:
            return emit(Op::max_uint, {a, b()});
        case Builtin::clamp_uint:
            return emit(Op::min_uint, {emit(Op::max_uint, {a, b()}), c()});
        case Builtin::hash_1:
            return emit(Op::hash_1, {a});
        default:
            return a;
    }
}

}  // namespace lacquer
