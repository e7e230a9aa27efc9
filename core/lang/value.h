// A value of the language at one place.
#pragma once

#include <array>
#include <cstdint>

#include "core/lang/type.h"

namespace lacquer {

/// `parts` holds the floats of float types and matrices (by columns); `wholes` holds whole numbers, bit for bit where
/// they have no sign, or 0 and 1 for yes and no.
struct Value {
    Type type = Type::number;
    std::array<float, 9> parts{};
    std::array<std::int32_t, 4> wholes{};

    friend bool operator==(const Value&, const Value&) = default;
};

inline Value make_number(float x) { return {Type::number, {x}, {}}; }
inline Value make_vec2(float x, float y) { return {Type::vec2, {x, y}, {}}; }
inline Value make_vec3(float x, float y, float z) { return {Type::vec3, {x, y, z}, {}}; }
inline Value make_vec4(float x, float y, float z, float w) { return {Type::vec4, {x, y, z, w}, {}}; }
inline Value make_boolean(bool yes) { return {Type::boolean, {}, {yes ? 1 : 0}}; }
inline Value make_integer(std::int32_t n) { return {Type::integer, {}, {n}}; }

/// A step's value part as the float that its picture holds.
inline float as_float(const Value& value, int part) {
    const auto k = static_cast<std::size_t>(part);
    if (scalar_of(value.type) == Scalar::real) return value.parts[k];
    if (scalar_of(value.type) == Scalar::natural)
        return static_cast<float>(static_cast<std::uint32_t>(value.wholes[k]));
    return static_cast<float>(value.wholes[k]);
}

}  // namespace lacquer
