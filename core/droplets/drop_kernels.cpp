// Rows of ready shapes. Plain products, sums and roots only, in a fixed order, so that all instruction sets give the
// same bits.
#include "core/droplets/drop_kernels.h"

#include <algorithm>

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
HWY_INLINE Height splash(V u, V v, const TileDrop& row) {
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
HWY_INLINE Height height_of(V u, V v, const TileDrop& row) {
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
HWY_NOINLINE void draw_tile(const TileDrop& drop, const DropTargets& out) {
    const F f;
    const auto lanes = static_cast<int>(hn::Lanes(f));
    const V lane = hn::Iota(f, 0.0F);
    for (int y = drop.first_row; y <= drop.last_row; ++y) {
        const RowSpan span = row_span(drop, y);
        const float row_u = drop.u + static_cast<float>(y) * drop.u_down;
        const float row_v = drop.v + static_cast<float>(y) * drop.v_down;
        // Beyond its own pixels a drop is not there, so that whole blocks may be drawn.
        for (int x = span.first / drop_block * drop_block; x < span.last; x += lanes) {
            const int at = y * drop_tile_width + x;
            const V i = add(num(static_cast<float>(x)), lane);
            const V u = add(num(row_u), mul(i, num(drop.u_step)));
            const V v = add(num(row_v), mul(i, num(drop.v_step)));
            const Height here = height_of<shape>(u, v, drop);
            const V opacity = mul(here.height, num(drop.opacity));
            if (out.opacity != nullptr) {
                const hn::Mask<F> is_larger = hn::Lt(hn::Load(f, out.opacity + at), opacity);
                blend_in<blend>(out.red + at, mul(opacity, num(drop.tint[0])), opacity, is_larger);
                blend_in<blend>(out.green + at, mul(opacity, num(drop.tint[1])), opacity, is_larger);
                blend_in<blend>(out.blue + at, mul(opacity, num(drop.tint[2])), opacity, is_larger);
                blend_in<blend>(out.opacity + at, opacity, opacity, is_larger);
            }
            if (out.share != nullptr) {
                add_to(out.weight + at, opacity);
                add_to(out.share + at, mul(opacity, num(drop.share)));
            }
            if (out.best != nullptr) {
                const hn::Mask<F> is_best = hn::Lt(hn::Load(f, out.best + at), opacity);
                replace(out.best + at, opacity, is_best);
                replace(out.seed + at, num(drop.seed), is_best);
                replace(out.across + at, u, is_best);
                replace(out.down + at, v, is_best);
            }
            if (out.push_x != nullptr) {
                const V slope_u = mul(here.slope_u, num(drop.opacity));
                const V slope_v = mul(here.slope_v, num(drop.opacity));
                add_to(out.push_x + at, sub(mul(slope_u, num(drop.cosine)), mul(slope_v, num(drop.sine))));
                add_to(out.push_y + at, add(mul(slope_u, num(drop.sine)), mul(slope_v, num(drop.cosine))));
            }
        }
    }
}

template <DropShape shape>
HWY_INLINE void draw_tile_of(const TileDrop& drop, DropBlend blend, const DropTargets& out) {
    switch (blend) {
        case DropBlend::add:
            return draw_tile<shape, DropBlend::add>(drop, out);
        case DropBlend::over:
            return draw_tile<shape, DropBlend::over>(drop, out);
        case DropBlend::larger:
            return draw_tile<shape, DropBlend::larger>(drop, out);
    }
}

void draw_any(const TileDrop& drop, DropShape shape, DropBlend blend, const DropTargets& out) {
    switch (shape) {
        case DropShape::ring:
            return draw_tile_of<DropShape::ring>(drop, blend, out);
        case DropShape::streak:
            return draw_tile_of<DropShape::streak>(drop, blend, out);
        case DropShape::splash:
            return draw_tile_of<DropShape::splash>(drop, blend, out);
        case DropShape::disc:
        case DropShape::picture:
            return draw_tile_of<DropShape::disc>(drop, blend, out);
    }
}

// The rows of a tile are whole blocks, so that what lies beyond `count` may be worked out, but not stored.
void finish_colours(const float* red, const float* green, const float* blue, const float* opacity, int count,
                    float* to) {
    const F f;
    const auto lanes = static_cast<int>(hn::Lanes(f));
    HWY_ALIGN float rest[4 * drop_block];
    for (int x = 0; x < count; x += lanes) {
        const V held = at_most_1(hn::Load(f, opacity + x));
        const hn::Mask<F> is_there = hn::Lt(num(0), held);
        // Hidden colours would come to light wherever the picture is averaged.
        const V whole = hn::IfThenElse(is_there, hn::Div(num(1), hn::IfThenElse(is_there, held, num(1))), num(0));
        const bool is_whole = x + lanes <= count;
        hn::StoreInterleaved4(mul(hn::Load(f, red + x), whole), mul(hn::Load(f, green + x), whole),
                              mul(hn::Load(f, blue + x), whole), held, f, is_whole ? to + 4 * x : rest);
        if (is_whole) continue;
        for (int i = 0; i < 4 * (count - x); ++i) to[4 * x + i] = rest[i];
    }
}

}  // namespace lacquer::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace lacquer {

HWY_EXPORT(draw_any);
HWY_EXPORT(finish_colours);

void draw_tile_drop(const TileDrop& drop, DropShape shape, DropBlend blend, const DropTargets& tile) {
    HWY_DYNAMIC_DISPATCH(draw_any)(drop, shape, blend, tile);
}

void finish_drop_colours(const float* red, const float* green, const float* blue, const float* opacity, int count,
                         float* to) {
    HWY_DYNAMIC_DISPATCH(finish_colours)(red, green, blue, opacity, count, to);
}

namespace {

// Where -1 <= begin + step * x <= 1, a little further on either side.
void narrow(float begin, float step, float& first, float& last) {
    constexpr float level = 1e-9F;
    if (step > level || step < -level) {
        const float one = (-1 - begin) / step;
        const float other = (1 - begin) / step;
        first = std::max(first, std::min(one, other) - 1);
        last = std::min(last, std::max(one, other) + 1);
    } else if (begin > 1.001F || begin < -1.001F) {
        last = first - 1;
    }
}

}  // namespace

RowSpan row_span(const TileDrop& drop, int row) {
    // In a few blocks there is nothing to be saved.
    if (drop.last_column - drop.first_column < 2 * drop_block) return {drop.first_column, drop.last_column + 1};
    auto first = static_cast<float>(drop.first_column);
    auto last = static_cast<float>(drop.last_column);
    narrow(drop.u + static_cast<float>(row) * drop.u_down, drop.u_step, first, last);
    narrow(drop.v + static_cast<float>(row) * drop.v_down, drop.v_step, first, last);
    if (!(first <= last)) return {};
    return {static_cast<int>(first), static_cast<int>(last) + 1};
}

}  // namespace lacquer
#endif
