// Hashes and noise: core/lang/noise.h, many lanes at a time and step by step the same.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cpu/kernels_noise.cpp"
#include <hwy/foreach_target.h>
// The order matters to Highway.
// clang-format off
#include <hwy/highway.h>
#include "core/cpu/strip-inl.h"
// clang-format on

#include "core/lang/noise.h"

HWY_BEFORE_NAMESPACE();
namespace lacquer::HWY_NAMESPACE {

HWY_INLINE VU word(std::uint32_t w) { return hn::Set(U(), w); }

HWY_INLINE VU hashed(VU v) {
    const VU state = hn::Add(hn::Mul(v, word(747796405U)), word(2891336453U));
    const VU shifted = hn::Shr(state, hn::Add(hn::ShiftRight<28>(state), word(4U)));
    const VU mixed = hn::Mul(hn::Xor(shifted, state), word(277803737U));
    return hn::Xor(hn::ShiftRight<22>(mixed), mixed);
}

HWY_INLINE VF unit(VU hash) {
    const VI upper = hn::BitCast(I(), hn::ShiftRight<8>(hash));
    return hn::Mul(hn::ConvertTo(F(), upper), number(1.0F / 16777216.0F));
}

// A coordinate's lattice cell, its neighbour, and where in the cell it lies.
struct Cell {
    VU low;
    VU high;
    VF part;
    VF faded;
};

HWY_INLINE VU lattice_word(VF floor) { return hn::BitCast(U(), to_whole_vector(floor)); }

HWY_INLINE Cell cell_of(VF x) {
    const VF floor = floored(x);
    const VF t = hn::Sub(x, floor);
    const VU low = lattice_word(floor);
    const VF steep = hn::Add(hn::Mul(t, hn::Sub(hn::Mul(t, number(6.0F)), number(15.0F))), number(10.0F));
    return {low, hn::Add(low, word(1U)), t, hn::Mul(hn::Mul(hn::Mul(t, t), t), steep)};
}

HWY_INLINE VF blended(VF t, VF a, VF b) { return hn::Add(a, hn::Mul(t, hn::Sub(b, a))); }

HWY_INLINE VF negated_if(VF value, VU hash, std::uint32_t bit, int shift) {
    const VU sign = hn::ShiftLeftSame(hn::And(hash, word(bit)), shift);
    return hn::Xor(value, hn::BitCast(F(), sign));
}

HWY_INLINE MF is_set(VU hash, std::uint32_t bit) {
    return hn::RebindMask(F(), hn::Ne(hn::And(hash, word(bit)), word(0U)));
}

HWY_INLINE VF slope(VU hash, VF x, VF y) {
    const MF steep = is_set(hash, 4U);
    const VF u = hn::IfThenElse(steep, y, x);
    const VF v = hn::Mul(hn::IfThenElse(steep, x, y), number(0.41421356F));
    return hn::Add(negated_if(u, hash, 1U, 31), negated_if(v, hash, 2U, 30));
}

HWY_INLINE VF slope(VU hash, VF x, VF y, VF z) {
    const VU h = hn::And(hash, word(15U));
    const VF u = hn::IfThenElse(is_set(hash, 8U), y, x);
    const MF low = hn::RebindMask(F(), hn::Eq(hn::And(h, word(12U)), word(0U)));
    const MF edge = hn::RebindMask(F(), hn::Eq(hn::And(h, word(13U)), word(12U)));
    const VF v = hn::IfThenElse(low, y, hn::IfThenElse(edge, x, z));
    return hn::Add(negated_if(u, hash, 1U, 31), negated_if(v, hash, 2U, 30));
}

HWY_INLINE VF unit_range(VF signed_noise, float scale) {
    const VF n = hn::Add(hn::Mul(signed_noise, number(scale)), number(0.5F));
    const VF least = hn::IfThenElse(hn::Lt(n, number(0.0F)), number(0.0F), n);
    const VF below_one = number(0.99999994F);
    return hn::IfThenElse(hn::Gt(least, below_one), below_one, least);
}

HWY_INLINE VF gradient_2(VF x, VF y) {
    const Cell cx = cell_of(x);
    const Cell cy = cell_of(y);
    const VU row0 = hashed(cy.low);
    const VU row1 = hashed(cy.high);
    const VF x1 = hn::Sub(cx.part, number(1.0F));
    const VF y1 = hn::Sub(cy.part, number(1.0F));
    const VF top = blended(cx.faded, slope(hashed(hn::Add(cx.low, row0)), cx.part, cy.part),
                           slope(hashed(hn::Add(cx.high, row0)), x1, cy.part));
    const VF bottom = blended(cx.faded, slope(hashed(hn::Add(cx.low, row1)), cx.part, y1),
                              slope(hashed(hn::Add(cx.high, row1)), x1, y1));
    return unit_range(blended(cy.faded, top, bottom), gradient_scale_2d);
}

HWY_INLINE VF gradient_slab(const Cell& cx, const Cell& cy, VU depth, VF dz) {
    const VU row0 = hashed(hn::Add(cy.low, depth));
    const VU row1 = hashed(hn::Add(cy.high, depth));
    const VF x1 = hn::Sub(cx.part, number(1.0F));
    const VF y1 = hn::Sub(cy.part, number(1.0F));
    const VF top = blended(cx.faded, slope(hashed(hn::Add(cx.low, row0)), cx.part, cy.part, dz),
                           slope(hashed(hn::Add(cx.high, row0)), x1, cy.part, dz));
    const VF bottom = blended(cx.faded, slope(hashed(hn::Add(cx.low, row1)), cx.part, y1, dz),
                              slope(hashed(hn::Add(cx.high, row1)), x1, y1, dz));
    return blended(cy.faded, top, bottom);
}

HWY_INLINE VF gradient_3(VF x, VF y, VF z) {
    const Cell cx = cell_of(x);
    const Cell cy = cell_of(y);
    const Cell cz = cell_of(z);
    const VF near = gradient_slab(cx, cy, hashed(cz.low), cz.part);
    const VF far = gradient_slab(cx, cy, hashed(cz.high), hn::Sub(cz.part, number(1.0F)));
    return unit_range(blended(cz.faded, near, far), gradient_scale_3d);
}

HWY_INLINE VF value_slab(const Cell& cx, const Cell& cy, VU depth) {
    const VU row0 = hashed(hn::Add(cy.low, depth));
    const VU row1 = hashed(hn::Add(cy.high, depth));
    const VF top = blended(cx.faded, unit(hashed(hn::Add(cx.low, row0))), unit(hashed(hn::Add(cx.high, row0))));
    const VF bottom = blended(cx.faded, unit(hashed(hn::Add(cx.low, row1))), unit(hashed(hn::Add(cx.high, row1))));
    return blended(cy.faded, top, bottom);
}

HWY_INLINE VF value_2(VF x, VF y) {
    const VF n = value_slab(cell_of(x), cell_of(y), word(0U));
    return unit_range(hn::Sub(n, number(0.5F)), 1.0F);
}

HWY_INLINE VF value_3(VF x, VF y, VF z) {
    const Cell cx = cell_of(x);
    const Cell cy = cell_of(y);
    const Cell cz = cell_of(z);
    const VF n = blended(cz.faded, value_slab(cx, cy, hashed(cz.low)), value_slab(cx, cy, hashed(cz.high)));
    return unit_range(hn::Sub(n, number(0.5F)), 1.0F);
}

// Source: Jarzynski and Olano 2020, `pcg3d`.
void three_words(const KernelArgs& k) {
    const F d;
    for (std::size_t i = 0; i < k.count; i += hn::Lanes(d)) {
        VU x = lattice_word(floored(hn::Load(d, k.in[0] + i * k.stride[0])));
        VU y = lattice_word(floored(hn::Load(d, k.in[1] + i * k.stride[1])));
        VU z = lattice_word(floored(hn::Load(d, k.in[2] + i * k.stride[2])));
        for (VU* v : {&x, &y, &z}) *v = hn::Add(hn::Mul(*v, word(1664525U)), word(1013904223U));
        const auto stir = [&] {
            x = hn::Add(x, hn::Mul(y, z));
            y = hn::Add(y, hn::Mul(z, x));
            z = hn::Add(z, hn::Mul(x, y));
        };
        stir();
        for (VU* v : {&x, &y, &z}) *v = hn::Xor(*v, hn::ShiftRight<16>(*v));
        stir();
        hn::Store(unit(x), d, k.out[0] + i);
        hn::Store(unit(y), d, k.out[1] + i);
        hn::Store(unit(z), d, k.out[2] + i);
    }
}

HWY_INLINE VU point(VF x) { return lattice_word(floored(x)); }

void fill_noise(KernelSet& set) {
    const auto put = [&set](Op op, Kernel kernel) { set.kernels[static_cast<std::size_t>(op)] = kernel; };
    using Args = const KernelArgs&;
    put(Op::hash_1, [](Args k) { one_input(k, [](VF x) { return unit(hashed(point(x))); }); });
    put(Op::hash_2,
        [](Args k) { two_inputs(k, [](VF x, VF y) { return unit(hashed(hn::Add(point(x), hashed(point(y))))); }); });
    put(Op::hash_3, [](Args k) {
        three_inputs(k, [](VF x, VF y, VF z) {
            return unit(hashed(hn::Add(point(x), hashed(hn::Add(point(y), hashed(point(z)))))));
        });
    });
    put(Op::hash3, three_words);
    put(Op::value_noise_2, [](Args k) { two_inputs(k, [](VF x, VF y) { return value_2(x, y); }); });
    put(Op::value_noise_3, [](Args k) { three_inputs(k, [](VF x, VF y, VF z) { return value_3(x, y, z); }); });
    put(Op::gradient_noise_2, [](Args k) { two_inputs(k, [](VF x, VF y) { return gradient_2(x, y); }); });
    put(Op::gradient_noise_3, [](Args k) { three_inputs(k, [](VF x, VF y, VF z) { return gradient_3(x, y, z); }); });
}

}  // namespace lacquer::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
#include "core/cpu/targets.h"
namespace lacquer {
std::vector<TargetFill> noise_kernels() { return LACQUER_TARGETS(fill_noise); }
}  // namespace lacquer
#endif
