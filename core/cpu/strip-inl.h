// How a kernel walks along its strip; included once for each instruction set.
#if defined(LACQUER_STRIP_INL_H_) == defined(HWY_TARGET_TOGGLE)
#ifdef LACQUER_STRIP_INL_H_
#undef LACQUER_STRIP_INL_H_
#else
#define LACQUER_STRIP_INL_H_
#endif

#include <hwy/highway.h>

#include "core/cpu/kernels.h"

// Before a loop: keeps it a loop. Nested ones with long bodies, written out, take a compiler minutes and the processor
// no less time.
#undef LACQUER_KEEP_LOOP
#if defined(__clang__)
#define LACQUER_KEEP_LOOP _Pragma("clang loop unroll(disable)")
#else
#define LACQUER_KEEP_LOOP _Pragma("GCC unroll 1")
#endif

HWY_BEFORE_NAMESPACE();
namespace lacquer::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

using F = hn::ScalableTag<float>;
using I = hn::RebindToSigned<F>;
using U = hn::RebindToUnsigned<F>;
using VF = hn::Vec<F>;
using VI = hn::Vec<I>;
using VU = hn::Vec<U>;
using MF = hn::Mask<F>;

HWY_INLINE VF smaller(VF a, VF b) { return hn::IfThenElse(hn::Lt(b, a), b, a); }
HWY_INLINE VF larger(VF a, VF b) { return hn::IfThenElse(hn::Lt(a, b), b, a); }
HWY_INLINE VF number(float x) { return hn::Set(F(), x); }

/// True for lanes that are not a number. Highway's Ne is false for them.
HWY_INLINE MF is_nan(VF x) { return hn::IsNaN(x); }

// Highway's plain C++ rounding loses the sign of zero.
#if HWY_TARGET == HWY_SCALAR
HWY_INLINE VF rounded_like(VF x, VF rounded) { return hn::CopySign(rounded, x); }
#else
HWY_INLINE VF rounded_like(VF, VF rounded) { return rounded; }
#endif
HWY_INLINE VF floored(VF x) { return rounded_like(x, hn::Floor(x)); }

/// Float to whole number: towards 0, held to the range, NaN gives 0.
HWY_INLINE VI to_whole_vector(VF x) {
    const I di;
    const VF held = smaller(larger(x, number(-2147483648.0F)), number(2147483520.0F));
    VI whole = hn::ConvertTo(di, hn::IfThenElse(is_nan(x), number(0.0F), held));
    whole = hn::IfThenElse(hn::RebindMask(di, hn::Ge(x, number(2147483648.0F))), hn::Set(di, 2147483647), whole);
    return whole;
}

/// An input of a kernel, held apart from its arguments: for all the compiler knows, a store might change those.
struct Input {
    const float* from;
    std::size_t stride;
    HWY_INLINE VF at(std::size_t i) const { return hn::Load(F(), from + i * stride); }
};
HWY_INLINE Input input(const KernelArgs& k, std::size_t n) { return {k.in[n], k.stride[n]}; }

template <class Body>
HWY_INLINE void along_strip(const KernelArgs& k, Body body) {
    const F d;
    float* const out = k.out[0];
    const std::size_t count = k.count;
    for (std::size_t i = 0; i < count; i += hn::Lanes(d)) hn::Store(body(i), d, out + i);
}

template <class Body>
HWY_INLINE void one_input(const KernelArgs& k, Body body) {
    const Input a = input(k, 0);
    along_strip(k, [&](std::size_t i) { return body(a.at(i)); });
}

template <class Body>
HWY_INLINE void two_inputs(const KernelArgs& k, Body body) {
    const Input a = input(k, 0);
    const Input b = input(k, 1);
    along_strip(k, [&](std::size_t i) { return body(a.at(i), b.at(i)); });
}

template <class Body>
HWY_INLINE void three_inputs(const KernelArgs& k, Body body) {
    const Input a = input(k, 0);
    const Input b = input(k, 1);
    const Input c = input(k, 2);
    along_strip(k, [&](std::size_t i) { return body(a.at(i), b.at(i), c.at(i)); });
}

template <class Body>
HWY_INLINE void four_inputs(const KernelArgs& k, Body body) {
    const Input a = input(k, 0);
    const Input b = input(k, 1);
    const Input c = input(k, 2);
    const Input e = input(k, 3);
    along_strip(k, [&](std::size_t i) { return body(a.at(i), b.at(i), c.at(i), e.at(i)); });
}

}  // namespace lacquer::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif
