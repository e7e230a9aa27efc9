// Where a pixel is, and reading pictures: core/picture/sample.h, step by step the same.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cpu/kernels_sampling.cpp"
#include <hwy/foreach_target.h>
// clang-format off: the order matters to Highway
#include <hwy/highway.h>
#include "core/cpu/strip-inl.h"
// clang-format on

#include <algorithm>
#include <array>

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

#if HWY_TARGET == HWY_SCALAR
// One lane is all there is: a colour is four of them.
struct Colour {
    std::array<float, 4> parts;
};
HWY_INLINE Colour load_colour(const float* from) { return {{from[0], from[1], from[2], from[3]}}; }
HWY_INLINE Colour blend_taps(Colour a, Colour b, float fraction) {
    for (std::size_t c = 0; c < 4; ++c) a.parts[c] = a.parts[c] * (1.0F - fraction) + b.parts[c] * fraction;
    return a;
}
HWY_INLINE void store_colour(Colour colour, float* to) { std::copy(colour.parts.begin(), colour.parts.end(), to); }
#else
using F4 = hn::FixedTag<float, 4>;
using Colour = hn::Vec<F4>;
HWY_INLINE Colour load_colour(const float* from) { return hn::LoadU(F4(), from); }
HWY_INLINE Colour blend_taps(Colour a, Colour b, float fraction) {
    return hn::Add(hn::Mul(a, hn::Set(F4(), 1.0F - fraction)), hn::Mul(b, hn::Set(F4(), fraction)));
}
HWY_INLINE void store_colour(Colour colour, float* to) { hn::Store(colour, F4(), to); }
#endif

// Positions of a strip along one side of the picture: the two pixels, and how far between them.
struct Taps {
    HWY_ALIGN std::array<std::int32_t, lane_block> low;
    HWY_ALIGN std::array<std::int32_t, lane_block> high;
    HWY_ALIGN std::array<float, lane_block> fraction;
};

HWY_INLINE void find_taps(const float* positions, std::size_t stride, int size, Taps& taps) {
    const F d;
    const I di;
    const VF extent = number(static_cast<float>(size));
    const VF last = hn::Sub(extent, number(1.0F));
    for (std::size_t i = 0; i < lane_block; i += hn::Lanes(d)) {
        VF p = hn::Sub(hn::Mul(hn::Load(d, positions + i * stride), extent), number(0.5F));
        p = hn::Mul(hn::Floor(hn::Add(hn::Mul(p, number(256.0F)), number(0.5F))), number(1.0F / 256.0F));
        p = hn::IfThenElse(hn::Ge(p, number(0.0F)), p, number(0.0F));
        p = hn::IfThenElse(hn::Gt(p, last), last, p);
        const VI low = hn::ConvertTo(di, p);
        hn::Store(low, di, taps.low.data() + i);
        hn::Store(hn::Min(hn::Add(low, hn::Set(di, 1)), hn::Set(di, size - 1)), di, taps.high.data() + i);
        hn::Store(hn::Sub(p, hn::ConvertTo(d, low)), d, taps.fraction.data() + i);
    }
}

// With a fraction of 0 the second tap is not looked at: an infinite neighbour must not turn into NaN.
HWY_INLINE Colour row_colour(const float* row, std::int32_t low, std::int32_t high, float fraction) {
    const Colour left = load_colour(row + std::size_t{4} * static_cast<std::size_t>(low));
    if (fraction == 0.0F) return left;
    return blend_taps(left, load_colour(row + std::size_t{4} * static_cast<std::size_t>(high)), fraction);
}

void black(const KernelArgs& k) {
    for (std::size_t c = 0; c < 4; ++c) std::fill_n(k.out[c], k.count, c == 3 ? 1.0F : 0.0F);
}

void sample_strip(const KernelArgs& k, const float* u, std::size_t u_stride, const float* v, std::size_t v_stride) {
    const PictureView& picture = *k.picture;
    if (picture.data == nullptr) return black(k);
    const std::size_t row_floats = std::size_t{4} * static_cast<std::size_t>(picture.width);
    Taps across;
    Taps down;
    HWY_ALIGN std::array<float, 4 * lane_block> colours;
    for (std::size_t i = 0; i < k.count; i += lane_block) {
        find_taps(u + i * u_stride, u_stride, picture.width, across);
        find_taps(v + i * v_stride, v_stride, picture.height, down);
        for (std::size_t n = 0; n < lane_block; ++n) {
            const float* top = picture.data + row_floats * static_cast<std::size_t>(down.low[n]);
            Colour colour = row_colour(top, across.low[n], across.high[n], across.fraction[n]);
            if (down.fraction[n] != 0.0F) {
                const float* bottom = picture.data + row_floats * static_cast<std::size_t>(down.high[n]);
                colour = blend_taps(colour, row_colour(bottom, across.low[n], across.high[n], across.fraction[n]),
                                    down.fraction[n]);
            }
            store_colour(colour, colours.data() + 4 * n);
        }
        for (std::size_t c = 0; c < 4; ++c) {
            for (std::size_t n = 0; n < lane_block; ++n) k.out[c][i + n] = colours[4 * n + c];
        }
    }
}

void sample(const KernelArgs& k) { sample_strip(k, k.in[0], k.stride[0], k.in[1], k.stride[1]); }

// A picture of the drawn size is just copied: sampling at pixel centres would give these very bits.
void read_here(const KernelArgs& k) {
    const PictureView& picture = *k.picture;
    if (picture.data == nullptr) return black(k);
    if (picture.width == k.grid_width && picture.height == k.grid_height) {
        const float* pixel = picture.data + 4 * (static_cast<std::size_t>(k.y) * static_cast<std::size_t>(picture.width) +
                                                 static_cast<std::size_t>(k.x));
        for (std::size_t i = 0; i < k.count; ++i) {
            for (std::size_t c = 0; c < 4; ++c) k.out[c][i] = pixel[4 * i + c];
        }
        return;
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

void fill_sampling(KernelSet& set) {
    const auto put = [&set](Op op, Kernel kernel) { set.kernels[static_cast<std::size_t>(op)] = kernel; };
    put(Op::uv_x, uv_x);
    put(Op::uv_y, uv_y);
    put(Op::pixel_x, pixel_x);
    put(Op::pixel_y, pixel_y);
    put(Op::sample, sample);
    put(Op::read_here, read_here);
}

}  // namespace lacquer::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
#include "core/cpu/targets.h"
namespace lacquer {
std::vector<TargetFill> sampling_kernels() { return LACQUER_TARGETS(fill_sampling); }
}  // namespace lacquer
#endif
