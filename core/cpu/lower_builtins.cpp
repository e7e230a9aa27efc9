// The built-in functions as instructions.
#include <cassert>

#include "core/cpu/lowering.h"

namespace lacquer {

namespace {

// How the instruction is used: on each part alone, on all parts of all arguments at once, on each part and its
// neighbours in the 2 x 2 block; or there is none: the bits stay as they are, the function is made of others, it reads.
enum class Use { each_part, all_parts, neighbours, same_bits, composed, reads };

struct InstructionRow {
    Builtin id;
    Use use;
    Op op = Op::copy;
};

using B = Builtin;

constexpr std::array<InstructionRow, static_cast<std::size_t>(Builtin::count)> rows = {{
    {B::radians, Use::composed},
    {B::degrees, Use::composed},
    {B::sin, Use::each_part, Op::sin},
    {B::cos, Use::each_part, Op::cos},
    {B::tan, Use::each_part, Op::tan},
    {B::asin, Use::each_part, Op::asin},
    {B::acos, Use::each_part, Op::acos},
    {B::atan, Use::each_part, Op::atan},
    {B::atan2, Use::each_part, Op::atan2},
    {B::sinh, Use::each_part, Op::sinh},
    {B::cosh, Use::each_part, Op::cosh},
    {B::tanh, Use::each_part, Op::tanh},
    {B::asinh, Use::each_part, Op::asinh},
    {B::acosh, Use::each_part, Op::acosh},
    {B::atanh, Use::each_part, Op::atanh},
    {B::pow, Use::each_part, Op::pow},
    {B::exp, Use::each_part, Op::exp},
    {B::log, Use::each_part, Op::log},
    {B::exp2, Use::each_part, Op::exp2},
    {B::log2, Use::each_part, Op::log2},
    {B::sqrt, Use::each_part, Op::sqrt},
    {B::inversesqrt, Use::each_part, Op::inversesqrt},
    {B::abs, Use::each_part, Op::absolute},
    {B::sign, Use::each_part, Op::sign},
    {B::floor, Use::each_part, Op::floor},
    {B::trunc, Use::each_part, Op::trunc},
    {B::round, Use::each_part, Op::round},
    {B::round_even, Use::each_part, Op::round},
    {B::ceil, Use::each_part, Op::ceil},
    {B::fract, Use::each_part, Op::fract},
    {B::mod, Use::each_part, Op::mod},
    {B::min, Use::each_part, Op::min},
    {B::max, Use::each_part, Op::max},
    {B::clamp, Use::each_part, Op::clamp},
    {B::mix, Use::each_part, Op::mix},
    {B::mix_choice, Use::composed},
    {B::step, Use::each_part, Op::step},
    {B::smoothstep, Use::each_part, Op::smoothstep},
    {B::is_nan, Use::each_part, Op::is_nan},
    {B::is_inf, Use::each_part, Op::is_inf},
    {B::float_bits_to_int, Use::same_bits},
    {B::int_bits_to_float, Use::same_bits},
    {B::float_bits_to_uint, Use::same_bits},
    {B::uint_bits_to_float, Use::same_bits},
    {B::abs_int, Use::composed},
    {B::sign_int, Use::composed},
    {B::min_int, Use::each_part, Op::min_int},
    {B::max_int, Use::each_part, Op::max_int},
    {B::clamp_int, Use::composed},
    {B::min_uint, Use::each_part, Op::min_uint},
    {B::max_uint, Use::each_part, Op::max_uint},
    {B::clamp_uint, Use::composed},
    {B::length, Use::composed},
    {B::distance, Use::composed},
    {B::dot, Use::composed},
    {B::cross, Use::composed},
    {B::normalize, Use::composed},
    {B::faceforward, Use::composed},
    {B::reflect, Use::composed},
    {B::refract, Use::composed},
    {B::matrix_parts_2, Use::composed},
    {B::matrix_parts_3, Use::composed},
    {B::outer_2, Use::composed},
    {B::outer_3, Use::composed},
    {B::transpose_2, Use::composed},
    {B::transpose_3, Use::composed},
    {B::determinant_2, Use::composed},
    {B::determinant_3, Use::composed},
    {B::inverse_2, Use::composed},
    {B::inverse_3, Use::composed},
    {B::less_than, Use::composed},
    {B::less_than_equal, Use::composed},
    {B::greater_than, Use::composed},
    {B::greater_than_equal, Use::composed},
    {B::equal, Use::composed},
    {B::equal_truth, Use::composed},
    {B::not_equal, Use::composed},
    {B::not_equal_truth, Use::composed},
    {B::any, Use::composed},
    {B::all, Use::composed},
    {B::opposite, Use::composed},
    {B::derivative_x, Use::neighbours, Op::derivative_x},
    {B::derivative_y, Use::neighbours, Op::derivative_y},
    {B::derivative_width, Use::composed},
    {B::premultiply, Use::composed},
    {B::unpremultiply, Use::composed},
    {B::with_opacity_of, Use::composed},
    {B::hash_1, Use::all_parts, Op::hash_1},
    {B::hash_2, Use::all_parts, Op::hash_2},
    {B::hash_3, Use::all_parts, Op::hash_3},
    {B::hash3, Use::all_parts, Op::hash3},
    {B::value_noise_2, Use::all_parts, Op::value_noise_2},
    {B::value_noise_3, Use::all_parts, Op::value_noise_3},
    {B::gradient_noise_2, Use::all_parts, Op::gradient_noise_2},
    {B::gradient_noise_3, Use::all_parts, Op::gradient_noise_3},
    {B::cellular_noise_2, Use::all_parts, Op::cellular_noise_2},
    {B::cellular_noise_3, Use::all_parts, Op::cellular_noise_3},
    {B::fractal_value_2, Use::all_parts, Op::fractal_value_2},
    {B::fractal_value_3, Use::all_parts, Op::fractal_value_3},
    {B::fractal_gradient_2, Use::all_parts, Op::fractal_gradient_2},
    {B::fractal_gradient_3, Use::all_parts, Op::fractal_gradient_3},
    {B::fractal_cellular_2, Use::all_parts, Op::fractal_cellular_2},
    {B::fractal_cellular_3, Use::all_parts, Op::fractal_cellular_3},
    {B::texture, Use::reads},
    {B::texture_lod, Use::reads},
    {B::texel_fetch, Use::reads},
    {B::texture_size, Use::reads},
    {B::at, Use::reads},
    {B::previous, Use::reads},
}};

constexpr bool in_order() {
    for (std::size_t i = 0; i < rows.size(); ++i) {
        if (rows[i].id != static_cast<Builtin>(i)) return false;
    }
    return true;
}
static_assert(in_order(), "one row for each id, in the order of the ids");

}  // namespace

int Lowering::dot(const Parts& a, const Parts& b) {
    int sum = emit(Op::multiply, {a[0], b[0]});
    for (std::size_t k = 1; k < a.size(); ++k) sum = emit(Op::add, {sum, emit(Op::multiply, {a[k], b[k]})});
    return sum;
}

Parts Lowering::call(Builtin builtin, const Typed& t, std::vector<Parts> args) {
    const InstructionRow& row = rows[static_cast<std::size_t>(builtin)];
    const auto part = [&](std::size_t k) {
        std::vector<int> in;
        for (const Parts& arg : args) in.push_back(arg[k]);
        return emit(row.op, in);
    };
    switch (row.use) {
        case Use::each_part:
            return each(args[0].size(), part);
        case Use::neighbours:
            ir_.quads = true;
            return each(args[0].size(), part);
        case Use::all_parts: {
            std::vector<int> in;
            for (const Parts& arg : args) in.insert(in.end(), arg.begin(), arg.end());
            return lacquer::row(emit(row.op, in), width_of(t.type));
        }
        case Use::same_bits:
            return args[0];
        case Use::composed:
            return composed(*composition_of(builtin, t.args[0].type), std::move(args));
        case Use::reads:
            break;
    }
    assert(false);
    return {};
}

Parts Lowering::composed(const Composition& composition, std::vector<Parts> args) {
    if (!composition.by_part) return run_function(*composition.function, std::move(args));
    return each(args[0].size(), [&](std::size_t k) {
        std::vector<Parts> parts;
        for (const Parts& arg : args) parts.push_back({arg[k]});
        return run_function(*composition.function, std::move(parts))[0];
    });
}

}  // namespace lacquer
