// Where a pixel is, and reading pictures: core/picture/sample.h, step by step the same.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cpu/kernels_sampling.cpp"
#include <hwy/foreach_target.h>
// The order matters to Highway.
// clang-format off
#include <hwy/highway.h>
#include "core/cpu/strip-inl.h"
// clang-format on

#include <algorithm>
#include <array>
#include <bit>
#include <limits>

#include "core/picture/coded.h"

HWY_BEFORE_NAMESPACE();
namespace lacquer::HWY_NAMESPACE {

// Drawn at another size than the frame's, a drawn pixel lies in some whole pixel of the frame.
float frame_pixel(int drawn, int drawn_size, float frame_size) {
    const float exact = static_cast<float>(drawn_size) == frame_size
                            ? static_cast<float>(drawn)
                            : (static_cast<float>(drawn) + 0.5F) / static_cast<float>(drawn_size) * frame_size;
    return static_cast<float>(static_cast<int>(exact));
}

void uv_x(const KernelArgs& k) {
    for (std::size_t i = 0; i < k.count; ++i) {
        k.out[0][i] = (static_cast<float>(k.x + static_cast<int>(i)) + 0.5F) / static_cast<float>(k.grid_width);
    }
}

void uv_y(const KernelArgs& k) {
    const float v = (static_cast<float>(k.y) + 0.5F) / static_cast<float>(k.grid_height);
    std::fill_n(k.out[0], k.count, v);
}

void pixel_x(const KernelArgs& k) {
    for (std::size_t i = 0; i < k.count; ++i) {
        k.out[0][i] = frame_pixel(k.x + static_cast<int>(i), k.grid_width, k.frame_width);
    }
}

void pixel_y(const KernelArgs& k) { std::fill_n(k.out[0], k.count, frame_pixel(k.y, k.grid_height, k.frame_height)); }

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

void black(const KernelArgs& k) {
    for (std::size_t c = 0; c < 4; ++c) std::fill_n(k.out[c], k.count, c == 3 ? 1.0F : 0.0F);
}

// What is asked for too rarely to be worth a way of its own.
template <class Read>
void one_by_one(const KernelArgs& k, Read read) {
    for (std::size_t i = 0; i < k.count; ++i) {
        const std::array<float, 4> colour = read(i);
        for (std::size_t c = 0; c < 4; ++c) k.out[c][i] = colour[c];
    }
}

HWY_NOINLINE void sample_otherwise(const KernelArgs& k, const float* u, std::size_t u_stride, const float* v,
                                   std::size_t v_stride) {
    one_by_one(k, [&](std::size_t i) { return lacquer::sample(*k.picture, u[i * u_stride], v[i * v_stride]); });
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

template <Filter filter, int channels>
void sample_held(const KernelArgs& k, const float* u, std::size_t u_stride, const float* v, std::size_t v_stride) {
    const PictureView& picture = *k.picture;
    Taps taps;
    HWY_ALIGN std::array<float, 4 * lane_block> colours;
    const bool weighed = channels == 4 && picture.sampling.weighed && filter == Filter::linear;
    // The whole strip reads one row.
    const bool level = v_stride == 0 && hn::AllTrue(F(), is_finite(hn::Load(F(), v)));
    const Tap row = tap<filter>(hn::Load(F(), v), picture.height);
    const auto row_length = channels * static_cast<std::size_t>(picture.width);
    const float* const row_begin = picture.data + static_cast<std::size_t>(hn::GetLane(row.low)) * row_length;
    const float along = hn::GetLane(row.fraction);
    for (std::size_t i = 0; i < k.count; i += lane_block) {
        Run run;
        if (level && find_run<filter>(u + i * u_stride, u_stride, picture.width, run)) {
            const float* first = row_begin + channels * static_cast<std::size_t>(run.first);
            if (run.across == 0.0F && along == 0.0F) {
                part_row<channels>(first, k, i);
                continue;
            }
            if (!weighed) {
                blend_side_by_side<channels>(first, row_length, run.across, along, colours.data());
                part_row<channels>(colours.data(), k, i);
                continue;
            }
        }
        find_taps<filter>(u + i * u_stride, u_stride, v + i * v_stride, v_stride, picture, taps);
        if (taps.side_by_side && taps.on_pixels) {
            part_row<channels>(picture.data + channels * static_cast<std::size_t>(taps.first[0]), k, i);
        } else if (taps.side_by_side && !weighed) {
            blend_side_by_side<channels>(picture.data + channels * static_cast<std::size_t>(taps.first[0]), row_length,
                                         taps.across[0], taps.along[0], colours.data());
            part_row<channels>(colours.data(), k, i);
        } else if constexpr (channels == 4) {
            if (weighed) {
                blend_colours<true>(picture.data, taps, colours.data());
            } else {
                blend_colours<false>(picture.data, taps, colours.data());
            }
            part_pixels(colours.data(), k, i);
        } else {
            blend_numbers<channels>(picture.data, taps, k, i);
        }
        if (!taps.finite) put_no_number<channels>(k, i, u + i * u_stride, u_stride, v + i * v_stride, v_stride);
    }
}

// A picture of bytes: the numbers of those pixels that are looked at are made as they are needed.
class Bytes {
public:
    explicit Bytes(const PictureView& picture)
        : bytes_(picture.bytes), colours_(colour_numbers(picture.coding).data()), opacity_(opacity_numbers().data()) {}

    // So many pixels side by side, from the one at `index` on.
    HWY_INLINE void decode(std::ptrdiff_t index, std::size_t count, float* to) const {
        const std::uint8_t* from = bytes_ + 4 * index;
        for (std::size_t n = 0; n < count; ++n, from += 4, to += 4) {
            to[0] = colours_[from[0]];
            to[1] = colours_[from[1]];
            to[2] = colours_[from[2]];
            to[3] = opacity_[from[3]];
        }
    }

    // All that the taps look at; afterwards they say where that lies in `to`.
    void decode_taps(Taps& taps, float* to) const {
        for (std::size_t n = 0; n < lane_block; ++n) {
            const auto first = static_cast<std::ptrdiff_t>(taps.first[n]);
            const auto right = static_cast<std::ptrdiff_t>(taps.right[n]);
            const auto down = static_cast<std::ptrdiff_t>(taps.down[n]);
            float* own = to + 16 * n;
            decode(first, 1, own);
            taps.first[n] = static_cast<std::int32_t>(4 * n);
            if (taps.on_pixels) continue;
            decode(first + right, 1, own + 4);
            decode(first + down, 1, own + 8);
            decode(first + down + right, 1, own + 12);
            taps.right[n] = 1;
            taps.down[n] = 2;
        }
    }

private:
    const std::uint8_t* bytes_;
    const float* colours_;
    const float* opacity_;
};

template <Filter filter>
void sample_bytes(const KernelArgs& k, const float* u, std::size_t u_stride, const float* v, std::size_t v_stride) {
    const PictureView& picture = *k.picture;
    const Bytes bytes(picture);
    const bool weighed = picture.sampling.weighed && filter == Filter::linear;
    constexpr std::size_t row = 4 * (lane_block + 1);
    HWY_ALIGN std::array<float, 16 * lane_block> numbers;
    HWY_ALIGN std::array<float, 4 * lane_block> colours;
    Taps taps;
    for (std::size_t i = 0; i < k.count; i += lane_block) {
        find_taps<filter>(u + i * u_stride, u_stride, v + i * v_stride, v_stride, picture, taps);
        const auto first = static_cast<std::ptrdiff_t>(taps.first[0]);
        if (taps.side_by_side && taps.on_pixels) {
            bytes.decode(first, lane_block, colours.data());
        } else if (taps.side_by_side && !weighed) {
            const std::size_t count = lane_block + (taps.across[0] != 0.0F ? 1 : 0);
            bytes.decode(first, count, numbers.data());
            if (taps.along[0] != 0.0F) bytes.decode(first + picture.width, count, numbers.data() + row);
            blend_side_by_side<4>(numbers.data(), row, taps.across[0], taps.along[0], colours.data());
        } else {
            bytes.decode_taps(taps, numbers.data());
            if (weighed) {
                blend_colours<true>(numbers.data(), taps, colours.data());
            } else {
                blend_colours<false>(numbers.data(), taps, colours.data());
            }
        }
        part_pixels(colours.data(), k, i);
        if (!taps.finite) put_no_number<4>(k, i, u + i * u_stride, u_stride, v + i * v_stride, v_stride);
    }
}

template <Filter filter>
void sample_channels(const KernelArgs& k, const float* u, std::size_t u_stride, const float* v, std::size_t v_stride) {
    if (k.picture->bytes != nullptr) return sample_bytes<filter>(k, u, u_stride, v, v_stride);
    switch (k.picture->channels) {
        case 1:
            return sample_held<filter, 1>(k, u, u_stride, v, v_stride);
        case 2:
            return sample_held<filter, 2>(k, u, u_stride, v, v_stride);
        default:
            return sample_held<filter, 4>(k, u, u_stride, v, v_stride);
    }
}

void sample_strip(const KernelArgs& k, const float* u, std::size_t u_stride, const float* v, std::size_t v_stride) {
    const PictureView& picture = *k.picture;
    if (picture.is_empty()) return black(k);
    if (picture.sampling.wrap != Wrap::clamp) return sample_otherwise(k, u, u_stride, v, v_stride);
    if (picture.sampling.filter == Filter::nearest)
        return sample_channels<Filter::nearest>(k, u, u_stride, v, v_stride);
    sample_channels<Filter::linear>(k, u, u_stride, v, v_stride);
}

void sample(const KernelArgs& k) { sample_strip(k, k.in[0], k.stride[0], k.in[1], k.stride[1]); }

void sample_level(const KernelArgs& k) {
    one_by_one(k, [&](std::size_t i) {
        return lacquer::sample_level(*k.picture, k.in[0][i * k.stride[0]], k.in[1][i * k.stride[1]],
                                     k.in[2][i * k.stride[2]]);
    });
}

// True for a block of pixels that lie side by side in one row of the picture.
HWY_INLINE bool is_run(const Input& x, const Input& y, std::size_t i, const PictureView& picture) {
    const I di;
    const auto first = std::bit_cast<std::int32_t>(x.from[i * x.stride]);
    const auto row = std::bit_cast<std::int32_t>(y.from[i * y.stride]);
    const auto length = static_cast<std::int32_t>(lane_block);
    if (first < 0 || first > picture.width - length || row < 0 || row >= picture.height) return false;
    VI expected = hn::Add(hn::Iota(di, 0), hn::Set(di, first));
    bool run = true;
    for (std::size_t n = 0; n < lane_block; n += hn::Lanes(di)) {
        const MF there = hn::RebindMask(F(), hn::Eq(hn::BitCast(di, x.at(i + n)), expected));
        const MF level = hn::RebindMask(F(), hn::Eq(hn::BitCast(di, y.at(i + n)), hn::Set(di, row)));
        run = run && hn::AllTrue(F(), hn::And(there, level));
        expected = hn::Add(expected, hn::Set(di, static_cast<std::int32_t>(hn::Lanes(di))));
    }
    return run;
}

template <int channels>
void fetch_channels(const KernelArgs& k) {
    const PictureView& picture = *k.picture;
    const I di;
    const Input x{k.in[0], k.stride[0]};
    const Input y{k.in[1], k.stride[1]};
    const auto held = [&](VF place, int size) {
        return hn::Min(hn::Max(hn::BitCast(di, place), hn::Zero(di)), hn::Set(di, size - 1));
    };
    Taps taps;
    HWY_ALIGN std::array<float, 4 * lane_block> colours;
    HWY_ALIGN std::array<float, 16 * lane_block> numbers;
    for (std::size_t i = 0; i < k.count; i += lane_block) {
        if (picture.bytes == nullptr && is_run(x, y, i, picture)) {
            const auto row = static_cast<std::size_t>(std::bit_cast<std::int32_t>(y.from[i * y.stride]));
            const auto first = static_cast<std::size_t>(std::bit_cast<std::int32_t>(x.from[i * x.stride]));
            part_row<channels>(picture.data + channels * (row * static_cast<std::size_t>(picture.width) + first), k, i);
            continue;
        }
        for (std::size_t n = 0; n < lane_block; n += hn::Lanes(di)) {
            const VI row = hn::Mul(held(y.at(i + n), picture.height), hn::Set(di, picture.width));
            hn::Store(hn::Add(row, held(x.at(i + n), picture.width)), di, taps.first.data() + n);
        }
        if constexpr (channels == 4) {
            if (picture.bytes != nullptr) Bytes(picture).decode_taps(taps, numbers.data());
            blend_colours<false>(picture.bytes != nullptr ? numbers.data() : picture.data, taps, colours.data());
            part_pixels(colours.data(), k, i);
        } else {
            blend_numbers<channels>(picture.data, taps, k, i);
        }
    }
}

void fetch(const KernelArgs& k) {
    if (k.picture->is_empty()) return black(k);
    switch (k.picture->channels) {
        case 1:
            return fetch_channels<1>(k);
        case 2:
            return fetch_channels<2>(k);
        default:
            return fetch_channels<4>(k);
    }
}

void picture_size(const KernelArgs& k) {
    std::fill_n(k.out[0], k.count, std::bit_cast<float>(k.picture->width));
    std::fill_n(k.out[1], k.count, std::bit_cast<float>(k.picture->height));
}

template <int channels>
void copy_row(const KernelArgs& k) {
    const float* pixel =
        k.picture->data + channels * (static_cast<std::size_t>(k.y) * static_cast<std::size_t>(k.picture->width) +
                                      static_cast<std::size_t>(k.x));
    const std::size_t blocks = k.count / lane_block * lane_block;
    for (std::size_t i = 0; i < blocks; i += lane_block) part_row<channels>(pixel + channels * i, k, i);
    for (std::size_t i = blocks; i < k.count; ++i) {
        for (std::size_t c = 0; c < channels; ++c) k.out[c][i] = pixel[channels * i + c];
    }
}

void copy_bytes(const KernelArgs& k) {
    const PictureView& picture = *k.picture;
    const std::uint8_t* pixel =
        picture.bytes +
        4 * (static_cast<std::size_t>(k.y) * static_cast<std::size_t>(picture.width) + static_cast<std::size_t>(k.x));
    const float* colours = colour_numbers(picture.coding).data();
    const float* opacity = opacity_numbers().data();
    for (std::size_t i = 0; i < k.count; ++i, pixel += 4) {
        for (std::size_t c = 0; c < 3; ++c) k.out[c][i] = colours[pixel[c]];
        k.out[3][i] = opacity[pixel[3]];
    }
}

// A picture of the drawn size is just copied: sampling at pixel centres would give these very bits.
void read_here(const KernelArgs& k) {
    const PictureView& picture = *k.picture;
    if (picture.is_empty()) return black(k);
    // Drawn in blocks of two, the last column and row may be beyond the picture.
    const bool inside = static_cast<int>(k.count) <= picture.width - k.x && k.y < picture.height;
    if (inside && picture.width == k.grid_width && picture.height == k.grid_height) {
        if (picture.bytes != nullptr) return copy_bytes(k);
        if (picture.channels == 1) return copy_row<1>(k);
        return picture.channels == 2 ? copy_row<2>(k) : copy_row<4>(k);
    }
    constexpr std::size_t block = 64;
    HWY_ALIGN std::array<float, block> u{};
    HWY_ALIGN std::array<float, lane_block> v{};
    v.fill((static_cast<float>(k.y) + 0.5F) / static_cast<float>(k.grid_height));
    for (std::size_t i = 0; i < k.count; i += block) {
        KernelArgs part = k;
        part.count = std::min(block, k.count - i);
        part.x = k.x + static_cast<int>(i);
        for (std::size_t c = 0; c < 4; ++c) part.out[c] = k.out[c] + i;
        KernelArgs where = part;
        where.out[0] = u.data();
        uv_x(where);
        sample_strip(part, u.data(), 1, v.data(), 0);
    }
}

// Four strips as pixels of four channels.
void join_pixels(const std::array<const float*, 4>& parts, const std::array<std::size_t, 4>& strides, float* to,
                 std::size_t count) {
    const F d;
    const Input r{parts[0], strides[0]};
    const Input g{parts[1], strides[1]};
    const Input b{parts[2], strides[2]};
    const Input a{parts[3], strides[3]};
    for (std::size_t i = 0; i < count; i += hn::Lanes(d)) {
#if HWY_TARGET == HWY_SCALAR
        const std::array<const Input*, 4> inputs = {&r, &g, &b, &a};
        for (std::size_t c = 0; c < 4; ++c) to[4 * i + c] = inputs[c]->from[i * inputs[c]->stride];
#else
        hn::StoreInterleaved4(r.at(i), g.at(i), b.at(i), a.at(i), d, to + 4 * i);
#endif
    }
}

void fill_sampling(KernelSet& set) {
    set.join_pixels = join_pixels;
    const auto put = [&set](Op op, Kernel kernel) { set.kernels[static_cast<std::size_t>(op)] = kernel; };
    put(Op::uv_x, uv_x);
    put(Op::uv_y, uv_y);
    put(Op::pixel_x, pixel_x);
    put(Op::pixel_y, pixel_y);
    put(Op::sample, sample);
    put(Op::read_here, read_here);
    put(Op::sample_level, sample_level);
    put(Op::fetch, fetch);
    put(Op::picture_size, picture_size);
}

}  // namespace lacquer::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
#include "core/cpu/targets.h"
namespace lacquer {
std::vector<TargetFill> sampling_kernels() { return LACQUER_TARGETS(fill_sampling); }
}  // namespace lacquer
#endif
