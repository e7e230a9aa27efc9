// The built-in functions, one place at a time, as GLSL ES 3.00 chapter 8 writes them.
#include <algorithm>
#include <array>
#include <bit>
#include <cassert>
#include <cmath>

#include "core/lang/noise.h"
#include "core/lang/oracle_builtins.h"

namespace lacquer {

namespace {

using Parts = std::array<float, 9>;

float through_double(double (*function)(double), float x) {
    return static_cast<float>(function(static_cast<double>(x)));
}

float smaller(float a, float b) { return b < a ? b : a; }
float larger(float a, float b) { return a < b ? b : a; }
float held(float x, float least, float most) { return smaller(larger(x, least), most); }

float power(float x, float y) {
    if (y == 0.0F) return 1.0F;
    if (x <= 0.0F) return std::isnan(y) ? y : (y > 0.0F ? 0.0F : HUGE_VALF);
    return static_cast<float>(std::pow(static_cast<double>(x), static_cast<double>(y)));
}

float smooth(float e0, float e1, float x) {
    if (e0 == e1) return x < e0 ? 0.0F : 1.0F;
    const float t = held((x - e0) / (e1 - e0), 0.0F, 1.0F);
    return t * t * (3.0F - 2.0F * t);
}

float sign_of(float x) { return x > 0.0F ? 1.0F : (x < 0.0F ? -1.0F : x); }

std::int32_t wrap(std::uint32_t x) { return static_cast<std::int32_t>(x); }
std::uint32_t bits(std::int32_t x) { return static_cast<std::uint32_t>(x); }

std::uint32_t hash_2d(std::uint32_t x, std::uint32_t y) { return lattice_hash(x, y); }
std::uint32_t hash_3d(std::uint32_t x, std::uint32_t y, std::uint32_t z) { return lattice_hash(x, y, z); }

using ByPart = float (*)(float a, float b, float c);
using ByWhole = std::int32_t (*)(std::int32_t a, std::int32_t b, std::int32_t c);
using OfValues = Value (*)(Type type, const Value& a, const Value& b);

// How one is computed: part by part of numbers or of whole numbers, from all of the values, or elsewhere: those that
// are made of others, and those that look at neighbours or pictures.
struct DirectRow {
    Builtin id;
    ByPart by_part = nullptr;
    ByWhole by_whole = nullptr;
    OfValues of_values = nullptr;
};

template <double (*function)(double)>
constexpr ByPart elementary = [](float a, float, float) { return through_double(function, a); };

template <class Function>
Value numbers(Type type, Function function) {
    Value made{type, {}, {}};
    for (std::size_t i = 0; i < static_cast<std::size_t>(width_of(type)); ++i) made.parts[i] = function(i);
    return made;
}

template <class Function>
Value wholes(Type type, Function function) {
    Value made{type, {}, {}};
    for (std::size_t i = 0; i < static_cast<std::size_t>(width_of(type)); ++i) made.wholes[i] = function(i);
    return made;
}

Value bits_of(Type type, const Value& a, const Value&) {
    return wholes(type, [&](std::size_t i) { return std::bit_cast<std::int32_t>(a.parts[i]); });
}
Value number_of(Type type, const Value& a, const Value&) {
    return numbers(type, [&](std::size_t i) { return std::bit_cast<float>(a.wholes[i]); });
}

Value random_1(Type, const Value& a, const Value&) { return make_number(unit_from_hash(pcg(lattice(a.parts[0])))); }
Value random_2(Type, const Value& a, const Value&) {
    return make_number(unit_from_hash(lattice_hash(lattice(a.parts[0]), lattice(a.parts[1]))));
}
Value random_3(Type, const Value& a, const Value&) {
    return make_number(unit_from_hash(lattice_hash(lattice(a.parts[0]), lattice(a.parts[1]), lattice(a.parts[2]))));
}
Value three_random(Type, const Value& a, const Value&) {
    const auto words = pcg3d({lattice(a.parts[0]), lattice(a.parts[1]), lattice(a.parts[2])});
    return make_vec3(unit_from_hash(words[0]), unit_from_hash(words[1]), unit_from_hash(words[2]));
}

using Noise = float (*)(const Parts& where);
float value_2(const Parts& p) { return value_noise_2d(p[0], p[1], hash_2d); }
float value_3(const Parts& p) { return value_noise_3d(p[0], p[1], p[2], hash_3d); }
float gradient_2(const Parts& p) { return unit_noise(gradient_noise_2d(p[0], p[1], hash_2d), gradient_scale_2d); }
float gradient_3(const Parts& p) { return unit_noise(gradient_noise_3d(p[0], p[1], p[2], hash_3d), gradient_scale_3d); }
float cellular_2(const Parts& p) { return cellular_noise_2d(p[0], p[1], hash_2d); }
float cellular_3(const Parts& p) { return cellular_noise_3d(p[0], p[1], p[2], hash_3d); }

template <Noise noise>
Value one_octave(Type, const Value& a, const Value&) {
    return make_number(noise(a.parts));
}

template <Noise noise>
Value octaves(Type, const Value& a, const Value& b) {
    return make_number(fractal_sum(b.parts[0], [&](float scale, float shift) {
        Parts there = a.parts;
        for (float& place : there) place = place * scale + shift;
        return noise(there);
    }));
}

// Without the signs of zeros: 0 at the origin, pi to the left of it.
float angle(float y, float x, float) {
    return static_cast<float>(std::atan2(static_cast<double>(y) + 0.0, static_cast<double>(x) + 0.0));
}

constexpr DirectRow part(Builtin id, ByPart function) { return {id, function, nullptr, nullptr}; }
constexpr DirectRow whole(Builtin id, ByWhole function) { return {id, nullptr, function, nullptr}; }
constexpr DirectRow all(Builtin id, OfValues function) { return {id, nullptr, nullptr, function}; }
constexpr DirectRow elsewhere(Builtin id) { return {id, nullptr, nullptr, nullptr}; }

using B = Builtin;
using F = float;
using I = std::int32_t;

constexpr std::array<DirectRow, static_cast<std::size_t>(Builtin::count)> rows = {{
    elsewhere(B::radians),
    elsewhere(B::degrees),
    part(B::sin, elementary<std::sin>),
    part(B::cos, elementary<std::cos>),
    part(B::tan, elementary<std::tan>),
    part(B::asin, [](F a, F, F) { return through_double(std::asin, held(a, -1.0F, 1.0F)); }),
    part(B::acos, [](F a, F, F) { return through_double(std::acos, held(a, -1.0F, 1.0F)); }),
    part(B::atan, elementary<std::atan>),
    part(B::atan2, angle),
    part(B::sinh, elementary<std::sinh>),
    part(B::cosh, elementary<std::cosh>),
    part(B::tanh, elementary<std::tanh>),
    part(B::asinh, elementary<std::asinh>),
    part(B::acosh, [](F a, F, F) { return through_double(std::acosh, larger(a, 1.0F)); }),
    part(B::atanh, elementary<std::atanh>),
    part(B::pow, [](F a, F b, F) { return power(a, b); }),
    part(B::exp, elementary<std::exp>),
    part(B::log, elementary<std::log>),
    part(B::exp2, elementary<std::exp2>),
    part(B::log2, elementary<std::log2>),
    part(B::sqrt, [](F a, F, F) { return std::sqrt(a); }),
    part(B::inversesqrt, [](F a, F, F) { return 1.0F / std::sqrt(a); }),
    part(B::abs, [](F a, F, F) { return std::fabs(a); }),
    part(B::sign, [](F a, F, F) { return sign_of(a); }),
    part(B::floor, [](F a, F, F) { return std::floor(a); }),
    part(B::trunc, [](F a, F, F) { return std::trunc(a); }),
    part(B::round, [](F a, F, F) { return std::nearbyint(a); }),
    part(B::round_even, [](F a, F, F) { return std::nearbyint(a); }),
    part(B::ceil, [](F a, F, F) { return std::ceil(a); }),
    part(B::fract, [](F a, F, F) { return a - std::floor(a); }),
    part(B::mod, [](F a, F b, F) { return a - b * std::floor(a / b); }),
    part(B::min, [](F a, F b, F) { return smaller(a, b); }),
    part(B::max, [](F a, F b, F) { return larger(a, b); }),
    part(B::clamp, [](F a, F b, F c) { return held(a, b, c); }),
    part(B::mix, [](F a, F b, F c) { return a * (1.0F - c) + b * c; }),
    elsewhere(B::mix_choice),
    part(B::step, [](F a, F b, F) { return b < a ? 0.0F : 1.0F; }),
    part(B::smoothstep, [](F a, F b, F c) { return smooth(a, b, c); }),
    all(B::is_nan,
        [](Type type, const Value& a,
           const Value&) { return wholes(type, [&](std::size_t i) { return std::isnan(a.parts[i]) ? 1 : 0; }); }),
    all(B::is_inf,
        [](Type type, const Value& a,
           const Value&) { return wholes(type, [&](std::size_t i) { return std::isinf(a.parts[i]) ? 1 : 0; }); }),
    all(B::float_bits_to_int, bits_of),
    all(B::int_bits_to_float, number_of),
    all(B::float_bits_to_uint, bits_of),
    all(B::uint_bits_to_float, number_of),
    elsewhere(B::abs_int),
    elsewhere(B::sign_int),
    whole(B::min_int, [](I a, I b, I) { return std::min(a, b); }),
    whole(B::max_int, [](I a, I b, I) { return std::max(a, b); }),
    elsewhere(B::clamp_int),
    whole(B::min_uint, [](I a, I b, I) { return wrap(std::min(bits(a), bits(b))); }),
    whole(B::max_uint, [](I a, I b, I) { return wrap(std::max(bits(a), bits(b))); }),
    elsewhere(B::clamp_uint),
    elsewhere(B::length),
    elsewhere(B::distance),
    elsewhere(B::dot),
    elsewhere(B::cross),
    elsewhere(B::normalize),
    elsewhere(B::faceforward),
    elsewhere(B::reflect),
    elsewhere(B::refract),
    elsewhere(B::matrix_parts_2),
    elsewhere(B::matrix_parts_3),
    elsewhere(B::outer_2),
    elsewhere(B::outer_3),
    elsewhere(B::transpose_2),
    elsewhere(B::transpose_3),
    elsewhere(B::determinant_2),
    elsewhere(B::determinant_3),
    elsewhere(B::inverse_2),
    elsewhere(B::inverse_3),
    elsewhere(B::less_than),
    elsewhere(B::less_than_equal),
    elsewhere(B::greater_than),
    elsewhere(B::greater_than_equal),
    elsewhere(B::equal),
    elsewhere(B::equal_truth),
    elsewhere(B::not_equal),
    elsewhere(B::not_equal_truth),
    elsewhere(B::any),
    elsewhere(B::all),
    elsewhere(B::opposite),
    elsewhere(B::derivative_x),
    elsewhere(B::derivative_y),
    elsewhere(B::derivative_width),
    elsewhere(B::premultiply),
    elsewhere(B::unpremultiply),
    elsewhere(B::with_opacity_of),
    all(B::hash_1, random_1),
    all(B::hash_2, random_2),
    all(B::hash_3, random_3),
    all(B::hash3, three_random),
    all(B::value_noise_2, one_octave<value_2>),
    all(B::value_noise_3, one_octave<value_3>),
    all(B::gradient_noise_2, one_octave<gradient_2>),
    all(B::gradient_noise_3, one_octave<gradient_3>),
    all(B::cellular_noise_2, one_octave<cellular_2>),
    all(B::cellular_noise_3, one_octave<cellular_3>),
    all(B::fractal_value_2, octaves<value_2>),
    all(B::fractal_value_3, octaves<value_3>),
    all(B::fractal_gradient_2, octaves<gradient_2>),
    all(B::fractal_gradient_3, octaves<gradient_3>),
    all(B::fractal_cellular_2, octaves<cellular_2>),
    all(B::fractal_cellular_3, octaves<cellular_3>),
    elsewhere(B::texture),
    elsewhere(B::texture_lod),
    elsewhere(B::texel_fetch),
    elsewhere(B::texture_size),
    elsewhere(B::at),
    elsewhere(B::previous),
}};

constexpr bool in_order() {
    for (std::size_t i = 0; i < rows.size(); ++i) {
        if (rows[i].id != static_cast<Builtin>(i)) return false;
    }
    return true;
}
static_assert(in_order(), "one row for each id, in the order of the ids");

}  // namespace

Value call_builtin(Builtin builtin, Type type, const std::array<Value, 3>& args) {
    const Value& a = args[0];
    const Value& b = args[1];
    const Value& c = args[2];
    const DirectRow& row = rows[static_cast<std::size_t>(builtin)];
    if (row.of_values != nullptr) return row.of_values(type, a, b);
    if (row.by_whole != nullptr)
        return wholes(type, [&](std::size_t i) { return row.by_whole(a.wholes[i], b.wholes[i], c.wholes[i]); });
    assert(row.by_part != nullptr);
    return numbers(type, [&](std::size_t i) { return row.by_part(a.parts[i], b.parts[i], c.parts[i]); });
}

}  // namespace lacquer
