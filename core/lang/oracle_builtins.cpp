// The built-in functions, one place at a time, as GLSL ES 3.00 chapter 8 writes them.
#include <algorithm>
#include <bit>
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

float dot_of(const Parts& a, const Parts& b, int width) {
    float sum = a[0] * b[0];
    for (std::size_t i = 1; i < static_cast<std::size_t>(width); ++i) sum = sum + a[i] * b[i];
    return sum;
}

std::int32_t wrap(std::uint32_t x) { return static_cast<std::int32_t>(x); }
std::uint32_t bits(std::int32_t x) { return static_cast<std::uint32_t>(x); }

std::uint32_t hash_2d(std::uint32_t x, std::uint32_t y) { return lattice_hash(x, y); }
std::uint32_t hash_3d(std::uint32_t x, std::uint32_t y, std::uint32_t z) { return lattice_hash(x, y, z); }

// One octave of a fractal sum.
float octave(Builtin builtin, const Parts& p) {
    switch (builtin) {
        case Builtin::fractal_value_2:
            return value_noise_2d(p[0], p[1], hash_2d);
        case Builtin::fractal_value_3:
            return value_noise_3d(p[0], p[1], p[2], hash_3d);
        case Builtin::fractal_gradient_2:
            return unit_noise(gradient_noise_2d(p[0], p[1], hash_2d), gradient_scale_2d);
        case Builtin::fractal_gradient_3:
            return unit_noise(gradient_noise_3d(p[0], p[1], p[2], hash_3d), gradient_scale_3d);
        case Builtin::fractal_cellular_2:
            return cellular_noise_2d(p[0], p[1], hash_2d);
        default:
            return cellular_noise_3d(p[0], p[1], p[2], hash_3d);
    }
}

float part(Builtin builtin, float a, float b, float c) {
    switch (builtin) {
        case Builtin::radians:
            return a * 0.017453292F;
        case Builtin::degrees:
            return a * 57.29578F;
        case Builtin::sin:
            return through_double(std::sin, a);
        case Builtin::cos:
            return through_double(std::cos, a);
        case Builtin::tan:
            return through_double(std::tan, a);
        case Builtin::asin:
            return through_double(std::asin, held(a, -1.0F, 1.0F));
        case Builtin::acos:
            return through_double(std::acos, held(a, -1.0F, 1.0F));
        case Builtin::atan:
            return through_double(std::atan, a);
        case Builtin::atan2:
            // Without the signs of zeros: 0 at the origin, pi to the left of it.
            return static_cast<float>(std::atan2(static_cast<double>(a) + 0.0, static_cast<double>(b) + 0.0));
        case Builtin::sinh:
            return through_double(std::sinh, a);
        case Builtin::cosh:
            return through_double(std::cosh, a);
        case Builtin::tanh:
            return through_double(std::tanh, a);
        case Builtin::asinh:
            return through_double(std::asinh, a);
        case Builtin::acosh:
            return through_double(std::acosh, larger(a, 1.0F));
        case Builtin::atanh:
            return through_double(std::atanh, a);
        case Builtin::pow:
            return power(a, b);
        case Builtin::exp:
            return through_double(std::exp, a);
        case Builtin::log:
            return through_double(std::log, a);
        case Builtin::exp2:
            return through_double(std::exp2, a);
        case Builtin::log2:
            return through_double(std::log2, a);
        case Builtin::sqrt:
            return std::sqrt(a);
        case Builtin::inversesqrt:
            return 1.0F / std::sqrt(a);
        case Builtin::abs:
            return std::fabs(a);
        case Builtin::sign:
            return sign_of(a);
        case Builtin::floor:
            return std::floor(a);
        case Builtin::trunc:
            return std::trunc(a);
        case Builtin::round:
        case Builtin::round_even:
            return std::nearbyint(a);
        case Builtin::ceil:
            return std::ceil(a);
        case Builtin::fract:
            return a - std::floor(a);
        case Builtin::mod:
            return a - b * std::floor(a / b);
        case Builtin::min:
            return smaller(a, b);
        case Builtin::max:
            return larger(a, b);
        case Builtin::clamp:
            return held(a, b, c);
        case Builtin::mix:
            return a * (1.0F - c) + b * c;
        case Builtin::step:
            return b < a ? 0.0F : 1.0F;
        case Builtin::smoothstep:
            return smooth(a, b, c);
        default:
            return 0.0F;
    }
}

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

Value refracted(Type type, const Parts& incident, const Parts& normal, float eta) {
    const float cosine = dot_of(normal, incident, width_of(type));
    const float k = 1.0F - eta * eta * (1.0F - cosine * cosine);
    if (k < 0.0F) return Value{type, {}, {}};
    const float along = eta * cosine + std::sqrt(k);
    return numbers(type, [&](std::size_t i) { return eta * incident[i] - along * normal[i]; });
}

// Column c, row r of a square matrix.
float cell(const Parts& m, int side, int c, int r) { return m[static_cast<std::size_t>(c * side + r)]; }

float determinant_2(const Parts& m) { return m[0] * m[3] - m[2] * m[1]; }

// The determinant of what is left without column c and row r, with its sign.
float cofactor_3(const Parts& m, int c, int r) {
    const int c1 = (c + 1) % 3;
    const int c2 = (c + 2) % 3;
    const int r1 = (r + 1) % 3;
    const int r2 = (r + 2) % 3;
    return cell(m, 3, c1, r1) * cell(m, 3, c2, r2) - cell(m, 3, c2, r1) * cell(m, 3, c1, r2);
}

float determinant_3(const Parts& m) {
    return m[0] * cofactor_3(m, 0, 0) + m[1] * cofactor_3(m, 0, 1) + m[2] * cofactor_3(m, 0, 2);
}

Value matrix_call(const Typed& t, const Value& a, const Value& b) {
    const int side = is_matrix(t.args[0].type) ? side_of(t.args[0].type) : width_of(t.args[0].type);
    const auto column = [&](std::size_t i) { return static_cast<int>(i) / side; };
    const auto row = [&](std::size_t i) { return static_cast<int>(i) % side; };
    switch (t.builtin) {
        case Builtin::outer_2:
        case Builtin::outer_3:
            return numbers(t.type, [&](std::size_t i) {
                return a.parts[static_cast<std::size_t>(row(i))] * b.parts[static_cast<std::size_t>(column(i))];
            });
        case Builtin::transpose_2:
        case Builtin::transpose_3:
            return numbers(t.type, [&](std::size_t i) { return cell(a.parts, side, row(i), column(i)); });
        case Builtin::determinant_2:
            return make_number(determinant_2(a.parts));
        case Builtin::determinant_3:
            return make_number(determinant_3(a.parts));
        case Builtin::inverse_2: {
            const float d = determinant_2(a.parts);
            const Parts adjugate = {a.parts[3], -a.parts[1], -a.parts[2], a.parts[0]};
            return numbers(t.type, [&](std::size_t i) { return adjugate[i] / d; });
        }
        case Builtin::inverse_3: {
            const float d = determinant_3(a.parts);
            return numbers(t.type, [&](std::size_t i) { return cofactor_3(a.parts, row(i), column(i)) / d; });
        }
        default:
            return numbers(t.type, [&](std::size_t i) { return a.parts[i] * b.parts[i]; });
    }
}

// Whether part i of a stands to part i of b as the function says.
bool stands(Builtin builtin, const Value& a, const Value& b, std::size_t i) {
    const auto holds = [&](auto x, auto y) {
        switch (builtin) {
            case Builtin::less_than:
                return x < y;
            case Builtin::less_than_equal:
                return x <= y;
            case Builtin::greater_than:
                return x > y;
            case Builtin::greater_than_equal:
                return x >= y;
            case Builtin::equal:
            case Builtin::equal_truth:
                return x == y;
            default:
                return !(x == y);
        }
    };
    if (scalar_of(a.type) == Scalar::real) return holds(a.parts[i], b.parts[i]);
    if (scalar_of(a.type) == Scalar::natural) return holds(bits(a.wholes[i]), bits(b.wholes[i]));
    return holds(a.wholes[i], b.wholes[i]);
}

}  // namespace

Value call_builtin(const Typed& t, const std::array<Value, 3>& args) {
    const Value& a = args[0];
    const Value& b = args[1];
    const Value& c = args[2];
    const int width = width_of(t.args[0].type);
    switch (t.builtin) {
        case Builtin::is_nan:
            return wholes(t.type, [&](std::size_t i) { return std::isnan(a.parts[i]) ? 1 : 0; });
        case Builtin::is_inf:
            return wholes(t.type, [&](std::size_t i) { return std::isinf(a.parts[i]) ? 1 : 0; });
        case Builtin::float_bits_to_int:
        case Builtin::float_bits_to_uint:
            return wholes(t.type, [&](std::size_t i) { return std::bit_cast<std::int32_t>(a.parts[i]); });
        case Builtin::int_bits_to_float:
        case Builtin::uint_bits_to_float:
            return numbers(t.type, [&](std::size_t i) { return std::bit_cast<float>(a.wholes[i]); });
        case Builtin::abs_int:
            return wholes(t.type,
                          [&](std::size_t i) { return a.wholes[i] < 0 ? wrap(0U - bits(a.wholes[i])) : a.wholes[i]; });
        case Builtin::sign_int:
            return wholes(t.type, [&](std::size_t i) { return (a.wholes[i] > 0 ? 1 : 0) - (a.wholes[i] < 0 ? 1 : 0); });
        case Builtin::min_int:
            return wholes(t.type, [&](std::size_t i) { return std::min(a.wholes[i], b.wholes[i]); });
        case Builtin::max_int:
            return wholes(t.type, [&](std::size_t i) { return std::max(a.wholes[i], b.wholes[i]); });
        case Builtin::clamp_int:
            return wholes(t.type,
                          [&](std::size_t i) { return std::min(std::max(a.wholes[i], b.wholes[i]), c.wholes[i]); });
        case Builtin::min_uint:
            return wholes(t.type, [&](std::size_t i) { return wrap(std::min(bits(a.wholes[i]), bits(b.wholes[i]))); });
        case Builtin::max_uint:
            return wholes(t.type, [&](std::size_t i) { return wrap(std::max(bits(a.wholes[i]), bits(b.wholes[i]))); });
        case Builtin::clamp_uint:
            return wholes(t.type, [&](std::size_t i) {
                return wrap(std::min(std::max(bits(a.wholes[i]), bits(b.wholes[i])), bits(c.wholes[i])));
            });
        case Builtin::length:
            return make_number(std::sqrt(dot_of(a.parts, a.parts, width)));
        case Builtin::distance: {
            Parts d{};
            for (std::size_t i = 0; i < 4; ++i) d[i] = a.parts[i] - b.parts[i];
            return make_number(std::sqrt(dot_of(d, d, width)));
        }
        case Builtin::dot:
            return make_number(dot_of(a.parts, b.parts, width));
        case Builtin::cross:
            return make_vec3(a.parts[1] * b.parts[2] - a.parts[2] * b.parts[1],
                             a.parts[2] * b.parts[0] - a.parts[0] * b.parts[2],
                             a.parts[0] * b.parts[1] - a.parts[1] * b.parts[0]);
        case Builtin::normalize: {
            const float size = std::sqrt(dot_of(a.parts, a.parts, width));
            return numbers(t.type, [&](std::size_t i) { return size == 0.0F ? 0.0F : a.parts[i] / size; });
        }
        case Builtin::faceforward: {
            const bool facing = dot_of(c.parts, b.parts, width) < 0.0F;
            return numbers(t.type, [&](std::size_t i) { return facing ? a.parts[i] : -a.parts[i]; });
        }
        case Builtin::reflect: {
            const float twice = 2.0F * dot_of(b.parts, a.parts, width);
            return numbers(t.type, [&](std::size_t i) { return a.parts[i] - twice * b.parts[i]; });
        }
        case Builtin::refract:
            return refracted(t.type, a.parts, b.parts, c.parts[0]);
        case Builtin::mix_choice:
            return numbers(t.type, [&](std::size_t i) { return c.wholes[i] != 0 ? b.parts[i] : a.parts[i]; });
        case Builtin::matrix_parts_2:
        case Builtin::matrix_parts_3:
        case Builtin::outer_2:
        case Builtin::outer_3:
        case Builtin::transpose_2:
        case Builtin::transpose_3:
        case Builtin::determinant_2:
        case Builtin::determinant_3:
        case Builtin::inverse_2:
        case Builtin::inverse_3:
            return matrix_call(t, a, b);
        case Builtin::less_than:
        case Builtin::less_than_equal:
        case Builtin::greater_than:
        case Builtin::greater_than_equal:
        case Builtin::equal:
        case Builtin::equal_truth:
        case Builtin::not_equal:
        case Builtin::not_equal_truth:
            return wholes(t.type, [&](std::size_t i) { return stands(t.builtin, a, b, i) ? 1 : 0; });
        case Builtin::any:
            return make_boolean(std::any_of(a.wholes.begin(), a.wholes.begin() + width, [](int x) { return x != 0; }));
        case Builtin::all:
            return make_boolean(std::all_of(a.wholes.begin(), a.wholes.begin() + width, [](int x) { return x != 0; }));
        case Builtin::opposite:
            return wholes(t.type, [&](std::size_t i) { return a.wholes[i] == 0 ? 1 : 0; });
        case Builtin::premultiply:
            if (width < 4) return a;
            return make_vec4(a.parts[0] * a.parts[3], a.parts[1] * a.parts[3], a.parts[2] * a.parts[3], a.parts[3]);
        case Builtin::unpremultiply:
            if (width < 4) return a;
            if (a.parts[3] == 0.0F) return make_vec4(0, 0, 0, 0);
            return make_vec4(a.parts[0] / a.parts[3], a.parts[1] / a.parts[3], a.parts[2] / a.parts[3], a.parts[3]);
        case Builtin::with_opacity_of:
            return width < 4 ? a : make_vec4(a.parts[0], a.parts[1], a.parts[2], b.parts[3]);
        case Builtin::hash_1:
            return make_number(unit_from_hash(pcg(lattice(a.parts[0]))));
        case Builtin::hash_2:
            return make_number(unit_from_hash(lattice_hash(lattice(a.parts[0]), lattice(a.parts[1]))));
        case Builtin::hash_3:
            return make_number(
                unit_from_hash(lattice_hash(lattice(a.parts[0]), lattice(a.parts[1]), lattice(a.parts[2]))));
        case Builtin::hash3: {
            const auto words = pcg3d({lattice(a.parts[0]), lattice(a.parts[1]), lattice(a.parts[2])});
            return make_vec3(unit_from_hash(words[0]), unit_from_hash(words[1]), unit_from_hash(words[2]));
        }
        case Builtin::value_noise_2:
            return make_number(value_noise_2d(a.parts[0], a.parts[1], hash_2d));
        case Builtin::value_noise_3:
            return make_number(value_noise_3d(a.parts[0], a.parts[1], a.parts[2], hash_3d));
        case Builtin::gradient_noise_2:
            return make_number(unit_noise(gradient_noise_2d(a.parts[0], a.parts[1], hash_2d), gradient_scale_2d));
        case Builtin::gradient_noise_3:
            return make_number(
                unit_noise(gradient_noise_3d(a.parts[0], a.parts[1], a.parts[2], hash_3d), gradient_scale_3d));
        case Builtin::cellular_noise_2:
            return make_number(cellular_noise_2d(a.parts[0], a.parts[1], hash_2d));
        case Builtin::cellular_noise_3:
            return make_number(cellular_noise_3d(a.parts[0], a.parts[1], a.parts[2], hash_3d));
        case Builtin::fractal_value_2:
        case Builtin::fractal_value_3:
        case Builtin::fractal_gradient_2:
        case Builtin::fractal_gradient_3:
        case Builtin::fractal_cellular_2:
        case Builtin::fractal_cellular_3:
            return make_number(fractal_sum(b.parts[0], [&](float scale, float shift) {
                Value there = a;
                for (float& place : there.parts) place = place * scale + shift;
                return octave(t.builtin, there.parts);
            }));
        default:
            return numbers(t.type, [&](std::size_t i) { return part(t.builtin, a.parts[i], b.parts[i], c.parts[i]); });
    }
}

}  // namespace lacquer
