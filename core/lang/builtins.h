// The functions that the language brings along: one table, keyed by id, which checker, evaluators and help read.
#pragma once

#include <span>
#include <string>
#include <string_view>

#include "core/lang/type.h"

namespace lacquer {

/// One id for each function and number of arguments that is computed in its own way.
enum class Builtin {
    // trigonometry
    radians,
    degrees,
    sin,
    cos,
    tan,
    asin,
    acos,
    atan,
    atan2,
    sinh,
    cosh,
    tanh,
    asinh,
    acosh,
    atanh,
    // exponentials
    pow,
    exp,
    log,
    exp2,
    log2,
    sqrt,
    inversesqrt,
    // common
    abs,
    sign,
    floor,
    trunc,
    round,
    round_even,
    ceil,
    fract,
    mod,
    min,
    max,
    clamp,
    mix,
    mix_choice,
    step,
    smoothstep,
    is_nan,
    is_inf,
    float_bits_to_int,
    int_bits_to_float,
    // whole numbers
    float_bits_to_uint,
    uint_bits_to_float,
    abs_int,
    sign_int,
    min_int,
    max_int,
    clamp_int,
    min_uint,
    max_uint,
    clamp_uint,
    // geometry
    length,
    distance,
    dot,
    cross,
    normalize,
    faceforward,
    reflect,
    refract,
    // matrices
    matrix_parts_2,
    matrix_parts_3,
    outer_2,
    outer_3,
    transpose_2,
    transpose_3,
    determinant_2,
    determinant_3,
    inverse_2,
    inverse_3,
    // comparing part by part
    less_than,
    less_than_equal,
    greater_than,
    greater_than_equal,
    equal,
    equal_truth,
    not_equal,
    not_equal_truth,
    any,
    all,
    opposite,
    // within 2 x 2 drawn pixels
    derivative_x,
    derivative_y,
    derivative_width,
    // opacity
    premultiply,
    unpremultiply,
    with_opacity_of,
    // random and noise
    hash_1,
    hash_2,
    hash_3,
    hash3,
    value_noise_2,
    value_noise_3,
    gradient_noise_2,
    gradient_noise_3,
    cellular_noise_2,
    cellular_noise_3,
    fractal_value_2,
    fractal_value_3,
    fractal_gradient_2,
    fractal_gradient_3,
    fractal_cellular_2,
    fractal_cellular_3,
    // pictures
    texture,
    texture_lod,
    texel_fetch,
    texture_size,
    at,
    previous,
    count
};

/// A row of the table. `result` and each letter of `params` is a type: g any number of numbers, w of whole numbers, n
/// of whole numbers without sign, a of any of these, B of yes or no (all of these letters alike in one call); f one
/// number, 2 3 4 so many, b yes or no, i a whole number, I two, u one without sign, m and M a matrix of 2 x 2 and 3 x
/// 3, p the name of a step or ground (as a result: what it has), t the name of a gradient or curve, s that
/// of any step, whose value it gives.
struct BuiltinRow {
    Builtin id;
    std::string_view name;
    char result;
    std::string_view params;
    std::string_view param_names;  ///< parted by blanks
    std::string_view words;        ///< one line of help
};

/// What the letters for general types stand for in one call: so many parts, and for `a` of this kind.
struct LetterTypes {
    int width = 1;
    Scalar scalar = Scalar::real;
};

/// The type that a letter of the table stands for.
Type letter_type(char letter, LetterTypes general);

/// All rows, in the order of the ids.
std::span<const BuiltinRow> builtin_rows();

/// The row of an id.
const BuiltinRow& builtin_row(Builtin id);

/// True for the names of types and for words such as `if`: nothing else can be called so. Variables may hide functions.
bool is_language_word(std::string_view name);

/// True if some built-in, type or word of the language goes by this name.
bool is_builtin_name(std::string_view name);

/// How the function is called, such as "mix(a, b, share)".
std::string signature_text(const BuiltinRow& row);

}  // namespace lacquer
