// Rows of ready shapes. Plain products, sums and roots only, in a fixed order, so that all instruction sets give the
// same bits.
#include "core/droplets/drop_kernels.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/droplets/drop_kernels.cpp"
#include <hwy/foreach_target.h>
// The order matters to Highway.
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace lacquer::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

using F = hn::CappedTag<float, drop_block>;
using V = hn::Vec<F>;

HWY_INLINE V num(float x) { return hn::Set(F(), x); }
HWY_INLINE V add(V a, V b) { return hn::Add(a, b); }
HWY_INLINE V sub(V a, V b) { return hn::Sub(a, b); }
HWY_INLINE V mul(V a, V b) { return hn::Mul(a, b); }
HWY_INLINE V above_0(V a) { return hn::IfThenElse(hn::Lt(a, num(0)), num(0), a); }
HWY_INLINE V at_most_1(V a) { return hn::IfThenElse(hn::Lt(num(1), a), num(1), a); }

/// How high the shape stands, 0..1, and its slopes downwards along u and v.
struct Height {
    V height;
    V slope_u;
    V slope_v;
};

// (1 - r^2)^2: soft, and flat where it begins.
HWY_INLINE Height disc(V u, V v) {
    const V t = above_0(sub(num(1), add(mul(u, u), mul(v, v))));
    const V slope = mul(num(4), t);
    return {mul(t, t), mul(u, slope), mul(v, slope)};
}

// The same about a circle at 0.7 of the radius.
HWY_INLINE Height ring(V u, V v) {
    const V r = hn::Sqrt(add(mul(u, u), mul(v, v)));
    const V d = mul(sub(r, num(0.7F)), num(4));
    const V t = above_0(sub(num(1), mul(d, d)));
    const V outward = hn::Div(mul(mul(num(16), t), d), hn::IfThenElse(hn::Lt(r, num(1e-6F)), num(1), r));
    return {mul(t, t), mul(u, outward), mul(v, outward)};
}

HWY_INLINE Height streak(V u, V v) {
    const V length = above_0(sub(num(1), mul(u, u)));
    const V side = above_0(sub(num(1), mul(v, v)));
    const V thick = mul(side, side);
    // It ends as steeply as it is anywhere; beyond that it isn't there.
    const V slope = hn::IfThenElse(hn::Lt(num(0), length), mul(mul(num(2), u), thick), num(0));
    return {mul(length, thick), slope, mul(mul(mul(num(4), v), side), length)};
}

// A blot whose edge goes in and out three, five and seven times, each turned by the drop's own angles.
HWY_INLINE Height splash(V u, V v, const DropRow& row) {
    const V r = hn::Sqrt(add(mul(u, u), mul(v, v)));
    const V safe = hn::IfThenElse(hn::Lt(r, num(1e-6F)), num(1), r);
    const V c = hn::Div(u, safe);
    const V s = hn::Div(v, safe);
    const V c2 = sub(mul(c, c), mul(s, s));
    const V s2 = mul(num(2), mul(c, s));
    const V c3 = sub(mul(c2, c), mul(s2, s));
    const V s3 = add(mul(s2, c), mul(c2, s));
    const V c5 = sub(mul(c3, c2), mul(s3, s2));
    const V s5 = add(mul(s3, c2), mul(c3, s2));
    const V three = add(mul(c3, num(row.lobes[0])), mul(s3, num(row.lobes[1])));
    const V five = add(mul(c5, num(row.lobes[2])), mul(s5, num(row.lobes[3])));
    const V c7 = sub(mul(c5, c2), mul(s5, s2));
    const V s7 = add(mul(s5, c2), mul(c5, s2));
    const float turn_x = row.lobes[0] * row.lobes[2] - row.lobes[1] * row.lobes[3];
    const float turn_y = row.lobes[0] * row.lobes[3] + row.lobes[1] * row.lobes[2];
    const V seven = add(mul(c7, num(turn_x)), mul(s7, num(turn_y)));
    const V lobes = add(mul(num(0.09F), three), add(mul(num(0.08F), five), mul(num(0.06F), seven)));
    const V edge = add(num(0.72F), lobes);
    const V t = at_most_1(above_0(mul(sub(edge, r), num(5))));
    const V slope = hn::Div(mul(num(30), mul(t, sub(num(1), t))), safe);
    return {mul(mul(t, t), sub(num(3), mul(num(2), t))), mul(u, slope), mul(v, slope)};
}

template <DropShape shape>
HWY_INLINE Height height_of(V u, V v, const DropRow& row) {
    if constexpr (shape == DropShape::ring) return ring(u, v);
    if constexpr (shape == DropShape::streak) return streak(u, v);
    if constexpr (shape == DropShape::splash) return splash(u, v, row);
    return disc(u, v);
}

HWY_INLINE void add_to(float* sum, V more) {
    const F f;
    hn::Store(add(hn::Load(f, sum), more), f, sum);
}

HWY_INLINE void replace(float* old, V now, hn::Mask<F> where) {
    const F f;
    hn::Store(hn::IfThenElse(where, now, hn::Load(f, old)), f, old);
}

template <DropBlend blend>
HWY_INLINE void blend_in(float* sum, V now, V opacity, hn::Mask<F> is_larger) {
    const F f;
    if constexpr (blend == DropBlend::add) add_to(sum, now);
    if constexpr (blend == DropBlend::over) hn::Store(add(now, mul(hn::Load(f, sum), sub(num(1), opacity))), f, sum);
    if constexpr (blend == DropBlend::larger) replace(sum, now, is_larger);
}

template <DropShape shape, DropBlend blend>
HWY_NOINLINE void draw_row(const DropRow& row, int first, int last, const DropTargets& out) {
    const F f;
    const auto lanes = static_cast<int>(hn::Lanes(f));
    const V lane = hn::Iota(f, 0.0F);
    // Beyond its own pixels a drop is not there, so that whole blocks may be drawn.
    for (int x = first / drop_block * drop_block; x < last; x += lanes) {
        const V i = add(num(static_cast<float>(x)), lane);
        const V u = add(num(row.u), mul(i, num(row.u_step)));
        const V v = add(num(row.v), mul(i, num(row.v_step)));
        const Height here = height_of<shape>(u, v, row);
        const V opacity = mul(here.height, num(row.opacity));
        if (out.opacity != nullptr) {
            const hn::Mask<F> is_larger = hn::Lt(hn::Load(f, out.opacity + x), opacity);
            blend_in<blend>(out.red + x, mul(opacity, num(row.tint[0])), opacity, is_larger);
            blend_in<blend>(out.green + x, mul(opacity, num(row.tint[1])), opacity, is_larger);
            blend_in<blend>(out.blue + x, mul(opacity, num(row.tint[2])), opacity, is_larger);
            blend_in<blend>(out.opacity + x, opacity, opacity, is_larger);
        }
        if (out.share != nullptr) {
            add_to(out.weight + x, opacity);
            add_to(out.share + x, mul(opacity, num(row.share)));
        }
        if (out.best != nullptr) {
            const hn::Mask<F> is_best = hn::Lt(hn::Load(f, out.best + x), opacity);
            replace(out.best + x, opacity, is_best);
            replace(out.seed + x, num(row.seed), is_best);
            replace(out.across + x, u, is_best);
            replace(out.down + x, v, is_best);
        }
        if (out.push_x != nullptr) {
            const V slope_u = mul(here.slope_u, num(row.opacity));
            const V slope_v = mul(here.slope_v, num(row.opacity));
            add_to(out.push_x + x, sub(mul(slope_u, num(row.cosine)), mul(slope_v, num(row.sine))));
            add_to(out.push_y + x, add(mul(slope_u, num(row.sine)), mul(slope_v, num(row.cosine))));
        }
    }
}

template <DropShape shape>
HWY_INLINE void draw_row_of(const DropRow& row, DropBlend blend, int first, int last, const DropTargets& out) {
    switch (blend) {
        case DropBlend::add:
            return draw_row<shape, DropBlend::add>(row, first, last, out);
        case DropBlend::over:
            return draw_row<shape, DropBlend::over>(row, first, last, out);
        case DropBlend::larger:
            return draw_row<shape, DropBlend::larger>(row, first, last, out);
    }
}

void draw_any_row(const DropRow& row, DropShape shape, DropBlend blend, int first, int last, const DropTargets& out) {
    switch (shape) {
        case DropShape::ring:
            return draw_row_of<DropShape::ring>(row, blend, first, last, out);
        case DropShape::streak:
            return draw_row_of<DropShape::streak>(row, blend, first, last, out);
        case DropShape::splash:
            return draw_row_of<DropShape::splash>(row, blend, first, last, out);
        case DropShape::disc:
        case DropShape::picture:
            return draw_row_of<DropShape::disc>(row, blend, first, last, out);
    }
}

}  // namespace lacquer::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace lacquer {

HWY_EXPORT(draw_any_row);

void draw_drop_row(const DropRow& row, DropShape shape, DropBlend blend, int first, int last,
                   const DropTargets& targets) {
    HWY_DYNAMIC_DISPATCH(draw_any_row)(row, shape, blend, first, last, targets);
}

}  // namespace lacquer
#endif
