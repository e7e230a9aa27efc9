// Elementary functions. Our own, from multiplications and additions alone, so that every instruction set gives the same
// bits. Polynomials and range reductions are those of the Cephes Math Library, release 2.2, single precision (Moshier
// 1992), from memory; the tests hold them to the C library's double precision.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cpu/kernels_elementary.cpp"
#include <hwy/foreach_target.h>
// The order matters to Highway.
// clang-format off
#include <hwy/highway.h>
#include "core/cpu/strip-inl.h"
// clang-format on

#include <array>
#include <bit>
#include <cstdint>

HWY_BEFORE_NAMESPACE();
namespace lacquer::HWY_NAMESPACE {

constexpr float infinity = std::bit_cast<float>(0x7F800000U);
constexpr float not_a_number = std::bit_cast<float>(0x7FC00000U);
constexpr float half_pi = 1.5707963267948966F;

template <std::size_t N>
HWY_INLINE VF polynomial(VF x, const std::array<float, N>& highest_first) {
    VF sum = number(highest_first[0]);
    for (std::size_t i = 1; i < N; ++i) sum = hn::Add(hn::Mul(sum, x), number(highest_first[i]));
    return sum;
}

HWY_INLINE VF with_sign_of(VF size, VF signed_value) {
    const VF sign_bit = hn::BitCast(F(), hn::Set(U(), 0x80000000U));
    return hn::Or(hn::AndNot(sign_bit, size), hn::And(sign_bit, signed_value));
}

// An angle as a multiple of pi/4 (made even) and a remainder of at most pi/4.
struct Reduced {
    VF rest;
    VI eighths;
};

// Far out, single precision has no angle left after the subtraction: such lanes are reduced one by one in double.
HWY_NOINLINE void reduce_far(const float* x, float* rest, std::int32_t* eighths, std::size_t count) {
    constexpr double to_half_turns = 0.63661977236758134308;  // 2/pi
    constexpr double half_pi_high = 1.57079632673412561417;   // pi/2 with 33 bits, so that products are exact
    constexpr double half_pi_low = 6.07710050650619224932e-11;
    constexpr double rounder = 6755399441055744.0;  // 1.5 * 2^52: adding and taking it away rounds
    for (std::size_t i = 0; i < count; ++i) {
        const double angle = static_cast<double>(x[i]);
        const double size = angle < 0 ? -angle : angle;
        if (!(size >= 8192.0)) continue;
        if (size > 1e12) {  // no digit of the angle is left in single precision
            rest[i] = size > 3.5e38 ? not_a_number : 0.0F;
            eighths[i] = 0;
            continue;
        }
        const double turns = (size * to_half_turns + rounder) - rounder;
        rest[i] = static_cast<float>((size - turns * half_pi_high) - turns * half_pi_low);
        eighths[i] = static_cast<std::int32_t>((static_cast<std::int64_t>(turns) & 3) * 2);
    }
}

HWY_INLINE Reduced reduce(VF x) {
    const F d;
    const I di;
    const VF size = hn::Abs(x);
    const MF far = hn::Not(hn::Lt(size, number(8192.0F)));
    const VF near = hn::IfThenElse(far, number(0.0F), size);
    VI eighths = hn::ConvertTo(di, hn::Mul(near, number(1.27323954473516F)));
    eighths = hn::And(hn::Add(eighths, hn::Set(di, 1)), hn::Set(di, ~1));
    const VF count = hn::ConvertTo(d, eighths);
    VF rest = hn::Sub(near, hn::Mul(count, number(0.78515625F)));
    rest = hn::Sub(rest, hn::Mul(count, number(2.4187564849853515625e-4F)));
    rest = hn::Sub(rest, hn::Mul(count, number(3.77489497744594108e-8F)));
    if (!hn::AllFalse(d, far)) {
        HWY_ALIGN std::array<float, lane_block> all{};
        HWY_ALIGN std::array<float, lane_block> rests{};
        HWY_ALIGN std::array<std::int32_t, lane_block> counts{};
        hn::Store(x, d, all.data());
        hn::Store(rest, d, rests.data());
        hn::Store(eighths, di, counts.data());
        reduce_far(all.data(), rests.data(), counts.data(), hn::Lanes(d));
        rest = hn::Load(d, rests.data());
        eighths = hn::Load(di, counts.data());
    }
    rest = hn::IfThenElse(is_nan(x), x, rest);
    return {rest, hn::And(eighths, hn::Set(di, 7))};
}

HWY_INLINE VF sine_near(VF x) {
    const VF z = hn::Mul(x, x);
    const VF p = polynomial<3>(z, {-1.9515295891E-4F, 8.3321608736E-3F, -1.6666654611E-1F});
    return hn::Add(hn::Mul(hn::Mul(p, z), x), x);
}

HWY_INLINE VF cosine_near(VF x) {
    const VF z = hn::Mul(x, x);
    const VF p = polynomial<3>(z, {2.443315711809948E-5F, -1.388731625493765E-3F, 4.166664568298827E-2F});
    return hn::Add(hn::Sub(hn::Mul(hn::Mul(p, z), z), hn::Mul(number(0.5F), z)), number(1.0F));
}

HWY_INLINE MF bit_set(VI whole, std::int32_t bit) {
    return hn::RebindMask(F(), hn::Ne(hn::And(whole, hn::Set(I(), bit)), hn::Zero(I())));
}

struct SineCosine {
    VF sine;
    VF cosine;
};

HWY_INLINE SineCosine sine_cosine(VF x) {
    const Reduced r = reduce(x);
    const VF s = sine_near(r.rest);
    const VF c = cosine_near(r.rest);
    const MF swapped = bit_set(r.eighths, 2);
    VF sine = hn::IfThenElse(swapped, c, s);
    VF cosine = hn::IfThenElse(swapped, s, c);
    sine = hn::IfThenElse(bit_set(r.eighths, 4), hn::Neg(sine), sine);
    sine = hn::IfThenElse(hn::Lt(x, number(0.0F)), hn::Neg(sine), sine);
    cosine = hn::IfThenElse(bit_set(hn::Add(r.eighths, hn::Set(I(), 2)), 4), hn::Neg(cosine), cosine);
    return {sine, cosine};
}

// Arc tangent of 0..1.
HWY_INLINE VF arc_near(VF q) {
    const MF upper = hn::Gt(q, number(0.4142135623730950F));
    const VF x = hn::IfThenElse(upper, hn::Div(hn::Sub(q, number(1.0F)), hn::Add(q, number(1.0F))), q);
    const VF z = hn::Mul(x, x);
    const VF p = polynomial<4>(z, {8.05374449538E-2F, -1.38776856032E-1F, 1.99777106478E-1F, -3.33329491539E-1F});
    const VF a = hn::Add(hn::Mul(hn::Mul(p, z), x), x);
    return hn::IfThenElse(upper, hn::Add(a, number(0.7853981633974483F)), a);
}

HWY_INLINE VF arc_tangent_2(VF y, VF x) {
    const VF ax = hn::Abs(x);
    const VF ay = hn::Abs(y);
    const VF most = larger(ax, ay);
    const VF least = smaller(ax, ay);
    VF q = hn::Div(least, most);
    q = hn::IfThenElse(hn::Eq(most, number(0.0F)), number(0.0F), q);
    q = hn::IfThenElse(hn::Eq(least, number(infinity)), number(1.0F), q);
    VF a = arc_near(q);
    a = hn::IfThenElse(hn::Gt(ay, ax), hn::Sub(number(half_pi), a), a);
    a = hn::IfThenElse(hn::Lt(x, number(0.0F)), hn::Sub(number(3.141592653589793F), a), a);
    a = hn::IfThenElse(hn::Lt(y, number(0.0F)), hn::Neg(a), a);
    return hn::IfThenElse(hn::Or(is_nan(x), is_nan(y)), number(not_a_number), a);
}

HWY_INLINE VF arc_tangent(VF x) { return with_sign_of(arc_tangent_2(hn::Abs(x), number(1.0F)), x); }

// Arc sine of 0..1/2, and the half of it that makes up the rest of the range.
HWY_INLINE VF arc_sine_near(VF x, VF z) {
    const VF p =
        polynomial<5>(z, {4.2163199048E-2F, 2.4181311049E-2F, 4.5470025998E-2F, 7.4953002686E-2F, 1.6666752422E-1F});
    return hn::Add(hn::Mul(hn::Mul(p, z), x), x);
}

HWY_INLINE VF arc_sine(VF x) {
    const VF a = smaller(hn::Abs(x), number(1.0F));
    const MF upper = hn::Gt(a, number(0.5F));
    const VF half = hn::Mul(number(0.5F), hn::Sub(number(1.0F), a));
    const VF z = hn::IfThenElse(upper, half, hn::Mul(a, a));
    const VF s = arc_sine_near(hn::IfThenElse(upper, hn::Sqrt(half), a), z);
    const VF angle = hn::IfThenElse(upper, hn::Sub(number(half_pi), hn::Mul(number(2.0F), s)), s);
    return hn::IfThenElse(is_nan(x), x, with_sign_of(angle, x));
}

HWY_INLINE VF arc_cosine(VF x) {
    // Near 1 the difference from pi/2 would lose its digits: there twice the arc sine of the half angle.
    const VF held = smaller(x, number(1.0F));
    const VF half = hn::Mul(number(0.5F), hn::Sub(number(1.0F), held));
    const VF near = hn::Mul(number(2.0F), arc_sine_near(hn::Sqrt(half), half));
    const VF angle = hn::IfThenElse(hn::Gt(held, number(0.5F)), near, hn::Sub(number(half_pi), arc_sine(x)));
    return hn::IfThenElse(is_nan(x), x, angle);
}

HWY_INLINE VF power_of_two(VI n) { return hn::BitCast(F(), hn::ShiftLeft<23>(hn::Add(n, hn::Set(I(), 127)))); }

// value * 2^n in two halves, so that neither factor leaves the range.
HWY_INLINE VF scaled(VF value, VI n) {
    const VI half = hn::ShiftRight<1>(n);
    return hn::Mul(hn::Mul(value, power_of_two(half)), power_of_two(hn::Sub(n, half)));
}

HWY_INLINE VF limits(VF x, VF value, float least, float most) {
    value = hn::IfThenElse(hn::Gt(x, number(most)), number(infinity), value);
    value = hn::IfThenElse(hn::Lt(x, number(least)), number(0.0F), value);
    return hn::IfThenElse(is_nan(x), x, value);
}

HWY_INLINE VF exponential(VF x) {
    const VF held = smaller(larger(x, number(-104.0F)), number(89.0F));
    const VF n = floored(hn::Add(hn::Mul(held, number(1.44269504088896341F)), number(0.5F)));
    VF r = hn::Sub(held, hn::Mul(n, number(0.693359375F)));
    r = hn::Sub(r, hn::Mul(n, number(-2.12194440e-4F)));
    const VF p = polynomial<6>(r, {1.9875691500E-4F, 1.3981999507E-3F, 8.3334519073E-3F, 4.1665795894E-2F,
                                   1.6666665459E-1F, 5.0000001201E-1F});
    const VF y = hn::Add(hn::Add(hn::Mul(p, hn::Mul(r, r)), r), number(1.0F));
    return limits(x, scaled(y, hn::ConvertTo(I(), hn::IfThenElse(is_nan(x), number(0.0F), n))), -104.0F, 88.7228317F);
}

HWY_INLINE VF exponential_2(VF x) {
    const VF held = smaller(larger(x, number(-151.0F)), number(129.0F));
    const VF n = floored(hn::Add(held, number(0.5F)));
    const VF r = hn::Sub(held, n);
    const VF p = polynomial<6>(r, {1.535336188319500E-4F, 1.339887440266574E-3F, 9.618437357674640E-3F,
                                   5.550332471162809E-2F, 2.402264791363012E-1F, 6.931472028550421E-1F});
    const VF y = hn::Add(number(1.0F), hn::Mul(r, p));
    return limits(x, scaled(y, hn::ConvertTo(I(), hn::IfThenElse(is_nan(x), number(0.0F), n))), -150.5F, 127.99999F);
}

// x = (1 + rest) * 2^power, and the part of ln(1 + rest) beyond rest.
struct Logarithm {
    VF rest;
    VF beyond;
    VF power;
};

HWY_INLINE Logarithm logarithm_parts(VF x) {
    const I di;
    const MF tiny = hn::Lt(x, number(1.17549435e-38F));
    const VF normal = hn::IfThenElse(tiny, hn::Mul(x, number(8388608.0F)), x);
    const VI bits = hn::BitCast(di, normal);
    VF power = hn::ConvertTo(F(), hn::Sub(hn::And(hn::ShiftRight<23>(bits), hn::Set(di, 255)), hn::Set(di, 126)));
    power = hn::IfThenElse(tiny, hn::Sub(power, number(23.0F)), power);
    const VF mantissa = hn::BitCast(F(), hn::Or(hn::And(bits, hn::Set(di, 0x007FFFFF)), hn::Set(di, 0x3F000000)));
    const MF low = hn::Lt(mantissa, number(0.707106781186547524F));
    power = hn::IfThenElse(low, hn::Sub(power, number(1.0F)), power);
    const VF rest = hn::Sub(hn::IfThenElse(low, hn::Add(mantissa, mantissa), mantissa), number(1.0F));
    const VF z = hn::Mul(rest, rest);
    const VF p =
        polynomial<9>(rest, {7.0376836292E-2F, -1.1514610310E-1F, 1.1676998740E-1F, -1.2420140846E-1F, 1.4249322787E-1F,
                             -1.6668057665E-1F, 2.0000714765E-1F, -2.4999993993E-1F, 3.3333331174E-1F});
    const VF beyond = hn::Sub(hn::Mul(hn::Mul(rest, z), p), hn::Mul(number(0.5F), z));
    return {rest, beyond, power};
}

HWY_INLINE VF logarithm_limits(VF x, VF value) {
    value = hn::IfThenElse(hn::Eq(x, number(infinity)), x, value);
    value = hn::IfThenElse(hn::Eq(x, number(0.0F)), number(-infinity), value);
    return hn::IfThenElse(hn::Or(hn::Lt(x, number(0.0F)), is_nan(x)), number(not_a_number), value);
}

HWY_INLINE VF logarithm(VF x) {
    const Logarithm l = logarithm_parts(x);
    VF y = hn::Add(l.beyond, hn::Mul(number(-2.12194440e-4F), l.power));
    y = hn::Add(hn::Add(l.rest, y), hn::Mul(number(0.693359375F), l.power));
    return logarithm_limits(x, y);
}

HWY_INLINE VF logarithm_2(VF x) {
    const Logarithm l = logarithm_parts(x);
    const VF extra = number(0.44269504088896340736F);  // log2(e) - 1
    VF y = hn::Add(hn::Mul(l.beyond, extra), hn::Mul(l.rest, extra));
    y = hn::Add(hn::Add(hn::Add(y, l.beyond), l.rest), l.power);
    return logarithm_limits(x, y);
}

HWY_INLINE VF power(VF x, VF y) {
    const VF zero = number(0.0F);
    VF value = exponential_2(hn::Mul(y, logarithm_2(x)));
    VF none = hn::IfThenElse(hn::Gt(y, zero), zero, number(infinity));
    none = hn::IfThenElse(is_nan(y), y, none);
    value = hn::IfThenElse(hn::Le(x, zero), none, value);
    return hn::IfThenElse(hn::Eq(y, zero), number(1.0F), value);
}

HWY_INLINE VF hyperbolic_sine(VF x) {
    const VF size = hn::Abs(x);
    const VF z = hn::Mul(x, x);
    const VF p = polynomial<3>(z, {2.03721912945E-4F, 8.33028376239E-3F, 1.66667160211E-1F});
    const VF near = hn::Add(hn::Mul(hn::Mul(p, z), x), x);
    const VF half = exponential(hn::Mul(number(0.5F), size));
    const VF e = hn::Mul(hn::Mul(number(0.5F), half), half);
    const VF far = hn::Sub(e, hn::Div(number(0.25F), e));
    return hn::IfThenElse(hn::Lt(size, number(1.0F)), near, with_sign_of(far, x));
}

HWY_INLINE VF hyperbolic_cosine(VF x) {
    const VF half = exponential(hn::Mul(number(0.5F), hn::Abs(x)));
    const VF e = hn::Mul(hn::Mul(number(0.5F), half), half);
    return hn::Add(e, hn::Div(number(0.25F), e));
}

HWY_INLINE VF hyperbolic_tangent(VF x) {
    const VF size = hn::Abs(x);
    const VF z = hn::Mul(x, x);
    const VF p = polynomial<5>(
        z, {-5.70498872745E-3F, 2.06390887954E-2F, -5.37397155531E-2F, 1.33314422036E-1F, -3.33332819422E-1F});
    const VF near = hn::Add(hn::Mul(hn::Mul(p, z), x), x);
    const VF e = exponential(hn::Add(size, size));
    const VF far = hn::Sub(number(1.0F), hn::Div(number(2.0F), hn::Add(e, number(1.0F))));
    const VF value = hn::IfThenElse(hn::Lt(size, number(0.625F)), near, with_sign_of(far, x));
    return hn::IfThenElse(is_nan(x), x, value);
}

HWY_INLINE VF area_sine(VF x) {
    const VF size = hn::Abs(x);
    const VF z = hn::Mul(x, x);
    const VF p = polynomial<4>(z, {2.0122003309E-2F, -4.2699340972E-2F, 7.4847586088E-2F, -1.6666288134E-1F});
    const VF near = hn::Add(hn::Mul(hn::Mul(p, z), x), x);
    const MF huge = hn::Gt(size, number(1e9F));
    const VF inner = hn::Add(size, hn::Sqrt(hn::Add(z, number(1.0F))));
    VF far = logarithm(hn::IfThenElse(huge, size, inner));
    far = hn::IfThenElse(huge, hn::Add(far, number(0.693147180559945F)), far);
    return hn::IfThenElse(hn::Lt(size, number(0.5F)), near, with_sign_of(far, x));
}

HWY_INLINE VF area_cosine(VF x) {
    const VF held = larger(x, number(1.0F));
    const VF z = hn::Sub(held, number(1.0F));
    const VF p =
        polynomial<5>(z, {1.7596881071E-3F, -7.5272886713E-3F, 2.6454905019E-2F, -1.1784741703E-1F, 1.4142135263E0F});
    const VF near = hn::Mul(p, hn::Sqrt(z));
    const MF huge = hn::Gt(held, number(1e9F));
    const VF inner = hn::Add(held, hn::Sqrt(hn::Mul(z, hn::Add(held, number(1.0F)))));
    VF far = logarithm(hn::IfThenElse(huge, held, inner));
    far = hn::IfThenElse(huge, hn::Add(far, number(0.693147180559945F)), far);
    const VF value = hn::IfThenElse(hn::Lt(z, number(0.5F)), near, far);
    return hn::IfThenElse(is_nan(x), x, value);
}

HWY_INLINE VF area_tangent(VF x) {
    const VF z = hn::Mul(x, x);
    const VF p = polynomial<5>(
        z, {1.81740078349E-1F, 8.24370301058E-2F, 1.46691431730E-1F, 1.99782164500E-1F, 3.33337300303E-1F});
    const VF near = hn::Add(hn::Mul(hn::Mul(p, z), x), x);
    const VF far = hn::Mul(number(0.5F), logarithm(hn::Div(hn::Add(number(1.0F), x), hn::Sub(number(1.0F), x))));
    return hn::IfThenElse(hn::Lt(hn::Abs(x), number(0.5F)), near, far);
}

void fill_elementary(KernelSet& set) {
    const auto put = [&set](Op op, Kernel kernel) { set.kernels[static_cast<std::size_t>(op)] = kernel; };
    using Args = const KernelArgs&;
    put(Op::sin, [](Args k) { one_input(k, [](VF x) { return sine_cosine(x).sine; }); });
    put(Op::cos, [](Args k) { one_input(k, [](VF x) { return sine_cosine(x).cosine; }); });
    put(Op::tan, [](Args k) {
        one_input(k, [](VF x) {
            const SineCosine both = sine_cosine(x);
            return hn::Div(both.sine, both.cosine);
        });
    });
    put(Op::asin, [](Args k) { one_input(k, [](VF x) { return arc_sine(x); }); });
    put(Op::acos, [](Args k) { one_input(k, [](VF x) { return arc_cosine(x); }); });
    put(Op::atan, [](Args k) { one_input(k, [](VF x) { return arc_tangent(x); }); });
    put(Op::atan2, [](Args k) { two_inputs(k, [](VF y, VF x) { return arc_tangent_2(y, x); }); });
    put(Op::sinh, [](Args k) { one_input(k, [](VF x) { return hyperbolic_sine(x); }); });
    put(Op::cosh, [](Args k) { one_input(k, [](VF x) { return hyperbolic_cosine(x); }); });
    put(Op::tanh, [](Args k) { one_input(k, [](VF x) { return hyperbolic_tangent(x); }); });
    put(Op::asinh, [](Args k) { one_input(k, [](VF x) { return area_sine(x); }); });
    put(Op::acosh, [](Args k) { one_input(k, [](VF x) { return area_cosine(x); }); });
    put(Op::atanh, [](Args k) { one_input(k, [](VF x) { return area_tangent(x); }); });
    put(Op::exp, [](Args k) { one_input(k, [](VF x) { return exponential(x); }); });
    put(Op::exp2, [](Args k) { one_input(k, [](VF x) { return exponential_2(x); }); });
    put(Op::log, [](Args k) { one_input(k, [](VF x) { return logarithm(x); }); });
    put(Op::log2, [](Args k) { one_input(k, [](VF x) { return logarithm_2(x); }); });
    put(Op::pow, [](Args k) { two_inputs(k, [](VF x, VF y) { return power(x, y); }); });
}

}  // namespace lacquer::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
#include "core/cpu/targets.h"
namespace lacquer {
std::vector<TargetFill> elementary_kernels() { return LACQUER_TARGETS(fill_elementary); }
}  // namespace lacquer
#endif
