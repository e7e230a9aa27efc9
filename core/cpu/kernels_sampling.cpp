// Where a pixel is, and reading pictures: core/picture/sample.h, step by step the same.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cpu/kernels_sampling.cpp"
#include <hwy/foreach_target.h>
// The order matters to Highway.
// clang-format off
#include <hwy/highway.h>
#include "core/cpu/strip-inl.h"
#include "core/cpu/taps-inl.h"
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
