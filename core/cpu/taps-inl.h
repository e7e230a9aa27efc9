// Where a picture is read for a block of pixels, and mixing what lies there; included once for each instruction set,
// after strip-inl.h.
#if defined(LACQUER_TAPS_INL_H_) == defined(HWY_TARGET_TOGGLE)
#ifdef LACQUER_TAPS_INL_H_
#undef LACQUER_TAPS_INL_H_
#else
#define LACQUER_TAPS_INL_H_
#endif

#include <algorithm>
#include <array>
#include <limits>

#include "core/cpu/strip-inl.h"

HWY_BEFORE_NAMESPACE();
namespace lacquer::HWY_NAMESPACE {

// Four channels in a row at each pixel, to and from strips.
#if HWY_TARGET == HWY_SCALAR
// One lane is all there is: a colour is four of them.
struct Colour {
    std::array<float, 4> parts;
};
HWY_INLINE Colour load_colour(const float* from) { return {{from[0], from[1], from[2], from[3]}}; }
HWY_INLINE Colour blend_taps(Colour a, Colour b, float fraction) {
    if (fraction == 0.0F) return a;
    for (std::size_t c = 0; c < 4; ++c) a.parts[c] = a.parts[c] * (1.0F - fraction) + b.parts[c] * fraction;
    return a;
}
HWY_INLINE Colour blend_by_opacity(Colour a, Colour b, float fraction) {
    if (fraction == 0.0F) return a;
    const float of_a = a.parts[3] * (1.0F - fraction);
    const float of_b = b.parts[3] * fraction;
    const float both = of_a + of_b;
    for (std::size_t c = 0; c < 3; ++c) {
        if (of_b != 0.0F) a.parts[c] = of_a == 0.0F ? b.parts[c] : (a.parts[c] * of_a + b.parts[c] * of_b) / both;
    }
    a.parts[3] = both;
    return a;
}
HWY_INLINE void store_colour(Colour colour, float* to) { std::copy(colour.parts.begin(), colour.parts.end(), to); }

HWY_INLINE void part_pixels(const float* pixels, const KernelArgs& k, std::size_t at) {
    for (std::size_t c = 0; c < 4; ++c) {
        for (std::size_t n = 0; n < lane_block; ++n) k.out[c][at + n] = pixels[4 * n + c];
    }
}
HWY_INLINE void part_pairs(const float* pixels, const KernelArgs& k, std::size_t at) {
    for (std::size_t c = 0; c < 2; ++c) {
        for (std::size_t n = 0; n < lane_block; ++n) k.out[c][at + n] = pixels[2 * n + c];
    }
}
#else
using F4 = hn::FixedTag<float, 4>;
using Colour = hn::Vec<F4>;
HWY_INLINE Colour load_colour(const float* from) { return hn::LoadU(F4(), from); }
// With a fraction of 0 the second tap does not count: an infinite neighbour must not turn into NaN.
HWY_INLINE Colour blend_taps(Colour a, Colour b, float fraction) {
    const Colour f = hn::Set(F4(), fraction);
    const Colour blended = hn::Add(hn::Mul(a, hn::Set(F4(), 1.0F - fraction)), hn::Mul(b, f));
    return hn::IfThenElse(hn::Eq(f, hn::Zero(F4())), a, blended);
}
// The same by opacity, the last of the four: what is clear lends no colour.
HWY_INLINE Colour blend_by_opacity(Colour a, Colour b, float fraction) {
    const F4 d;
    const Colour zero = hn::Zero(d);
    const Colour of_a = hn::Mul(hn::Broadcast<3>(a), hn::Set(d, 1.0F - fraction));
    const Colour of_b = hn::Mul(hn::Broadcast<3>(b), hn::Set(d, fraction));
    const Colour both = hn::Add(of_a, of_b);
    const Colour mixed = hn::Div(hn::Add(hn::Mul(a, of_a), hn::Mul(b, of_b)), both);
    const Colour colour = hn::IfThenElse(hn::Eq(of_b, zero), a, hn::IfThenElse(hn::Eq(of_a, zero), b, mixed));
    const auto is_opacity = hn::Eq(hn::Iota(d, 0.0F), hn::Set(d, 3.0F));
    const Colour weighed = hn::IfThenElse(is_opacity, both, colour);
    return hn::IfThenElse(hn::Eq(hn::Set(d, fraction), zero), a, weighed);
}
HWY_INLINE void store_colour(Colour colour, float* to) { hn::Store(colour, F4(), to); }

HWY_INLINE void part_pixels(const float* pixels, const KernelArgs& k, std::size_t at) {
    const F d;
    for (std::size_t n = 0; n < lane_block; n += hn::Lanes(d)) {
        VF r;
        VF g;
        VF b;
        VF a;
        hn::LoadInterleaved4(d, pixels + 4 * n, r, g, b, a);
        hn::Store(r, d, k.out[0] + at + n);
        hn::Store(g, d, k.out[1] + at + n);
        hn::Store(b, d, k.out[2] + at + n);
        hn::Store(a, d, k.out[3] + at + n);
    }
}
HWY_INLINE void part_pairs(const float* pixels, const KernelArgs& k, std::size_t at) {
    const F d;
    for (std::size_t n = 0; n < lane_block; n += hn::Lanes(d)) {
        VF x;
        VF y;
        hn::LoadInterleaved2(d, pixels + 2 * n, x, y);
        hn::Store(x, d, k.out[0] + at + n);
        hn::Store(y, d, k.out[1] + at + n);
    }
}
#endif

// Pixels of so many channels, side by side, to strips.
template <int channels>
HWY_INLINE void part_row(const float* pixels, const KernelArgs& k, std::size_t at) {
    if constexpr (channels == 4) {
        part_pixels(pixels, k, at);
    } else if constexpr (channels == 2) {
        part_pairs(pixels, k, at);
    } else {
        const F d;
        for (std::size_t n = 0; n < lane_block; n += hn::Lanes(d))
            hn::Store(hn::LoadU(d, pixels + n), d, k.out[0] + at + n);
    }
}

// The taps of a block of pixels, in pixels of the picture: where the first lies, how far on the others, how much they
// count.
struct Taps {
    HWY_ALIGN std::array<std::int32_t, lane_block> first;
    HWY_ALIGN std::array<std::int32_t, lane_block> right;
    HWY_ALIGN std::array<std::int32_t, lane_block> down;
    HWY_ALIGN std::array<float, lane_block> across;
    HWY_ALIGN std::array<float, lane_block> along;
    bool on_pixels = true;     // no fraction anywhere: the first colour is the answer
    bool side_by_side = true;  // each pixel's taps lie one pixel on from those of the one before
    bool finite = true;        // all coordinates are numbers and not infinite
};

struct Tap {
    VI low;
    VF fraction;
    VI step;  // to the next pixel; 0 at the border
};

HWY_INLINE MF is_finite(VF x) { return hn::Lt(hn::Abs(x), number(std::numeric_limits<float>::infinity())); }

template <Filter filter>
HWY_INLINE Tap tap(VF position, int size) {
    const I di;
    const VF last = number(static_cast<float>(size) - 1.0F);
    VF p = hn::Mul(position, number(static_cast<float>(size)));
    if (filter == Filter::linear) p = hn::Sub(p, number(0.5F));
    p = hn::Mul(floored(hn::Add(hn::Mul(p, number(256.0F)), number(0.5F))), number(1.0F / 256.0F));
    if (filter == Filter::nearest) p = floored(p);
    p = hn::IfThenElse(hn::Ge(p, number(0.0F)), p, number(0.0F));
    p = hn::IfThenElse(hn::Gt(p, last), last, p);
    const VI low = hn::ConvertTo(di, p);
    const VI high = hn::Min(hn::Add(low, hn::Set(di, 1)), hn::Set(di, size - 1));
    return {low, hn::Sub(p, hn::ConvertTo(F(), low)), hn::Sub(high, low)};
}

template <Filter filter>
HWY_INLINE void find_taps(const float* u, std::size_t u_stride, const float* v, std::size_t v_stride,
                          const PictureView& picture, Taps& taps) {
    const F d;
    const I di;
    const VI row = hn::Set(di, picture.width);
    taps.on_pixels = true;
    taps.side_by_side = true;
    taps.finite = true;
    VI expected = hn::Iota(di, 0);
    VF across = hn::Zero(d);
    VF along = hn::Zero(d);
    for (std::size_t i = 0; i < lane_block; i += hn::Lanes(d)) {
        const VF here_u = hn::Load(d, u + i * u_stride);
        const VF here_v = hn::Load(d, v + i * v_stride);
        taps.finite = taps.finite && hn::AllTrue(d, hn::And(is_finite(here_u), is_finite(here_v)));
        const Tap x = tap<filter>(here_u, picture.width);
        const Tap y = tap<filter>(here_v, picture.height);
        const VI first = hn::Add(hn::Mul(y.low, row), x.low);
        hn::Store(first, di, taps.first.data() + i);
        hn::Store(x.step, di, taps.right.data() + i);
        hn::Store(hn::Mul(y.step, row), di, taps.down.data() + i);
        hn::Store(x.fraction, d, taps.across.data() + i);
        hn::Store(y.fraction, d, taps.along.data() + i);
        const MF between = hn::Or(hn::Gt(x.fraction, number(0.0F)), hn::Gt(y.fraction, number(0.0F)));
        taps.on_pixels = taps.on_pixels && hn::AllFalse(d, between);
        if (i == 0) {
            expected = hn::Add(expected, hn::Set(di, hn::GetLane(first)));
            across = hn::Set(d, hn::GetLane(x.fraction));
            along = hn::Set(d, hn::GetLane(y.fraction));
        }
        const MF same = hn::And(hn::Eq(x.fraction, across), hn::Eq(y.fraction, along));
        taps.side_by_side =
            taps.side_by_side && hn::AllTrue(d, hn::And(same, hn::RebindMask(d, hn::Eq(first, expected))));
        expected = hn::Add(expected, hn::Set(di, static_cast<std::int32_t>(hn::Lanes(d))));
    }
}

// Taps in one row of the picture, each one pixel on from the one before.
struct Run {
    std::int32_t first = 0;
    float across = 0;
};
template <Filter filter>
HWY_INLINE bool find_run(const float* u, std::size_t u_stride, int width, Run& run) {
    const F d;
    const I di;
    VI expected = hn::Zero(di);
    VF across = hn::Zero(d);
    for (std::size_t i = 0; i < lane_block; i += hn::Lanes(d)) {
        const VF here = hn::Load(d, u + i * u_stride);
        const Tap x = tap<filter>(here, width);
        if (i == 0) {
            run = {hn::GetLane(x.low), hn::GetLane(x.fraction)};
            expected = hn::Add(hn::Iota(di, 0), hn::Set(di, run.first));
            across = hn::Set(d, run.across);
        }
        const MF same = hn::And(hn::Eq(x.fraction, across), hn::RebindMask(d, hn::Eq(x.low, expected)));
        if (!hn::AllTrue(d, hn::And(same, is_finite(here)))) return false;
        expected = hn::Add(expected, hn::Set(di, static_cast<std::int32_t>(hn::Lanes(d))));
    }
    return true;
}

// Taps that lie side by side need no gathering. A fraction that is not 0 says that there is a neighbour.
template <int channels>
HWY_INLINE void blend_side_by_side(const float* first, std::size_t row, float across, float along, float* to) {
    const F d;
    const VF left = number(1.0F - across);
    const VF right = number(across);
    const VF upper = number(1.0F - along);
    const VF lower = number(along);
    const auto row_at = [&](const float* from) {
        const VF here = hn::LoadU(d, from);
        if (across == 0.0F) return here;
        return hn::Add(hn::Mul(here, left), hn::Mul(hn::LoadU(d, from + channels), right));
    };
    for (std::size_t i = 0; i < channels * lane_block; i += hn::Lanes(d)) {
        VF colours = row_at(first + i);
        if (along != 0.0F) colours = hn::Add(hn::Mul(colours, upper), hn::Mul(row_at(first + row + i), lower));
        hn::Store(colours, d, to + i);
    }
}

// Taps anywhere, of four channels.
template <bool weighed>
HWY_INLINE void blend_colours(const float* data, const Taps& taps, float* colours) {
    const auto blend = [](Colour a, Colour b, float fraction) {
        return weighed ? blend_by_opacity(a, b, fraction) : blend_taps(a, b, fraction);
    };
    for (std::size_t n = 0; n < lane_block; ++n) {
        const float* first = data + 4 * static_cast<std::ptrdiff_t>(taps.first[n]);
        Colour colour = load_colour(first);
        if (!taps.on_pixels) {
            const std::ptrdiff_t right = 4 * static_cast<std::ptrdiff_t>(taps.right[n]);
            const float* below = first + 4 * static_cast<std::ptrdiff_t>(taps.down[n]);
            colour = blend(colour, load_colour(first + right), taps.across[n]);
            colour =
                blend(colour, blend(load_colour(below), load_colour(below + right), taps.across[n]), taps.along[n]);
        }
        store_colour(colour, colours + 4 * n);
    }
}

// Taps anywhere, of one or two channels: each channel is gathered by itself and mixed whole vectors at a time.
template <int channels>
HWY_INLINE void blend_numbers(const float* data, const Taps& taps, const KernelArgs& k, std::size_t at) {
    const F d;
    HWY_ALIGN std::array<std::array<float, lane_block>, 4> taken{};
    for (std::size_t c = 0; c < channels; ++c) {
        for (std::size_t n = 0; n < lane_block; ++n) {
            const float* first = data + channels * static_cast<std::ptrdiff_t>(taps.first[n]) + c;
            const std::ptrdiff_t right = channels * static_cast<std::ptrdiff_t>(taps.right[n]);
            const std::ptrdiff_t down = channels * static_cast<std::ptrdiff_t>(taps.down[n]);
            taken[0][n] = first[0];
            if (taps.on_pixels) continue;
            taken[1][n] = first[right];
            taken[2][n] = first[down];
            taken[3][n] = first[down + right];
        }
        for (std::size_t n = 0; n < lane_block; n += hn::Lanes(d)) {
            const auto blend = [&](VF a, VF b, VF fraction) {
                const VF mixed = hn::Add(hn::Mul(a, hn::Sub(number(1.0F), fraction)), hn::Mul(b, fraction));
                return hn::IfThenElse(hn::Eq(fraction, number(0.0F)), a, mixed);
            };
            const auto tap_at = [&](std::size_t t) { return hn::Load(d, taken[t].data() + n); };
            VF value = tap_at(0);
            if (!taps.on_pixels) {
                const VF across = hn::Load(d, taps.across.data() + n);
                value = blend(blend(value, tap_at(1), across), blend(tap_at(2), tap_at(3), across),
                              hn::Load(d, taps.along.data() + n));
            }
            hn::Store(value, d, k.out[c] + at + n);
        }
    }
}

// Where a coordinate is no number, or infinite, nothing can be read.
template <int channels>
HWY_NOINLINE void put_no_number(const KernelArgs& k, std::size_t at, const float* u, std::size_t u_stride,
                                const float* v, std::size_t v_stride) {
    const F d;
    const VF none = number(std::numeric_limits<float>::quiet_NaN());
    for (std::size_t n = 0; n < lane_block; n += hn::Lanes(d)) {
        const MF good = hn::And(is_finite(hn::Load(d, u + n * u_stride)), is_finite(hn::Load(d, v + n * v_stride)));
        for (std::size_t c = 0; c < channels; ++c) {
            float* to = k.out[c] + at + n;
            hn::Store(hn::IfThenElse(good, hn::Load(d, to), none), d, to);
        }
    }
}

}  // namespace lacquer::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#endif
