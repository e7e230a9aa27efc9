#include "core/picture/display_kernels.h"

#include <algorithm>
#include <array>
#include <bit>
#include <cstring>
#include <limits>

#include "core/picture/transfer.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/picture/display_kernels.cpp"
#include <hwy/foreach_target.h>
// The order matters to Highway.
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace lacquer::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

constexpr std::size_t most_lanes = 16;
using F = hn::CappedTag<float, most_lanes>;
using I = hn::RebindToSigned<F>;
using V = hn::Vec<F>;
using VI = hn::Vec<I>;
using M = hn::Mask<F>;

// The parts of some pixels, each in a vector of its own.
struct Parts {
    V red;
    V green;
    V blue;
    V opacity;
};

template <int channels>
HWY_INLINE Parts load(const float* from) {
    const F d;
    const V one = hn::Set(d, 1.0F);
    if constexpr (channels == 1) {
        const V grey = hn::LoadU(d, from);
        return {grey, grey, grey, one};
    } else {
#if HWY_TARGET == HWY_SCALAR
        return {hn::LoadU(d, from), hn::LoadU(d, from + 1), hn::LoadU(d, from + 2),
                channels == 4 ? hn::LoadU(d, from + channels - 1) : one};
#else
        Parts parts{one, one, one, one};
        if constexpr (channels == 3) {
            hn::LoadInterleaved3(d, from, parts.red, parts.green, parts.blue);
        } else {
            hn::LoadInterleaved4(d, from, parts.red, parts.green, parts.blue, parts.opacity);
        }
        return parts;
#endif
    }
}

HWY_INLINE VI as_it_stands(V value) {
    const F d;
    const V above = hn::IfThenElse(hn::Gt(value, hn::Zero(d)), value, hn::Zero(d));
    const V held = hn::IfThenElse(hn::Lt(above, hn::Set(d, 1.0F)), above, hn::Set(d, 1.0F));
    return hn::ConvertTo(I(), hn::Add(hn::Mul(held, hn::Set(d, 255.0F)), hn::Set(d, 0.5F)));
}

// As `SrgbEncoder` does it for one. Its table ends below 1; the last entry is 255 all the same.
HWY_NOINLINE VI by_the_table(V held, const SrgbEncoder& encode) {
    const F d;
    const I di;
    const VI cell = hn::ShiftRight<SrgbEncoder::shift>(
        hn::Sub(hn::BitCast(di, held), hn::Set(di, static_cast<std::int32_t>(SrgbEncoder::lowest_bits))));
    const VI level = hn::GatherIndex(di, encode.starts(), cell);
    const V threshold = hn::GatherIndex(d, encode.thresholds(), level);
    const auto reached = hn::RebindMask(di, hn::Ge(held, threshold));
    return hn::IfThenElse(reached, hn::Add(level, hn::Set(di, 1)), level);
}

// The level, before rounding, within `curve_error`. What is small is first brought near 1 by steps whose part in the
// curve, x^(5/12), is known; there a polynomial meets the curve at Chebyshev's points. Roots take three times as long
// as all this.
constexpr float curve_error = 3e-4F;
HWY_INLINE V on_the_curve(V linear) {
    const F d;
    V raised = linear;
    V share = hn::Set(d, 1.0F);
    const auto raise = [&](float below, float by, float part) {
        const M low = hn::Lt(raised, hn::Set(d, below));
        raised = hn::IfThenElse(low, hn::Mul(raised, hn::Set(d, by)), raised);
        share = hn::IfThenElse(low, hn::Mul(share, hn::Set(d, part)), share);
    };
    raise(0.0358968236F, 27.857618F, 0.25F);
    raise(0.18946457F, 5.278032F, 0.5F);
    raise(0.4352753F, 2.297397F, 0.70710678F);
    const V square = hn::Mul(raised, raised);
    // By pairs, which need not wait for one another.
    const auto times_plus = [](V a, V b, V c) { return hn::Add(hn::Mul(a, b), c); };
    const auto pair = [&](float lower, float upper) {
        return times_plus(raised, hn::Set(d, upper), hn::Set(d, lower));
    };
    const V low = times_plus(square, pair(-601.7106F, 715.3541F), pair(68.96569F, 442.6442F));
    const V high = times_plus(square, hn::Set(d, -46.927216F), pair(-554.8629F, 245.56158F));
    const V power = times_plus(hn::Mul(square, square), high, low);
    const V curved = hn::Sub(hn::Mul(power, share), hn::Set(d, 0.055F * 255.0F));
    const V straight = hn::Mul(linear, hn::Set(d, 12.92F * 255.0F));
    return hn::IfThenElse(hn::Lt(linear, hn::Set(d, 0.0031308F)), straight, curved);
}

// Where the table has an entry.
HWY_INLINE V held_for_the_table(V linear) {
    const F d;
    const V lowest = hn::Set(d, std::bit_cast<float>(SrgbEncoder::lowest_bits));
    const V below_one = hn::Set(d, 1.0F - std::numeric_limits<float>::epsilon() / 2);
    const V above = hn::IfThenElse(hn::Ge(linear, lowest), linear, lowest);
    return hn::IfThenElse(hn::Lt(above, below_one), above, below_one);
}

struct Levels {
    VI red;
    VI green;
    VI blue;
};

// Gathering from tables is slow on many processors, so they are asked only where a part lies too near to the middle
// between two levels.
HWY_INLINE Levels by_the_curve(V red, V green, V blue, const SrgbEncoder& encode) {
    const F d;
    const I di;
    red = held_for_the_table(red);
    green = held_for_the_table(green);
    blue = held_for_the_table(blue);
    // Large enough that what is added to it is rounded to whole numbers, which its last bits then hold.
    const V large = hn::Set(d, 12582912.0F);
    V farthest = hn::Zero(d);
    const auto nearest = [&](V held) {
        const V level = on_the_curve(held);
        const V sum = hn::Add(level, large);
        farthest = hn::Max(farthest, hn::Abs(hn::Sub(level, hn::Sub(sum, large))));
        return hn::Sub(hn::BitCast(di, sum), hn::BitCast(di, large));
    };
    const Levels levels{nearest(red), nearest(green), nearest(blue)};
    if (HWY_LIKELY(hn::AllTrue(d, hn::Lt(farthest, hn::Set(d, 0.5F - curve_error))))) return levels;
    return {by_the_table(red, encode), by_the_table(green, encode), by_the_table(blue, encode)};
}

HWY_INLINE M is_finite(V x) { return hn::Lt(hn::Abs(x), hn::Set(F(), std::numeric_limits<float>::infinity())); }

template <int channels>
HWY_INLINE Levels shown_levels(const Parts& parts, V gain, const SrgbEncoder& encode) {
    if constexpr (channels == 1) {
        const VI grey = as_it_stands(parts.red);
        return {grey, grey, grey};
    } else {
        return by_the_curve(hn::Mul(parts.red, gain), hn::Mul(parts.green, gain), hn::Mul(parts.blue, gain), encode);
    }
}

// As many pixels as a vector has lanes.
template <int channels>
HWY_INLINE bool show_some(const float* from, V gain, std::uint8_t* to, const SrgbEncoder& encode) {
    const F d;
    const I di;
    const Parts parts = load<channels>(from);
    const Levels levels = shown_levels<channels>(parts, gain, encode);
    const VI opacity = channels == 4 ? as_it_stands(parts.opacity) : hn::Set(di, 255);
    const VI colour = hn::Or(hn::Or(levels.red, hn::ShiftLeft<8>(levels.green)),
                             hn::Or(hn::ShiftLeft<16>(levels.blue), hn::ShiftLeft<24>(opacity)));
#if HWY_TARGET == HWY_SCALAR
    const std::int32_t bytes = hn::GetLane(colour);
    std::memcpy(to, &bytes, sizeof bytes);
#else
    const hn::Repartition<std::uint8_t, I> bytes;
    hn::StoreU(hn::BitCast(bytes, colour), bytes, to);
#endif
    M finite = is_finite(parts.red);
    if (channels > 1) finite = hn::And(finite, hn::And(is_finite(parts.green), is_finite(parts.blue)));
    return hn::AllTrue(d, hn::And(finite, is_finite(parts.opacity)));
}

template <int channels>
bool show_row(const float* from, float gain, std::uint8_t* to, std::size_t count, const SrgbEncoder& encode) {
    const F d;
    const V by = hn::Set(d, gain);
    const std::size_t lanes = hn::Lanes(d);
    bool finite = true;
    std::size_t i = 0;
    for (; i + lanes <= count; i += lanes)
        finite = show_some<channels>(from + i * channels, by, to + i * 4, encode) && finite;
    if (i == count) return finite;
    // The rest with empty pixels behind it.
    std::array<float, most_lanes * channels> rest{};
    std::array<std::uint8_t, most_lanes * 4> shown{};
    std::copy(from + i * channels, from + count * channels, rest.begin());
    finite = show_some<channels>(rest.data(), by, shown.data(), encode) && finite;
    std::copy_n(shown.begin(), (count - i) * 4, to + i * 4);
    return finite;
}

bool show_any(const float* from, int channels, float gain, std::uint8_t* to, std::size_t count,
              const SrgbEncoder& encode) {
    if (channels == 1) return show_row<1>(from, gain, to, count, encode);
    return channels == 3 ? show_row<3>(from, gain, to, count, encode) : show_row<4>(from, gain, to, count, encode);
}

}  // namespace lacquer::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace lacquer {

HWY_EXPORT(show_any);

bool show_pixels(const float* from, int channels, float gain, std::uint8_t* to, std::size_t count) {
    static const SrgbEncoder encode;
    return HWY_DYNAMIC_DISPATCH(show_any)(from, channels, gain, to, count, encode);
}

}  // namespace lacquer
#endif
