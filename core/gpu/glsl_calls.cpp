// How GLSL spells the built-in functions, and where it has to be guarded.
#include <fmt/core.h>

#include <array>
#include <cassert>

#include "core/gpu/glsl_expressions.h"

namespace lacquer {

namespace {

enum class Spelling {
    plain,            // GLSL has it under this name
    helper,           // by a function of ours, see glsl_prelude.h
    held_to_one,      // with its argument held to -1..1
    held_above_one,   // with its argument held to 1 or more
    guarded_power,    // by ours, unless what is raised is known to be above 0
    guarded_edges,    // by ours, unless the edges are known to lie apart
    last_spreads,     // GLSL takes one number for all parts of the last argument
    only_of_four,     // by ours for colours with opacity; nothing happens to anything else
    only_of_vectors,  // GLSL has it for vectors; a lone part goes by the operator
    only_of_parts,    // GLSL has it for vectors; a lone part is itself
    reads             // written by `read`
};

struct SpellingRow {
    Builtin id;
    Spelling spelling;
    const char* name = "";  // the function's, ours for guarded ones; the operator's for a lone part
};

using B = Builtin;
using S = Spelling;

constexpr std::array<SpellingRow, static_cast<std::size_t>(Builtin::count)> rows = {{
    {B::radians, S::plain, "radians"},
    {B::degrees, S::plain, "degrees"},
    {B::sin, S::plain, "sin"},
    {B::cos, S::plain, "cos"},
    {B::tan, S::plain, "tan"},
    {B::asin, S::held_to_one, "asin"},
    {B::acos, S::held_to_one, "acos"},
    {B::atan, S::plain, "atan"},
    {B::atan2, S::helper, "lq_atan"},
    {B::sinh, S::plain, "sinh"},
    {B::cosh, S::plain, "cosh"},
    {B::tanh, S::plain, "tanh"},
    {B::asinh, S::plain, "asinh"},
    {B::acosh, S::held_above_one, "acosh"},
    {B::atanh, S::plain, "atanh"},
    {B::pow, S::guarded_power, "lq_pow"},
    {B::exp, S::plain, "exp"},
    {B::log, S::plain, "log"},
    {B::exp2, S::plain, "exp2"},
    {B::log2, S::plain, "log2"},
    {B::sqrt, S::plain, "sqrt"},
    {B::inversesqrt, S::plain, "inversesqrt"},
    {B::abs, S::plain, "abs"},
    {B::sign, S::plain, "sign"},
    {B::floor, S::plain, "floor"},
    {B::trunc, S::plain, "trunc"},
    {B::round, S::plain, "roundEven"},
    {B::round_even, S::plain, "roundEven"},
    {B::ceil, S::plain, "ceil"},
    {B::fract, S::plain, "fract"},
    {B::mod, S::last_spreads, "mod"},
    {B::min, S::last_spreads, "min"},
    {B::max, S::last_spreads, "max"},
    {B::clamp, S::plain, "clamp"},
    {B::mix, S::last_spreads, "mix"},
    {B::mix_choice, S::plain, "mix"},
    {B::step, S::plain, "step"},
    {B::smoothstep, S::guarded_edges, "lq_smoothstep"},
    {B::is_nan, S::plain, "isnan"},
    {B::is_inf, S::plain, "isinf"},
    {B::float_bits_to_int, S::plain, "floatBitsToInt"},
    {B::int_bits_to_float, S::plain, "intBitsToFloat"},
    {B::float_bits_to_uint, S::plain, "floatBitsToUint"},
    {B::uint_bits_to_float, S::plain, "uintBitsToFloat"},
    {B::abs_int, S::plain, "abs"},
    {B::sign_int, S::plain, "sign"},
    {B::min_int, S::plain, "min"},
    {B::max_int, S::plain, "max"},
    {B::clamp_int, S::plain, "clamp"},
    {B::min_uint, S::plain, "min"},
    {B::max_uint, S::plain, "max"},
    {B::clamp_uint, S::plain, "clamp"},
    {B::length, S::plain, "length"},
    {B::distance, S::plain, "distance"},
    {B::dot, S::plain, "dot"},
    {B::cross, S::plain, "cross"},
    {B::normalize, S::helper, "lq_normalize"},
    {B::faceforward, S::plain, "faceforward"},
    {B::reflect, S::plain, "reflect"},
    {B::refract, S::plain, "refract"},
    {B::matrix_parts_2, S::plain, "matrixCompMult"},
    {B::matrix_parts_3, S::plain, "matrixCompMult"},
    {B::outer_2, S::plain, "outerProduct"},
    {B::outer_3, S::plain, "outerProduct"},
    {B::transpose_2, S::plain, "transpose"},
    {B::transpose_3, S::plain, "transpose"},
    {B::determinant_2, S::plain, "determinant"},
    {B::determinant_3, S::plain, "determinant"},
    {B::inverse_2, S::plain, "inverse"},
    {B::inverse_3, S::plain, "inverse"},
    {B::less_than, S::only_of_vectors, "<"},
    {B::less_than_equal, S::only_of_vectors, "<="},
    {B::greater_than, S::only_of_vectors, ">"},
    {B::greater_than_equal, S::only_of_vectors, ">="},
    {B::equal, S::only_of_vectors, "=="},
    {B::equal_truth, S::only_of_vectors, "=="},
    {B::not_equal, S::only_of_vectors, "!="},
    {B::not_equal_truth, S::only_of_vectors, "!="},
    {B::any, S::only_of_parts, ""},
    {B::all, S::only_of_parts, ""},
    {B::opposite, S::only_of_parts, "!"},
    {B::derivative_x, S::plain, "dFdx"},
    {B::derivative_y, S::plain, "dFdy"},
    {B::derivative_width, S::plain, "fwidth"},
    {B::premultiply, S::only_of_four, "lq_premultiply"},
    {B::unpremultiply, S::only_of_four, "lq_unpremultiply"},
    {B::with_opacity_of, S::only_of_four, "lq_with_opacity_of"},
    {B::hash_1, S::helper, "lq_hash"},
    {B::hash_2, S::helper, "lq_hash"},
    {B::hash_3, S::helper, "lq_hash"},
    {B::hash3, S::helper, "lq_hash3"},
    {B::value_noise_2, S::helper, "lq_value_noise"},
    {B::value_noise_3, S::helper, "lq_value_noise"},
    {B::gradient_noise_2, S::helper, "lq_gradient_noise"},
    {B::gradient_noise_3, S::helper, "lq_gradient_noise"},
    {B::cellular_noise_2, S::helper, "lq_cellular_noise"},
    {B::cellular_noise_3, S::helper, "lq_cellular_noise"},
    {B::fractal_value_2, S::helper, "lq_fractal_value_noise"},
    {B::fractal_value_3, S::helper, "lq_fractal_value_noise"},
    {B::fractal_gradient_2, S::helper, "lq_fractal_gradient_noise"},
    {B::fractal_gradient_3, S::helper, "lq_fractal_gradient_noise"},
    {B::fractal_cellular_2, S::helper, "lq_fractal_cellular_noise"},
    {B::fractal_cellular_3, S::helper, "lq_fractal_cellular_noise"},
    {B::texture, S::reads},
    {B::texture_lod, S::reads},
    {B::texel_fetch, S::reads},
    {B::texture_size, S::reads},
    {B::at, S::reads},
    {B::previous, S::reads},
}};

constexpr bool in_order() {
    for (std::size_t i = 0; i < rows.size(); ++i) {
        if (rows[i].id != static_cast<Builtin>(i)) return false;
    }
    return true;
}
static_assert(in_order(), "one row for each id, in the order of the ids");

constexpr int comparison_strength = 9;

bool is_spread(const Typed& typed) {
    return typed.is<Construction>() && typed.args.size() == 1 && width_of(typed.args[0].type) == 1;
}

// A literal, or a literal that fills all parts.
const Literal* plain_literal(const Typed& typed) {
    const Typed& inner = is_spread(typed) ? typed.args[0] : typed;
    return inner.as<Literal>();
}

bool lie_apart(const Typed& low, const Typed& high) {
    const Literal* known_low = plain_literal(low);
    const Literal* known_high = plain_literal(high);
    return known_low != nullptr && known_high != nullptr && known_low->number < known_high->number;
}

}  // namespace

bool is_above_0(const Typed& typed) {
    const Literal* known = plain_literal(typed);
    return known != nullptr && known->number > 0;
}

std::string GlslExpressions::call(const Typed& t) {
    const SpellingRow& row = rows[static_cast<std::size_t>(t.get<BuiltinCall>().builtin)];
    const std::string own_name(builtin_row(row.id).name);
    const auto with_all = [&](const std::string& function) { return function + "(" + list(t.args) + ")"; };
    const bool lone = width_of(t.args[0].type) == 1;
    switch (row.spelling) {
        case Spelling::plain:
            return with_all(row.name);
        case Spelling::helper:
            return with_all(helper(row.name));
        case Spelling::held_to_one:
            return fmt::format("{}(clamp({}, -1.0, 1.0))", row.name, expression(t.args[0], 0));
        case Spelling::held_above_one:
            return fmt::format("{}(max({}, 1.0))", row.name, expression(t.args[0], 0));
        case Spelling::guarded_power:
            return with_all(is_above_0(t.args[0]) ? own_name : helper(row.name));
        case Spelling::guarded_edges:
            return with_all(lie_apart(t.args[0], t.args[1]) ? own_name : helper(row.name));
        case Spelling::last_spreads:
            return with_last_spread(t, row.name);
        case Spelling::only_of_four:
            return width_of(t.type) < 4 ? expression(t.args[0], sign_strength + 1) : with_all(helper(row.name));
        case Spelling::only_of_vectors:
            if (!lone) return with_all(own_name);
            return fmt::format("({} {} {})", expression(t.args[0], comparison_strength), row.name,
                               expression(t.args[1], comparison_strength));
        case Spelling::only_of_parts:
            return lone ? row.name + expression(t.args[0], sign_strength + 1) : with_all(own_name);
        case Spelling::reads:
            break;
    }
    assert(false);
    return {};
}

std::string GlslExpressions::with_last_spread(const Typed& t, std::string_view name) {
    const Typed& last = t.args.back();
    const bool spread = is_spread(last) && last.args[0].type == Type::number && is_float(last.type);
    std::string text = std::string(name) + "(";
    for (std::size_t k = 0; k + 1 < t.args.size(); ++k) text += expression(t.args[k], 0) + ", ";
    return text + expression(spread ? last.args[0] : last, 0) + ")";
}

}  // namespace lacquer
