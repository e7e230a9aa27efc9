// The types of the formula language.
#pragma once

#include <string_view>

namespace lacquer {

/// A subset of the types of GLSL ES 3.00.
enum class Type { number, vec2, vec3, vec4, boolean, integer };

/// How many parts a value has.
constexpr int width_of(Type type) {
    switch (type) {
        case Type::vec2:
            return 2;
        case Type::vec3:
            return 3;
        case Type::vec4:
            return 4;
        case Type::number:
        case Type::boolean:
        case Type::integer:
            break;
    }
    return 1;
}

/// True for a number or a vector of numbers.
constexpr bool is_float(Type type) { return type != Type::boolean && type != Type::integer; }

/// The float type with `width` parts, 1 to 4.
constexpr Type float_type(int width) {
    switch (width) {
        case 2:
            return Type::vec2;
        case 3:
            return Type::vec3;
        case 4:
            return Type::vec4;
        default:
            return Type::number;
    }
}

/// The GLSL ES 3.00 spelling.
constexpr std::string_view glsl_name(Type type) {
    switch (type) {
        case Type::number:
            return "float";
        case Type::vec2:
            return "vec2";
        case Type::vec3:
            return "vec3";
        case Type::vec4:
            return "vec4";
        case Type::boolean:
            return "bool";
        case Type::integer:
            return "int";
    }
    return "";
}

/// In the user's words: "1 number", "2 numbers", "a yes or no".
constexpr std::string_view said(Type type) {
    switch (type) {
        case Type::number:
            return "1 number";
        case Type::vec2:
            return "2 numbers";
        case Type::vec3:
            return "3 numbers";
        case Type::vec4:
            return "4 numbers";
        case Type::boolean:
            return "a yes or no";
        case Type::integer:
            return "a whole number";
    }
    return "";
}

}  // namespace lacquer
