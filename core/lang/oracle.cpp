#include "core/lang/oracle.h"

#include <algorithm>
#include <bit>
#include <cmath>

#include "core/lang/noise.h"

namespace lacquer {

namespace {

using Parts = std::array<float, 4>;

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

std::int32_t quotient(std::int32_t a, std::int32_t b) {
    if (b == 0) return 0;
    return b == -1 ? wrap(0U - bits(a)) : a / b;
}

std::int32_t whole_binary(Operator op, std::int32_t a, std::int32_t b) {
    switch (op) {
        case Operator::add:
            return wrap(bits(a) + bits(b));
        case Operator::subtract:
            return wrap(bits(a) - bits(b));
        case Operator::multiply:
            return wrap(bits(a) * bits(b));
        case Operator::divide:
            return quotient(a, b);
        case Operator::remainder:
            return b == 0 ? 0 : wrap(bits(a) - bits(quotient(a, b)) * bits(b));
        case Operator::shift_left:
            return wrap(bits(a) << (bits(b) & 31U));
        case Operator::shift_right:
            return a >> (bits(b) & 31U);
        case Operator::bit_and:
            return wrap(bits(a) & bits(b));
        case Operator::bit_or:
            return wrap(bits(a) | bits(b));
        default:
            return wrap(bits(a) ^ bits(b));
    }
}

float float_binary(Operator op, float a, float b) {
    switch (op) {
        case Operator::add:
            return a + b;
        case Operator::subtract:
            return a - b;
        case Operator::multiply:
            return a * b;
        default:
            return a / b;
    }
}

template <class T>
bool compare(Operator op, T a, T b) {
    switch (op) {
        case Operator::less:
            return a < b;
        case Operator::greater:
            return a > b;
        case Operator::less_equal:
            return a <= b;
        case Operator::greater_equal:
            return a >= b;
        default:
            return a == b;
    }
}

bool is_comparison(Operator op) {
    return op == Operator::less || op == Operator::greater || op == Operator::less_equal ||
           op == Operator::greater_equal || op == Operator::equal || op == Operator::not_equal;
}

class Oracle {
public:
    explicit Oracle(const OracleInputs& inputs) : inputs_(inputs) {}

    Value value(const Typed& t) const {
        switch (t.kind) {
            case TypedKind::literal:
                return literal(t);
            case TypedKind::symbol:
                return inputs_.name(t);
            case TypedKind::parts:
                return take_parts(t);
            case TypedKind::construct:
                return construct(t);
            case TypedKind::convert:
                return convert(t);
            case TypedKind::unary:
                return unary(t);
            case TypedKind::binary:
                return binary(t);
            case TypedKind::select:
                return value(value(t.args[0]).whole != 0 ? t.args[1] : t.args[2]);
            case TypedKind::call:
                return call(t);
            case TypedKind::read: {
                const Value where = value(t.args[0]);
                return inputs_.picture(t, where.parts[0], where.parts[1]);
            }
        }
        return {};
    }

private:
    static Value literal(const Typed& t) {
        if (t.type == Type::boolean) return make_boolean(t.number != 0);
        if (t.type == Type::integer) return make_integer(static_cast<std::int32_t>(t.number));
        return make_number(static_cast<float>(t.number));
    }

    Value take_parts(const Typed& t) const {
        const Value whole = value(t.args[0]);
        Value taken{t.type, {}, 0};
        for (std::size_t i = 0; i < static_cast<std::size_t>(t.part_count); ++i)
            taken.parts[i] = whole.parts[t.parts[i]];
        return taken;
    }

    Value construct(const Typed& t) const {
        Value made{t.type, {}, 0};
        const auto width = static_cast<std::size_t>(width_of(t.type));
        std::size_t at = 0;
        for (const Typed& arg : t.args) {
            const Value part = value(arg);
            for (std::size_t i = 0; i < static_cast<std::size_t>(width_of(arg.type)) && at < width; ++i) {
                made.parts[at++] = part.parts[i];
            }
        }
        if (at == 1) made.parts.fill(made.parts[0]);
        return made;
    }

    Value convert(const Typed& t) const {
        const Value from = value(t.args[0]);
        const bool is_number = t.args[0].type == Type::number;
        if (t.type == Type::number) return make_number(static_cast<float>(from.whole));
        if (t.type == Type::boolean) return make_boolean(is_number ? from.parts[0] != 0.0F : from.whole != 0);
        return make_integer(is_number ? to_whole(from.parts[0]) : from.whole);
    }

    Value unary(const Typed& t) const {
        Value v = value(t.args[0]);
        if (t.op == Operator::invert) return make_boolean(v.whole == 0);
        if (t.op == Operator::bit_invert) return make_integer(wrap(~bits(v.whole)));
        if (t.type == Type::integer) return make_integer(wrap(0U - bits(v.whole)));
        for (float& part : v.parts) part = -part;
        return v;
    }

    Value binary(const Typed& t) const {
        const Value a = value(t.args[0]);
        const Value b = value(t.args[1]);
        switch (t.op) {
            case Operator::both:
                return make_boolean(a.whole != 0 && b.whole != 0);
            case Operator::either:
                return make_boolean(a.whole != 0 || b.whole != 0);
            case Operator::either_one:
                return make_boolean(a.whole != b.whole);
            default:
                break;
        }
        if (is_comparison(t.op)) return make_boolean(holds(t, a, b));
        if (t.type == Type::integer) return make_integer(whole_binary(t.op, a.whole, b.whole));
        Value made{t.type, {}, 0};
        for (std::size_t i = 0; i < static_cast<std::size_t>(width_of(t.type)); ++i) {
            made.parts[i] = float_binary(t.op, a.parts[i], b.parts[i]);
        }
        if (t.opacity_of >= 0) made.parts[3] = (t.opacity_of == 0 ? a : b).parts[3];
        return made;
    }

    static bool holds(const Typed& t, const Value& a, const Value& b) {
        const Type type = t.args[0].type;
        bool result = true;
        if (is_float(type)) {
            for (std::size_t i = 0; i < static_cast<std::size_t>(width_of(type)); ++i) {
                result = result && compare(t.op, a.parts[i], b.parts[i]);
            }
        } else {
            result = compare(t.op, a.whole, b.whole);
        }
        return t.op == Operator::not_equal ? !result : result;
    }

    Value call(const Typed& t) const {
        std::array<Value, 3> args{};
        for (std::size_t i = 0; i < t.args.size(); ++i) args[i] = value(t.args[i]);
        const Value& a = args[0];
        const Value& b = args[1];
        const Value& c = args[2];
        const int width = width_of(t.args[0].type);
        switch (t.builtin) {
            case Builtin::is_nan:
                return make_boolean(std::isnan(a.parts[0]));
            case Builtin::is_inf:
                return make_boolean(std::isinf(a.parts[0]));
            case Builtin::float_bits_to_int:
                return make_integer(std::bit_cast<std::int32_t>(a.parts[0]));
            case Builtin::int_bits_to_float:
                return make_number(std::bit_cast<float>(a.whole));
            case Builtin::abs_int:
                return make_integer(a.whole < 0 ? wrap(0U - bits(a.whole)) : a.whole);
            case Builtin::sign_int:
                return make_integer((a.whole > 0 ? 1 : 0) - (a.whole < 0 ? 1 : 0));
            case Builtin::min_int:
                return make_integer(std::min(a.whole, b.whole));
            case Builtin::max_int:
                return make_integer(std::max(a.whole, b.whole));
            case Builtin::clamp_int:
                return make_integer(std::min(std::max(a.whole, b.whole), c.whole));
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
                return by_part(t, [&](std::size_t i) { return size == 0.0F ? 0.0F : a.parts[i] / size; });
            }
            case Builtin::faceforward: {
                const bool facing = dot_of(c.parts, b.parts, width) < 0.0F;
                return by_part(t, [&](std::size_t i) { return facing ? a.parts[i] : -a.parts[i]; });
            }
            case Builtin::reflect: {
                const float twice = 2.0F * dot_of(b.parts, a.parts, width);
                return by_part(t, [&](std::size_t i) { return a.parts[i] - twice * b.parts[i]; });
            }
            case Builtin::refract:
                return refracted(t, a.parts, b.parts, c.parts[0]);
            case Builtin::mix_choice:
                return c.whole != 0 ? b : a;
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
            default:
                return by_part(t, [&](std::size_t i) { return part(t.builtin, a.parts[i], b.parts[i], c.parts[i]); });
        }
    }

    static std::uint32_t hash_2d(std::uint32_t x, std::uint32_t y) { return lattice_hash(x, y); }
    static std::uint32_t hash_3d(std::uint32_t x, std::uint32_t y, std::uint32_t z) { return lattice_hash(x, y, z); }

    template <class Function>
    static Value by_part(const Typed& t, Function function) {
        Value made{t.type, {}, 0};
        for (std::size_t i = 0; i < static_cast<std::size_t>(width_of(t.type)); ++i) made.parts[i] = function(i);
        return made;
    }

    static Value refracted(const Typed& t, const Parts& incident, const Parts& normal, float eta) {
        const float cosine = dot_of(normal, incident, width_of(t.type));
        const float k = 1.0F - eta * eta * (1.0F - cosine * cosine);
        if (k < 0.0F) return Value{t.type, {}, 0};
        const float along = eta * cosine + std::sqrt(k);
        return by_part(t, [&](std::size_t i) { return eta * incident[i] - along * normal[i]; });
    }

    static float part(Builtin builtin, float a, float b, float c) {
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

    const OracleInputs& inputs_;
};

}  // namespace

Value evaluate(const Typed& typed, const OracleInputs& inputs) { return Oracle(inputs).value(typed); }

std::int32_t to_whole(float x) {
    if (std::isnan(x)) return 0;
    if (x >= 2147483648.0F) return 2147483647;
    if (x < -2147483648.0F) return -2147483647 - 1;
    return static_cast<std::int32_t>(x);
}

}  // namespace lacquer
