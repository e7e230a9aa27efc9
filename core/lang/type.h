// The types of the formula language.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

namespace lacquer {

/// A subset of the types of GLSL ES 3.00, in groups of four by what the parts are.
enum class Type : std::uint8_t {
    number,
    vec2,
    vec3,
    vec4,
    boolean,
    bvec2,
    bvec3,
    bvec4,
    integer,
    ivec2,
    ivec3,
    ivec4,
    natural,
    uvec2,
    uvec3,
    uvec4,
    mat2,
    mat3
};

/// What the parts of a value are: floats, yes or no, whole numbers, whole numbers without sign.
enum class Scalar : std::uint8_t { real, truth, whole, natural };

constexpr bool is_matrix(Type type) { return type == Type::mat2 || type == Type::mat3; }

constexpr Scalar scalar_of(Type type) {
    return is_matrix(type) ? Scalar::real : static_cast<Scalar>(static_cast<int>(type) / 4);
}

/// How many parts a value has; a matrix has its columns one after the other.
constexpr int width_of(Type type) {
    if (is_matrix(type)) return type == Type::mat2 ? 4 : 9;
    return static_cast<int>(type) % 4 + 1;
}

/// Rows and columns of a square matrix.
constexpr int side_of(Type matrix) { return matrix == Type::mat2 ? 2 : 3; }

/// The type of `width` (1 to 4) parts of a kind.
constexpr Type make_type(Scalar scalar, int width) {
    return static_cast<Type>(static_cast<int>(scalar) * 4 + width - 1);
}

/// True for a number or a vector of numbers.
constexpr bool is_float(Type type) { return scalar_of(type) == Scalar::real && !is_matrix(type); }

/// True for whole numbers with or without sign, and vectors of them.
constexpr bool is_whole(Type type) { return scalar_of(type) == Scalar::whole || scalar_of(type) == Scalar::natural; }

/// The float type with `width` parts, 1 to 4.
constexpr Type float_type(int width) { return make_type(Scalar::real, width); }

/// Whether a step can have values of this type: numbers up to four, a yes or no, a whole number.
constexpr bool fits_a_step(Type type) {
    return is_float(type) || type == Type::boolean || type == Type::integer || type == Type::natural;
}

/// The GLSL ES 3.00 spelling.
std::string_view glsl_name(Type type);

/// The type that GLSL ES 3.00 spells so; nothing if there is none here.
std::optional<Type> type_named(std::string_view name);

/// In the user's words: "1 number", "2 numbers", "a yes or no".
std::string said(Type type);

}  // namespace lacquer
