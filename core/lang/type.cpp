#include "core/lang/type.h"

#include <array>

namespace lacquer {

namespace {

constexpr std::array<std::string_view, 18> names = {"float", "vec2",  "vec3",  "vec4",  "bool",  "bvec2",
                                                    "bvec3", "bvec4", "int",   "ivec2", "ivec3", "ivec4",
                                                    "uint",  "uvec2", "uvec3", "uvec4", "mat2",  "mat3"};
static_assert(names.size() == static_cast<std::size_t>(Type::mat3) + 1);

}  // namespace

std::string_view glsl_name(Type type) { return names[static_cast<std::size_t>(type)]; }

std::optional<Type> type_named(std::string_view name) {
    for (std::size_t i = 0; i < names.size(); ++i) {
        if (names[i] == name) return static_cast<Type>(i);
    }
    return std::nullopt;
}

std::string said(Type type) {
    if (is_matrix(type)) return "a matrix";
    const bool one = width_of(type) == 1;
    const std::string count = std::to_string(width_of(type));
    switch (scalar_of(type)) {
        case Scalar::real:
            return one ? "1 number" : count + " numbers";
        case Scalar::truth:
            return one ? "a yes or no" : count + " times yes or no";
        case Scalar::whole:
            return one ? "a whole number" : count + " whole numbers";
        case Scalar::natural:
            break;
    }
    return one ? "a whole number without sign" : count + " whole numbers without sign";
}

}  // namespace lacquer
