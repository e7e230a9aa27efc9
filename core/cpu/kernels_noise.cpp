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

// Signs by the two lowest bits of a hash.
HWY_INLINE VF signed_by_first(VF value, VU hash) { return hn::Xor(value, hn::BitCast(F(), hn::ShiftLeft<31>(hash))); }
HWY_INLINE VF signed_by_second(VF value, VU hash) {
    const VU sign = hn::And(hn::ShiftLeft<30>(hash), word(0x80000000U));
    return hn::Xor(value, hn::BitCast(F(), sign));
}

HWY_INLINE MF is_set(VU hash, std::uint32_t bit) { return hn::RebindMask(F(), hn::TestBit(hash, word(bit))); }

// Eight directions by the three lowest bits of a hash. Times 1 and then added, a number keeps its bits, so looking the
// directions up gives what choosing between the coordinates gives.
HWY_INLINE VF slope(VU hash, VF x, VF y) {
#if HWY_TARGET == HWY_AVX2 || HWY_TARGET == HWY_AVX3
    const F d;
    constexpr float low = 0.41421356F;
    alignas(64) static constexpr float across[16] = {1, -1, 1, -1, low, low, -low, -low,
                                                     1, -1, 1, -1, low, low, -low, -low};
    alignas(64) static constexpr float along[16] = {low, low, -low, -low, 1, -1, 1, -1,
                                                    low, low, -low, -low, 1, -1, 1, -1};
    const auto which = hn::IndicesFromVec(d, hn::BitCast(I(), hn::And(hash, word(7U))));
    const VF gx = hn::TableLookupLanes(hn::Load(d, across), which);
    const VF gy = hn::TableLookupLanes(hn::Load(d, along), which);
    return hn::Add(hn::Mul(gx, x), hn::Mul(gy, y));
#else
    const MF steep = is_set(hash, 4U);
    const VF u = hn::IfThenElse(steep, y, x);
    const VF v = hn::Mul(hn::IfThenElse(steep, x, y), number(0.41421356F));
    return hn::Add(signed_by_first(u, hash), signed_by_second(v, hash));
#endif
}

HWY_INLINE VF slope(VU hash, VF x, VF y, VF z) {
    const VU h = hn::And(hash, word(15U));
    const VF u = hn::IfThenElse(is_set(hash, 8U), y, x);
    const MF low = hn::RebindMask(F(), hn::Eq(hn::And(h, word(12U)), word(0U)));
    const MF edge = hn::RebindMask(F(), hn::Eq(hn::And(h, word(13U)), word(12U)));
    const VF v = hn::IfThenElse(low, y, hn::IfThenElse(edge, x, z));
    return hn::Add(signed_by_first(u, hash), signed_by_second(v, hash));
}

HWY_INLINE VF unit_range(VF signed_noise, float scale) {
    const VF n = hn::Add(hn::Mul(signed_noise, number(scale)), number(0.5F));
    const VF least = hn::IfThenElse(hn::Lt(n, number(0.0F)), number(0.0F), n);
    const VF below_one = number(0.99999994F);
    return hn::IfThenElse(hn::Gt(least, below_one), below_one, least);
}

// What a row of a noise in the plane has in common: hashes of its two lattice rows, and where between them it lies.
struct NoiseRow {
    VU hash0;
    VU hash1;
    VF part;
    VF faded;
};

HWY_INLINE NoiseRow noise_row(VF y, VU depth) {
    const Cell cell = cell_of(y);
    return {hashed(hn::Add(cell.low, depth)), hashed(hn::Add(cell.high, depth)), cell.part, cell.faded};
}
HWY_INLINE NoiseRow noise_row(VF y) { return noise_row(y, word(0U)); }

// The same for a noise in space, of its two slabs.
struct NoiseBar {
    NoiseRow near;
    NoiseRow far;
    VF part;
    VF faded;
};

HWY_INLINE NoiseBar noise_bar(VF y, VF z) {
    const Cell cell = cell_of(z);
    return {noise_row(y, hashed(cell.low)), noise_row(y, hashed(cell.high)), cell.part, cell.faded};
}

// Hashes of the four lattice points around a place: of the upper row and the lower.
struct Corners {
    VU left0;
    VU right0;
    VU left1;
    VU right1;
};

HWY_INLINE Corners corners_of(const Cell& cx, const NoiseRow& row) {
    return {hashed(hn::Add(cx.low, row.hash0)), hashed(hn::Add(cx.high, row.hash0)), hashed(hn::Add(cx.low, row.hash1)),
            hashed(hn::Add(cx.high, row.hash1))};
}

// The eight in space.
struct Corners3 {
    Corners near;
    Corners far;
};

HWY_INLINE Corners3 corners_of(const Cell& cx, const NoiseBar& bar) {
    return {corners_of(cx, bar.near), corners_of(cx, bar.far)};
}

HWY_INLINE VF gradient_at(const Cell& cx, const NoiseRow& row, const Corners& corners) {
    const VF x1 = hn::Sub(cx.part, number(1.0F));
    const VF y1 = hn::Sub(row.part, number(1.0F));
    const VF top = blended(cx.faded, slope(corners.left0, cx.part, row.part), slope(corners.right0, x1, row.part));
    const VF bottom = blended(cx.faded, slope(corners.left1, cx.part, y1), slope(corners.right1, x1, y1));
    return unit_range(blended(row.faded, top, bottom), gradient_scale_2d);
}

HWY_INLINE VF gradient_slab(const Cell& cx, const NoiseRow& row, const Corners& corners, VF dz) {
    const VF x1 = hn::Sub(cx.part, number(1.0F));
    const VF y1 = hn::Sub(row.part, number(1.0F));
    const VF top =
        blended(cx.faded, slope(corners.left0, cx.part, row.part, dz), slope(corners.right0, x1, row.part, dz));
    const VF bottom = blended(cx.faded, slope(corners.left1, cx.part, y1, dz), slope(corners.right1, x1, y1, dz));
    return blended(row.faded, top, bottom);
}

HWY_INLINE VF gradient_at(const Cell& cx, const NoiseBar& bar, const Corners3& corners) {
    const VF near = gradient_slab(cx, bar.near, corners.near, bar.part);
    const VF far = gradient_slab(cx, bar.far, corners.far, hn::Sub(bar.part, number(1.0F)));
    return unit_range(blended(bar.faded, near, far), gradient_scale_3d);
}

HWY_INLINE VF value_slab(const Cell& cx, const NoiseRow& row, const Corners& corners) {
    const VF top = blended(cx.faded, unit(corners.left0), unit(corners.right0));
    const VF bottom = blended(cx.faded, unit(corners.left1), unit(corners.right1));
    return blended(row.faded, top, bottom);
}

HWY_INLINE VF value_at(const Cell& cx, const NoiseRow& row, const Corners& corners) {
    return unit_range(hn::Sub(value_slab(cx, row, corners), number(0.5F)), 1.0F);
}

HWY_INLINE VF value_at(const Cell& cx, const NoiseBar& bar, const Corners3& corners) {
    const VF near = value_slab(cx, bar.near, corners.near);
    const VF n = blended(bar.faded, near, value_slab(cx, bar.far, corners.far));
    return unit_range(hn::Sub(n, number(0.5F)), 1.0F);
}

struct GradientNoise {
    template <class Rest>
    HWY_INLINE VF operator()(VF x, const Rest& rest) const {
        const Cell cell = cell_of(x);
        return gradient_at(cell, rest, corners_of(cell, rest));
    }
    template <class Rest, class Around>
    HWY_INLINE VF operator()(const Cell& cell, const Rest& rest, const Around& corners) const {
        return gradient_at(cell, rest, corners);
    }
};
struct ValueNoise {
    template <class Rest>
    HWY_INLINE VF operator()(VF x, const Rest& rest) const {
        const Cell cell = cell_of(x);
        return value_at(cell, rest, corners_of(cell, rest));
    }
    template <class Rest, class Around>
    HWY_INLINE VF operator()(const Cell& cell, const Rest& rest, const Around& corners) const {
        return value_at(cell, rest, corners);
    }
};

HWY_INLINE VF gradient_2(VF x, VF y) { return GradientNoise()(x, noise_row(y)); }
HWY_INLINE VF gradient_3(VF x, VF y, VF z) { return GradientNoise()(x, noise_bar(y, z)); }
HWY_INLINE VF value_2(VF x, VF y) { return ValueNoise()(x, noise_row(y)); }
HWY_INLINE VF value_3(VF x, VF y, VF z) { return ValueNoise()(x, noise_bar(y, z)); }

// What a coordinate comes to, as three strips: its cell, the place within it, and that place faded.
void noise_place(const KernelArgs& k) {
    const F d;
    for (std::size_t i = 0; i < k.count; i += hn::Lanes(d)) {
        const Cell cell = cell_of(hn::Load(d, k.in[0] + i * k.stride[0]));
        hn::Store(hn::BitCast(d, cell.low), d, k.out[0] + i);
        hn::Store(cell.part, d, k.out[1] + i);
        hn::Store(cell.faded, d, k.out[2] + i);
    }
}

// Where the first coordinate comes from: itself, or what noise_place has made of it. `inputs` says how many that takes.
struct PlainPlace {
    static constexpr std::size_t inputs = 1;
    explicit PlainPlace(const KernelArgs& k) : x(input(k, 0)) {}
    HWY_INLINE Cell cell(std::size_t i) const { return cell_of(x.at(i)); }
    Input x;
};
struct MadePlace {
    static constexpr std::size_t inputs = 3;
    explicit MadePlace(const KernelArgs& k) : low(input(k, 0)), part(input(k, 1)), faded(input(k, 2)) {}
    HWY_INLINE Cell cell(std::size_t i) const {
        const VU bits = hn::BitCast(U(), low.at(i));
        return {bits, hn::Add(bits, word(1U)), part.at(i), faded.at(i)};
    }
    Input low;
    Input part;
    Input faded;
};

// All along the strip the first coordinate alone changes. Where it stays within its cell from one vector to the next,
// so do the hashes around it.
template <class Place, class Noise, class Rest>
HWY_INLINE void noise_along(const KernelArgs& k, Noise noise, const Rest& rest) {
    const Place place(k);
    VU known = place.cell(0).low;
    auto corners = corners_of(place.cell(0), rest);
    along_strip(k, [&](std::size_t i) {
        const Cell cell = place.cell(i);
        if (!hn::AllTrue(U(), hn::Eq(cell.low, known))) {
            corners = corners_of(cell, rest);
            known = cell.low;
        }
        return noise(cell, rest, corners);
    });
}

template <class Place, class Noise>
HWY_INLINE void noise_strip_2(const KernelArgs& k, Noise noise) {
    const Input y = input(k, Place::inputs);
    if (y.stride == 0) return noise_along<Place>(k, noise, noise_row(y.at(0)));
    const Place place(k);
    along_strip(k, [&](std::size_t i) {
        const Cell cell = place.cell(i);
        const NoiseRow row = noise_row(y.at(i));
        return noise(cell, row, corners_of(cell, row));
    });
}

template <class Place, class Noise>
HWY_INLINE void noise_strip_3(const KernelArgs& k, Noise noise) {
    const Input y = input(k, Place::inputs);
    const Input z = input(k, Place::inputs + 1);
    if (y.stride == 0 && z.stride == 0) return noise_along<Place>(k, noise, noise_bar(y.at(0), z.at(0)));
    const Place place(k);
    along_strip(k, [&](std::size_t i) {
        const Cell cell = place.cell(i);
        const NoiseBar bar = noise_bar(y.at(i), z.at(i));
        return noise(cell, bar, corners_of(cell, bar));
    });
}

HWY_INLINE VF below_one(VF n) {
    const VF most = number(0.99999994F);
    return hn::IfThenElse(hn::Gt(n, most), most, n);
}

HWY_INLINE VF from_bits(VU bits, float scale) {
    return hn::Mul(hn::ConvertTo(F(), hn::BitCast(I(), bits)), number(scale));
}

// From the place within its cell to a point in a neighbouring one.
HWY_INLINE VF towards(int cell, VF point, VF part) {
    return hn::Sub(hn::Add(number(static_cast<float>(cell)), point), part);
}

HWY_INLINE VF cellular_2(VF x, VF y) {
    const VF floor_x = floored(x);
    const VF floor_y = floored(y);
    const VU ix = lattice_word(floor_x);
    const VU iy = lattice_word(floor_y);
    const VF fx = hn::Sub(x, floor_x);
    const VF fy = hn::Sub(y, floor_y);
    VF nearest = number(1.0F);
    LACQUER_KEEP_LOOP
    for (int j = -1; j <= 1; ++j) {
        const VU row = hashed(hn::Add(iy, word(static_cast<std::uint32_t>(j))));
        LACQUER_KEEP_LOOP
        for (int i = -1; i <= 1; ++i) {
            const VU hash = hashed(hn::Add(hn::Add(ix, word(static_cast<std::uint32_t>(i))), row));
            const VF dx = towards(i, from_bits(hn::ShiftRight<16>(hash), 1.0F / 65536), fx);
            const VF dy = towards(j, from_bits(hn::And(hash, word(0xFFFFU)), 1.0F / 65536), fy);
            nearest = smaller(nearest, hn::Add(hn::Mul(dx, dx), hn::Mul(dy, dy)));
        }
    }
    return below_one(hn::Sqrt(nearest));
}

HWY_INLINE VF cellular_3(VF x, VF y, VF z) {
    const VF floor_x = floored(x);
    const VF floor_y = floored(y);
    const VF floor_z = floored(z);
    const VU ix = lattice_word(floor_x);
    const VU iy = lattice_word(floor_y);
    const VU iz = lattice_word(floor_z);
    const VF fx = hn::Sub(x, floor_x);
    const VF fy = hn::Sub(y, floor_y);
    const VF fz = hn::Sub(z, floor_z);
    VF nearest = number(1.0F);
    LACQUER_KEEP_LOOP
    for (int k = -1; k <= 1; ++k) {
        const VU slab = hashed(hn::Add(iz, word(static_cast<std::uint32_t>(k))));
        LACQUER_KEEP_LOOP
        for (int j = -1; j <= 1; ++j) {
            const VU row = hashed(hn::Add(hn::Add(iy, word(static_cast<std::uint32_t>(j))), slab));
            LACQUER_KEEP_LOOP
            for (int i = -1; i <= 1; ++i) {
                const VU hash = hashed(hn::Add(hn::Add(ix, word(static_cast<std::uint32_t>(i))), row));
                const VU middle = hn::And(hn::ShiftRight<10>(hash), word(0x7FFU));
                const VF dx = towards(i, from_bits(hn::ShiftRight<21>(hash), 1.0F / 2048), fx);
                const VF dy = towards(j, from_bits(middle, 1.0F / 2048), fy);
                const VF dz = towards(k, from_bits(hn::And(hash, word(0x3FFU)), 1.0F / 1024), fz);
                const VF flat = hn::Add(hn::Mul(dx, dx), hn::Mul(dy, dy));
                nearest = smaller(nearest, hn::Add(flat, hn::Mul(dz, dz)));
            }
        }
    }
    return below_one(hn::Sqrt(nearest));
}

// `noise(scale, shift)` gives an octave.
template <class Noise>
HWY_INLINE VF fractal(VF octaves, Noise noise) {
    const VF one = number(1.0F);
    const VF most = number(static_cast<float>(max_octaves));
    const VF wanted = hn::IfThenElse(hn::Gt(octaves, one), hn::IfThenElse(hn::Gt(octaves, most), most, octaves), one);
    VF sum = number(0.0F);
    VF weights = number(0.0F);
    float weight = 1;
    float scale = 1;
    LACQUER_KEEP_LOOP
    for (int k = 0; k < max_octaves; ++k) {
        const VF left = hn::Sub(wanted, number(static_cast<float>(k)));
        const MF counts = hn::Gt(left, number(0.0F));
        if (hn::AllFalse(F(), counts)) break;
        const VF share = hn::Mul(number(weight), hn::IfThenElse(hn::Gt(left, one), one, left));
        const VF octave = noise(number(scale), number(static_cast<float>(k) * octave_shift));
        sum = hn::IfThenElse(counts, hn::Add(sum, hn::Mul(share, octave)), sum);
        weights = hn::IfThenElse(counts, hn::Add(weights, share), weights);
        weight *= 0.5F;
        scale *= 2.0F;
    }
    return below_one(hn::Div(sum, weights));
}

template <VF (*Noise)(VF, VF)>
HWY_INLINE VF fractal_2(VF x, VF y, VF octaves) {
    return fractal(octaves, [&](VF scale, VF shift) {
        return Noise(hn::Add(hn::Mul(x, scale), shift), hn::Add(hn::Mul(y, scale), shift));
    });
}

template <VF (*Noise)(VF, VF, VF)>
HWY_INLINE VF fractal_3(VF x, VF y, VF z, VF octaves) {
    return fractal(octaves, [&](VF scale, VF shift) {
        return Noise(hn::Add(hn::Mul(x, scale), shift), hn::Add(hn::Mul(y, scale), shift),
                     hn::Add(hn::Mul(z, scale), shift));
    });
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
    put(Op::noise_place, noise_place);
    put(Op::value_noise_2, [](Args k) { noise_strip_2<PlainPlace>(k, ValueNoise()); });
    put(Op::value_noise_3, [](Args k) { noise_strip_3<PlainPlace>(k, ValueNoise()); });
    put(Op::gradient_noise_2, [](Args k) { noise_strip_2<PlainPlace>(k, GradientNoise()); });
    put(Op::gradient_noise_3, [](Args k) { noise_strip_3<PlainPlace>(k, GradientNoise()); });
    put(Op::value_placed_2, [](Args k) { noise_strip_2<MadePlace>(k, ValueNoise()); });
    put(Op::value_placed_3, [](Args k) { noise_strip_3<MadePlace>(k, ValueNoise()); });
    put(Op::gradient_placed_2, [](Args k) { noise_strip_2<MadePlace>(k, GradientNoise()); });
    put(Op::gradient_placed_3, [](Args k) { noise_strip_3<MadePlace>(k, GradientNoise()); });
    put(Op::cellular_noise_2, [](Args k) { two_inputs(k, [](VF x, VF y) { return cellular_2(x, y); }); });
    put(Op::cellular_noise_3, [](Args k) { three_inputs(k, [](VF x, VF y, VF z) { return cellular_3(x, y, z); }); });
    put(Op::fractal_value_2, [](Args k) { three_inputs(k, fractal_2<value_2>); });
    put(Op::fractal_value_3, [](Args k) { four_inputs(k, fractal_3<value_3>); });
    put(Op::fractal_gradient_2, [](Args k) { three_inputs(k, fractal_2<gradient_2>); });
    put(Op::fractal_gradient_3, [](Args k) { four_inputs(k, fractal_3<gradient_3>); });
    put(Op::fractal_cellular_2, [](Args k) { three_inputs(k, fractal_2<cellular_2>); });
    put(Op::fractal_cellular_3, [](Args k) { four_inputs(k, fractal_3<cellular_3>); });
}

}  // namespace lacquer::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
#include "core/cpu/targets.h"
namespace lacquer {
std::vector<TargetFill> noise_kernels() { return LACQUER_TARGETS(fill_noise); }
}  // namespace lacquer
#endif
