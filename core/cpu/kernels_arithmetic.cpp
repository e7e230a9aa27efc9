// Plain arithmetic, comparing, choosing, whole numbers.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cpu/kernels_arithmetic.cpp"
#include <hwy/foreach_target.h>
// The order matters to Highway.
// clang-format off
#include <hwy/highway.h>
#include "core/cpu/strip-inl.h"
// clang-format on

#include <algorithm>
#include <bit>
#include <cstdint>

HWY_BEFORE_NAMESPACE();
namespace lacquer::HWY_NAMESPACE {

HWY_INLINE VF truth(MF mask) { return hn::VecFromMask(F(), mask); }

HWY_INLINE VF fract(VF x) { return hn::Sub(x, floored(x)); }

HWY_INLINE VF sign(VF x) {
    const VF zero = number(0.0F);
    return hn::IfThenElse(hn::Gt(x, zero), number(1.0F), hn::IfThenElse(hn::Lt(x, zero), number(-1.0F), x));
}

HWY_INLINE VF mix(VF a, VF b, VF share) { return hn::Add(hn::Mul(a, hn::Sub(number(1.0F), share)), hn::Mul(b, share)); }

// The colour mixed from is often the same all along the strip; then it is loaded once.
void mix_3(const KernelArgs& k) {
    const F d;
    const Input share = input(k, 6);
    const Input b0 = input(k, 3);
    const Input b1 = input(k, 4);
    const Input b2 = input(k, 5);
    float* const out0 = k.out[0];
    float* const out1 = k.out[1];
    float* const out2 = k.out[2];
    const auto walk = [&](auto a0, auto a1, auto a2) {
        for (std::size_t i = 0; i < k.count; i += hn::Lanes(d)) {
            const VF t = share.at(i);
            const VF rest = hn::Sub(number(1.0F), t);
            const auto mixed = [&](VF a, VF b) { return hn::Add(hn::Mul(a, rest), hn::Mul(b, t)); };
            hn::Store(mixed(a0(i), b0.at(i)), d, out0 + i);
            hn::Store(mixed(a1(i), b1.at(i)), d, out1 + i);
            hn::Store(mixed(a2(i), b2.at(i)), d, out2 + i);
        }
    };
    const auto varying = [&](std::size_t n) { return [a = input(k, n)](std::size_t i) { return a.at(i); }; };
    const auto lasting = [&](std::size_t n) { return [a = hn::Load(d, k.in[n])](std::size_t) { return a; }; };
    if (k.stride[0] == 0 && k.stride[1] == 0 && k.stride[2] == 0) return walk(lasting(0), lasting(1), lasting(2));
    walk(varying(0), varying(1), varying(2));
}

HWY_INLINE VF smooth_between(VF raw) {
    const VF t = smaller(larger(raw, number(0.0F)), number(1.0F));
    return hn::Mul(hn::Mul(t, t), hn::Sub(number(3.0F), hn::Mul(number(2.0F), t)));
}

HWY_INLINE VF smoothstep(VF e0, VF e1, VF x) {
    const VF smooth = smooth_between(hn::Div(hn::Sub(x, e0), hn::Sub(e1, e0)));
    const VF hard = hn::IfThenElse(hn::Lt(x, e0), number(0.0F), number(1.0F));
    return hn::IfThenElse(hn::Eq(e0, e1), hard, smooth);
}

// Edges are mostly the same all along the strip.
void smoothstep_strip(const KernelArgs& k) {
    const F d;
    if (k.stride[0] != 0 || k.stride[1] != 0) {
        return three_inputs(k, [](VF a, VF b, VF x) { return smoothstep(a, b, x); });
    }
    const VF e0 = hn::Load(d, k.in[0]);
    const VF e1 = hn::Load(d, k.in[1]);
    const VF range = hn::Sub(e1, e0);
    KernelArgs last = k;
    last.in[0] = k.in[2];
    last.stride[0] = k.stride[2];
    if (hn::AllFalse(d, hn::Eq(e0, e1))) {
        return one_input(last, [&](VF x) { return smooth_between(hn::Div(hn::Sub(x, e0), range)); });
    }
    one_input(last, [&](VF x) { return hn::IfThenElse(hn::Lt(x, e0), number(0.0F), number(1.0F)); });
}

HWY_INLINE VF select(VF which, VF yes, VF no) {
    // The truth may stand for a whole number's bits: choose bit by bit.
    return hn::Or(hn::And(which, yes), hn::AndNot(which, no));
}

// Whole numbers go lane by lane: they are rare, and the compiler does well on such loops.
template <class Body>
HWY_INLINE void whole_one(const KernelArgs& k, Body body) {
    for (std::size_t i = 0; i < k.count; ++i) {
        k.out[0][i] = std::bit_cast<float>(body(std::bit_cast<std::uint32_t>(k.in[0][i * k.stride[0]])));
    }
    for (std::size_t i = k.count; i % lane_block != 0; ++i) k.out[0][i] = 0.0F;
}

template <class Body>
HWY_INLINE void whole_two(const KernelArgs& k, Body body) {
    for (std::size_t i = 0; i < k.count; ++i) {
        k.out[0][i] = std::bit_cast<float>(body(std::bit_cast<std::uint32_t>(k.in[0][i * k.stride[0]]),
                                                std::bit_cast<std::uint32_t>(k.in[1][i * k.stride[1]])));
    }
    for (std::size_t i = k.count; i % lane_block != 0; ++i) k.out[0][i] = 0.0F;
}

using Word = std::uint32_t;

HWY_INLINE std::int32_t whole(Word w) { return static_cast<std::int32_t>(w); }
HWY_INLINE Word all_bits(bool yes) { return yes ? 0xFFFFFFFFU : 0U; }

HWY_INLINE Word quotient(Word a, Word b) {
    if (b == 0) return 0;
    return whole(b) == -1 ? 0U - a : static_cast<Word>(whole(a) / whole(b));
}

// Each pixel of a row's pair of two gets the right one less the left one.
void derivative_x(const KernelArgs& k) {
    for (std::size_t i = 0; i < k.count; i += 2) {
        const float change = k.in[0][(i + 1) * k.stride[0]] - k.in[0][i * k.stride[0]];
        k.out[0][i] = change;
        k.out[0][i + 1] = change;
    }
}

// Handed the upper row and the lower row.
void derivative_y(const KernelArgs& k) {
    for (std::size_t i = 0; i < k.count; ++i) k.out[0][i] = k.in[1][i * k.stride[1]] - k.in[0][i * k.stride[0]];
}

HWY_INLINE Word to_natural(float x) {
    if (!(x > 0.0F)) return 0;
    return x >= 4294967296.0F ? 0xFFFFFFFFU : static_cast<Word>(x);
}

void fill_arithmetic(KernelSet& set) {
    const auto put = [&set](Op op, Kernel kernel) { set.kernels[static_cast<std::size_t>(op)] = kernel; };
    using Args = const KernelArgs&;
    put(Op::add, [](Args k) { two_inputs(k, [](VF a, VF b) { return hn::Add(a, b); }); });
    put(Op::subtract, [](Args k) { two_inputs(k, [](VF a, VF b) { return hn::Sub(a, b); }); });
    put(Op::multiply, [](Args k) { two_inputs(k, [](VF a, VF b) { return hn::Mul(a, b); }); });
    put(Op::divide, [](Args k) { two_inputs(k, [](VF a, VF b) { return hn::Div(a, b); }); });
    put(Op::negate, [](Args k) { one_input(k, [](VF a) { return hn::Neg(a); }); });
    put(Op::absolute, [](Args k) { one_input(k, [](VF a) { return hn::Abs(a); }); });
    put(Op::sign, [](Args k) { one_input(k, [](VF a) { return sign(a); }); });
    put(Op::floor, [](Args k) { one_input(k, [](VF a) { return floored(a); }); });
    put(Op::ceil, [](Args k) { one_input(k, [](VF a) { return rounded_like(a, hn::Ceil(a)); }); });
    put(Op::trunc, [](Args k) { one_input(k, [](VF a) { return rounded_like(a, hn::Trunc(a)); }); });
    put(Op::round, [](Args k) { one_input(k, [](VF a) { return rounded_like(a, hn::Round(a)); }); });
    put(Op::fract, [](Args k) { one_input(k, [](VF a) { return fract(a); }); });
    put(Op::mod,
        [](Args k) { two_inputs(k, [](VF a, VF b) { return hn::Sub(a, hn::Mul(b, floored(hn::Div(a, b)))); }); });
    put(Op::min, [](Args k) { two_inputs(k, [](VF a, VF b) { return smaller(a, b); }); });
    put(Op::max, [](Args k) { two_inputs(k, [](VF a, VF b) { return larger(a, b); }); });
    put(Op::clamp, [](Args k) { three_inputs(k, [](VF x, VF l, VF h) { return smaller(larger(x, l), h); }); });
    put(Op::mix, [](Args k) { three_inputs(k, [](VF a, VF b, VF t) { return mix(a, b, t); }); });
    put(Op::mix_3, mix_3);
    put(Op::step, [](Args k) {
        two_inputs(k, [](VF e, VF x) { return hn::IfThenElse(hn::Lt(x, e), number(0.0F), number(1.0F)); });
    });
    put(Op::smoothstep, smoothstep_strip);
    put(Op::sqrt, [](Args k) { one_input(k, [](VF a) { return hn::Sqrt(a); }); });
    put(Op::inversesqrt, [](Args k) { one_input(k, [](VF a) { return hn::Div(number(1.0F), hn::Sqrt(a)); }); });

    put(Op::less, [](Args k) { two_inputs(k, [](VF a, VF b) { return truth(hn::Lt(a, b)); }); });
    put(Op::less_equal, [](Args k) { two_inputs(k, [](VF a, VF b) { return truth(hn::Le(a, b)); }); });
    put(Op::equal, [](Args k) { two_inputs(k, [](VF a, VF b) { return truth(hn::Eq(a, b)); }); });
    put(Op::is_nan, [](Args k) { one_input(k, [](VF a) { return truth(is_nan(a)); }); });
    put(Op::is_inf, [](Args k) {
        one_input(k, [](VF a) { return truth(hn::Eq(hn::Abs(a), number(std::bit_cast<float>(0x7F800000U)))); });
    });
    put(Op::select, [](Args k) { three_inputs(k, [](VF w, VF a, VF b) { return select(w, a, b); }); });
    put(Op::bit_and, [](Args k) { two_inputs(k, [](VF a, VF b) { return hn::And(a, b); }); });
    put(Op::bit_or, [](Args k) { two_inputs(k, [](VF a, VF b) { return hn::Or(a, b); }); });
    put(Op::bit_xor, [](Args k) { two_inputs(k, [](VF a, VF b) { return hn::Xor(a, b); }); });
    put(Op::bit_not, [](Args k) { one_input(k, [](VF a) { return hn::BitCast(F(), hn::Not(hn::BitCast(U(), a))); }); });
    put(Op::to_int, [](Args k) { one_input(k, [](VF a) { return hn::BitCast(F(), to_whole_vector(a)); }); });
    put(Op::from_int, [](Args k) { one_input(k, [](VF a) { return hn::ConvertTo(F(), hn::BitCast(I(), a)); }); });

    put(Op::multiply_add, [](Args k) { three_inputs(k, [](VF a, VF b, VF c) { return hn::Add(hn::Mul(a, b), c); }); });
    put(Op::copy, [](Args k) { one_input(k, [](VF a) { return a; }); });
    put(Op::derivative_x, derivative_x);
    put(Op::derivative_y, derivative_y);
    put(Op::to_uint, [](Args k) { whole_one(k, [](Word a) { return to_natural(std::bit_cast<float>(a)); }); });
    put(Op::from_uint, [](Args k) { whole_one(k, [](Word a) { return std::bit_cast<Word>(static_cast<float>(a)); }); });
    put(Op::divide_uint, [](Args k) { whole_two(k, [](Word a, Word b) { return b == 0 ? Word{0} : a / b; }); });
    put(Op::remainder_uint, [](Args k) { whole_two(k, [](Word a, Word b) { return b == 0 ? Word{0} : a % b; }); });
    put(Op::min_uint, [](Args k) { whole_two(k, [](Word a, Word b) { return std::min(a, b); }); });
    put(Op::max_uint, [](Args k) { whole_two(k, [](Word a, Word b) { return std::max(a, b); }); });
    put(Op::less_uint, [](Args k) { whole_two(k, [](Word a, Word b) { return all_bits(a < b); }); });
    put(Op::shift_right_uint, [](Args k) { whole_two(k, [](Word a, Word b) { return a >> (b & 31U); }); });
    put(Op::add_int, [](Args k) { whole_two(k, [](Word a, Word b) { return a + b; }); });
    put(Op::subtract_int, [](Args k) { whole_two(k, [](Word a, Word b) { return a - b; }); });
    put(Op::multiply_int, [](Args k) { whole_two(k, [](Word a, Word b) { return a * b; }); });
    put(Op::divide_int, [](Args k) { whole_two(k, [](Word a, Word b) { return quotient(a, b); }); });
    put(Op::remainder_int,
        [](Args k) { whole_two(k, [](Word a, Word b) { return b == 0 ? Word{0} : a - quotient(a, b) * b; }); });
    put(Op::negate_int, [](Args k) { whole_one(k, [](Word a) { return 0U - a; }); });
    put(Op::min_int, [](Args k) { whole_two(k, [](Word a, Word b) { return whole(b) < whole(a) ? b : a; }); });
    put(Op::max_int, [](Args k) { whole_two(k, [](Word a, Word b) { return whole(a) < whole(b) ? b : a; }); });
    put(Op::less_int, [](Args k) { whole_two(k, [](Word a, Word b) { return all_bits(whole(a) < whole(b)); }); });
    put(Op::equal_int, [](Args k) { whole_two(k, [](Word a, Word b) { return all_bits(a == b); }); });
    put(Op::shift_left, [](Args k) { whole_two(k, [](Word a, Word b) { return a << (b & 31U); }); });
    put(Op::shift_right,
        [](Args k) { whole_two(k, [](Word a, Word b) { return static_cast<Word>(whole(a) >> (b & 31U)); }); });
}

}  // namespace lacquer::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
#include "core/cpu/targets.h"
namespace lacquer {
std::vector<TargetFill> arithmetic_kernels() { return LACQUER_TARGETS(fill_arithmetic); }
}  // namespace lacquer
#endif
