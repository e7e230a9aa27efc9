#include "core/lang/builtins.h"

#include <algorithm>
#include <array>
#include <unordered_set>

namespace lacquer {

namespace {

using B = Builtin;

// Meanings are those of GLSL ES 3.00 chapter 8; where it leaves a result undefined, the line says what it is here.
constexpr std::array<BuiltinRow, static_cast<std::size_t>(Builtin::count)> rows = {{
    {B::radians, "radians", 'g', "g", "degrees", "degrees as radians"},
    {B::degrees, "degrees", 'g', "g", "radians", "radians as degrees"},
    {B::sin, "sin", 'g', "g", "angle", "sine of an angle in radians"},
    {B::cos, "cos", 'g', "g", "angle", "cosine of an angle in radians"},
    {B::tan, "tan", 'g', "g", "angle", "tangent of an angle in radians"},
    {B::asin, "asin", 'g', "g", "x", "angle whose sine is x; x is held to -1..1"},
    {B::acos, "acos", 'g', "g", "x", "angle whose cosine is x; x is held to -1..1"},
    {B::atan, "atan", 'g', "g", "y_over_x", "angle whose tangent this is"},
    {B::atan2, "atan", 'g', "gg", "y x", "angle of the point (x, y), -pi to pi; 0 at the origin"},
    {B::sinh, "sinh", 'g', "g", "x", "hyperbolic sine"},
    {B::cosh, "cosh", 'g', "g", "x", "hyperbolic cosine"},
    {B::tanh, "tanh", 'g', "g", "x", "hyperbolic tangent"},
    {B::asinh, "asinh", 'g', "g", "x", "inverse of sinh"},
    {B::acosh, "acosh", 'g', "g", "x", "inverse of cosh; x below 1 counts as 1"},
    {B::atanh, "atanh", 'g', "g", "x", "inverse of tanh"},
    {B::pow, "pow", 'g', "gg", "x power", "x to a power; x below 0 counts as 0, the power 0 gives 1"},
    {B::exp, "exp", 'g', "g", "x", "e to the power x"},
    {B::log, "log", 'g', "g", "x", "natural logarithm"},
    {B::exp2, "exp2", 'g', "g", "x", "2 to the power x"},
    {B::log2, "log2", 'g', "g", "x", "logarithm to the base 2"},
    {B::sqrt, "sqrt", 'g', "g", "x", "square root"},
    {B::inversesqrt, "inversesqrt", 'g', "g", "x", "1 over the square root"},
    {B::abs, "abs", 'g', "g", "x", "x without its sign"},
    {B::sign, "sign", 'g', "g", "x", "-1, 0 or 1"},
    {B::floor, "floor", 'g', "g", "x", "nearest whole number not above x"},
    {B::trunc, "trunc", 'g', "g", "x", "x without what follows the point"},
    {B::round, "round", 'g', "g", "x", "nearest whole number; halves go to the even one"},
    {B::round_even, "roundEven", 'g', "g", "x", "nearest whole number; halves go to the even one"},
    {B::ceil, "ceil", 'g', "g", "x", "nearest whole number not below x"},
    {B::fract, "fract", 'g', "g", "x", "x - floor(x)"},
    {B::mod, "mod", 'g', "gg", "x period", "x - period * floor(x / period)"},
    {B::min, "min", 'g', "gg", "a b", "the smaller"},
    {B::max, "max", 'g', "gg", "a b", "the larger"},
    {B::clamp, "clamp", 'g', "ggg", "x least most", "x held between two ends"},
    {B::mix, "mix", 'g', "ggg", "a b share", "a * (1 - share) + b * share"},
    {B::mix_choice, "mix", 'g', "ggB", "a b which", "a, or b where which is true"},
    {B::step, "step", 'g', "gg", "edge x", "0 below the edge, 1 from it on"},
    {B::smoothstep, "smoothstep", 'g', "ggg", "edge0 edge1 x",
     "0 to 1 between two edges, level at both; equal edges make a step"},
    {B::is_nan, "isnan", 'B', "g", "x", "true if x is not a number"},
    {B::is_inf, "isinf", 'B', "g", "x", "true if x is infinite"},
    {B::float_bits_to_int, "floatBitsToInt", 'w', "g", "x", "the bits of a number as a whole number"},
    {B::int_bits_to_float, "intBitsToFloat", 'g', "w", "bits", "the number that has these bits"},
    {B::float_bits_to_uint, "floatBitsToUint", 'n', "g", "x", "the bits of a number, without sign"},
    {B::uint_bits_to_float, "uintBitsToFloat", 'g', "n", "bits", "the number that has these bits"},
    {B::abs_int, "abs", 'w', "w", "x", "x without its sign"},
    {B::sign_int, "sign", 'w', "w", "x", "-1, 0 or 1"},
    {B::min_int, "min", 'w', "ww", "a b", "the smaller"},
    {B::max_int, "max", 'w', "ww", "a b", "the larger"},
    {B::clamp_int, "clamp", 'w', "www", "x least most", "x held between two ends"},
    {B::min_uint, "min", 'n', "nn", "a b", "the smaller"},
    {B::max_uint, "max", 'n', "nn", "a b", "the larger"},
    {B::clamp_uint, "clamp", 'n', "nnn", "x least most", "x held between two ends"},
    {B::length, "length", 'f', "g", "v", "distance from 0"},
    {B::distance, "distance", 'f', "gg", "a b", "distance between two points"},
    {B::dot, "dot", 'f', "gg", "a b", "sum of the products of the parts"},
    {B::cross, "cross", '3', "33", "a b", "the vector upright on both"},
    {B::normalize, "normalize", 'g', "g", "v", "the same direction with length 1; 0 stays 0"},
    {B::faceforward, "faceforward", 'g', "ggg", "n i reference", "n turned to face away from i"},
    {B::reflect, "reflect", 'g', "gg", "i n", "i - 2 * dot(n, i) * n"},
    {B::refract, "refract", 'g', "ggf", "i n eta", "the direction i bent where it passes a surface"},
    {B::matrix_parts_2, "matrixCompMult", 'm', "mm", "a b", "the products of the parts"},
    {B::matrix_parts_3, "matrixCompMult", 'M', "MM", "a b", "the products of the parts"},
    {B::outer_2, "outerProduct", 'm', "22", "column row", "every part of one times every part of the other"},
    {B::outer_3, "outerProduct", 'M', "33", "column row", "every part of one times every part of the other"},
    {B::transpose_2, "transpose", 'm', "m", "m", "rows and columns exchanged"},
    {B::transpose_3, "transpose", 'M', "M", "m", "rows and columns exchanged"},
    {B::determinant_2, "determinant", 'f', "m", "m", "by how much it scales areas"},
    {B::determinant_3, "determinant", 'f', "M", "m", "by how much it scales volumes"},
    {B::inverse_2, "inverse", 'm', "m", "m", "what undoes it"},
    {B::inverse_3, "inverse", 'M', "M", "m", "what undoes it"},
    {B::less_than, "lessThan", 'B', "aa", "a b", "for each part, whether a < b"},
    {B::less_than_equal, "lessThanEqual", 'B', "aa", "a b", "for each part, whether a <= b"},
    {B::greater_than, "greaterThan", 'B', "aa", "a b", "for each part, whether a > b"},
    {B::greater_than_equal, "greaterThanEqual", 'B', "aa", "a b", "for each part, whether a >= b"},
    {B::equal, "equal", 'B', "aa", "a b", "for each part, whether a == b"},
    {B::equal_truth, "equal", 'B', "BB", "a b", "for each part, whether a == b"},
    {B::not_equal, "notEqual", 'B', "aa", "a b", "for each part, whether a != b"},
    {B::not_equal_truth, "notEqual", 'B', "BB", "a b", "for each part, whether a != b"},
    {B::any, "any", 'b', "B", "v", "whether some part is true"},
    {B::all, "all", 'b', "B", "v", "whether all parts are true"},
    {B::opposite, "not", 'B', "B", "v", "for each part, the opposite"},
    {B::derivative_x, "dFdx", 'g', "g", "x", "by how much x changes to the next drawn pixel on the right"},
    {B::derivative_y, "dFdy", 'g', "g", "x", "by how much x changes to the next drawn pixel below"},
    {B::derivative_width, "fwidth", 'g', "g", "x", "abs(dFdx(x)) + abs(dFdy(x))"},
    {B::premultiply, "premultiply", 'g', "g", "colour", "colours times their opacity; less than 4 numbers stay"},
    {B::unpremultiply, "unpremultiply", 'g', "g", "colour",
     "colours without their opacity again; 0 where that is 0; less than 4 numbers stay"},
    {B::with_opacity_of, "with_opacity_of", 'g', "gg", "colour other",
     "the colours of one with the opacity of another; less than 4 numbers stay"},
    {B::hash_1, "hash", 'f', "f", "cell", "a random number in 0..1 for each whole number"},
    {B::hash_2, "hash", 'f', "2", "cell", "a random number in 0..1 for each unit square"},
    {B::hash_3, "hash", 'f', "3", "cell", "a random number in 0..1 for each unit cube"},
    {B::hash3, "hash3", '3', "3", "cell", "three unrelated random numbers in 0..1 for each unit cube"},
    {B::value_noise_2, "value_noise", 'f', "2", "where", "random heights, blended smoothly, 0..1"},
    {B::value_noise_3, "value_noise", 'f', "3", "where", "random heights in space, blended smoothly, 0..1"},
    {B::gradient_noise_2, "gradient_noise", 'f', "2", "where", "random slopes, blended smoothly, 0..1 round 0.5"},
    {B::gradient_noise_3, "gradient_noise", 'f', "3", "where",
     "random slopes in space, blended smoothly, 0..1 round 0.5"},
    {B::cellular_noise_2, "cellular_noise", 'f', "2", "where",
     "distance to the nearest of random points, one in each unit square, held below 1"},
    {B::cellular_noise_3, "cellular_noise", 'f', "3", "where",
     "distance to the nearest of random points, one in each unit cube, held below 1"},
    {B::fractal_value_2, "fractal_value_noise", 'f', "2f", "where octaves",
     "value noise summed over 1 to 8 octaves, each twice as fine and half as strong; a part of one fades it in"},
    {B::fractal_value_3, "fractal_value_noise", 'f', "3f", "where octaves", "the same in space"},
    {B::fractal_gradient_2, "fractal_gradient_noise", 'f', "2f", "where octaves",
     "gradient noise summed over 1 to 8 octaves, each twice as fine and half as strong; a part of one fades it in"},
    {B::fractal_gradient_3, "fractal_gradient_noise", 'f', "3f", "where octaves", "the same in space"},
    {B::fractal_cellular_2, "fractal_cellular_noise", 'f', "2f", "where octaves",
     "cellular noise summed over 1 to 8 octaves, each twice as fine and half as strong; a part of one fades it in"},
    {B::fractal_cellular_3, "fractal_cellular_noise", 'f', "3f", "where octaves", "the same in space"},
    {B::texture, "texture", 'p', "p2", "picture where", "a step or ground read at another place"},
    {B::texture_lod, "textureLod", 'p', "p2f", "picture where level",
     "the same from a smaller copy: level 1 is half the size, 2 a quarter"},
    {B::texel_fetch, "texelFetch", 'p', "pI", "picture pixel", "one pixel of a step or ground, as it is"},
    {B::texture_size, "textureSize", 'I', "p", "picture", "width and height in pixels"},
    {B::at, "at", '4', "tf", "gradient t", "the colour of a gradient, or the height of a curve, at t in 0..1"},
    {B::previous, "previous", 'p', "s2", "step where",
     "what any step was in the last tick, at this pixel or at another place"},
}};

constexpr bool in_order() {
    for (std::size_t i = 0; i < rows.size(); ++i) {
        if (rows[i].id != static_cast<Builtin>(i) || rows[i].name.empty()) return false;
    }
    return true;
}
static_assert(in_order(), "one row for each id, in the order of the ids");

}  // namespace

Type letter_type(char letter, LetterTypes general) {
    switch (letter) {
        case 'g':
            return float_type(general.width);
        case 'w':
            return make_type(Scalar::whole, general.width);
        case 'n':
            return make_type(Scalar::natural, general.width);
        case 'a':
            return make_type(general.scalar, general.width);
        case 'B':
            return make_type(Scalar::truth, general.width);
        case '2':
            return Type::vec2;
        case '3':
            return Type::vec3;
        case '4':
            return Type::vec4;
        case 'b':
            return Type::boolean;
        case 'i':
            return Type::integer;
        case 'I':
            return Type::ivec2;
        case 'u':
            return Type::natural;
        case 'm':
            return Type::mat2;
        case 'M':
            return Type::mat3;
        default:
            return Type::number;
    }
}

std::span<const BuiltinRow> builtin_rows() { return rows; }

const BuiltinRow& builtin_row(Builtin id) { return rows[static_cast<std::size_t>(id)]; }

bool is_language_word(std::string_view name) {
    constexpr std::array<std::string_view, 8> words = {"true", "false", "if",       "else",
                                                       "for",  "break", "continue", "return"};
    return type_named(name) || std::find(words.begin(), words.end(), name) != words.end();
}

bool is_builtin_name(std::string_view name) {
    static const std::unordered_set<std::string_view> names = [] {
        std::unordered_set<std::string_view> all;
        for (const BuiltinRow& row : rows) all.insert(row.name);
        return all;
    }();
    return names.contains(name) || is_language_word(name);
}

std::string signature_text(const BuiltinRow& row) {
    std::string text = std::string(row.name) + "(";
    for (const char c : row.param_names) text += c == ' ' ? std::string(", ") : std::string(1, c);
    return text + ")";
}

}  // namespace lacquer
