// A value of the language at one place.
#pragma once

#include <array>
#include <cstdint>

#include "core/lang/type.h"

namespace lacquer {

/// `parts` holds the floats of float types; `whole` holds an integer, or 0 and 1 for a boolean.
struct Value {
    Type type = Type::number;
    std::array<float, 4> parts{};
    std::int32_t whole = 0;

    friend bool operator==(const Value&, const Value&) = default;
};

inline Value make_number(float x) { return {Type::number, {x, 0, 0, 0}, 0}; }
inline Value make_vec2(float x, float y) { return {Type::vec2, {x, y, 0, 0}, 0}; }
inline Value make_vec3(float x, float y, float z) { return {Type::vec3, {x, y, z, 0}, 0}; }
inline Value make_vec4(float x, float y, float z, float w) { return {Type::vec4, {x, y, z, w}, 0}; }
inline Value make_boolean(bool yes) { return {Type::boolean, {}, yes ? 1 : 0}; }
inline Value make_integer(std::int32_t n) { return {Type::integer, {}, n}; }

}  // namespace lacquer
