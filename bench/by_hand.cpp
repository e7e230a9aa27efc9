// Compiled for the very processor that it runs on: the fastest that a person would write without changing the result.
#include "bench/by_hand.h"

#include <hwy/highway.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "core/lang/noise.h"

namespace lacquer::bench {

namespace hn = hwy::HWY_NAMESPACE;

namespace {

using F = hn::ScalableTag<float>;
using I = hn::RebindToSigned<F>;
using U = hn::RebindToUnsigned<F>;
using VF = hn::Vec<F>;
using VU = hn::Vec<U>;

constexpr int band_rows = 16;

// Calls draw(y) for all rows, in bands on the pool.
template <class Draw>
void each_row(const Picture& out, WorkerPool& pool, Draw draw) {
    pool.run((out.height + band_rows - 1) / band_rows, [&](int band) {
        for (int y = band * band_rows; y < std::min(out.height, (band + 1) * band_rows); ++y) draw(y);
    });
}

VF number(float x) { return hn::Set(F(), x); }
VU word(std::uint32_t w) { return hn::Set(U(), w); }

VU hashed(VU v) {
    const VU state = hn::Add(hn::Mul(v, word(747796405U)), word(2891336453U));
    const VU mixed =
        hn::Mul(hn::Xor(hn::Shr(state, hn::Add(hn::ShiftRight<28>(state), word(4U))), state), word(277803737U));
    return hn::Xor(hn::ShiftRight<22>(mixed), mixed);
}

VF slope(VU hash, VF x, VF y) {
    const auto steep = hn::RebindMask(F(), hn::Ne(hn::And(hash, word(4U)), word(0U)));
    const VF u = hn::IfThenElse(steep, y, x);
    const VF v = hn::Mul(hn::IfThenElse(steep, x, y), number(0.41421356F));
    const VU flip_u = hn::ShiftLeft<31>(hash);
    const VU flip_v = hn::ShiftLeft<30>(hn::And(hash, word(2U)));
    return hn::Add(hn::Xor(u, hn::BitCast(F(), flip_u)), hn::Xor(v, hn::BitCast(F(), flip_v)));
}

VF blended(VF t, VF a, VF b) { return hn::Add(a, hn::Mul(t, hn::Sub(b, a))); }

// What the noise of a row has in common.
struct NoiseRow {
    std::uint32_t hash0;
    std::uint32_t hash1;
    float part;
    float faded;
};

NoiseRow noise_row(float y) {
    const std::uint32_t cell = lattice(y);
    const float part = y - std::floor(y);
    return {pcg(cell), pcg(cell + 1), part, fade(part)};
}

VF gradient_noise(VF x, const NoiseRow& row) {
    const VF floor = hn::Floor(x);
    const VU cell = hn::BitCast(U(), hn::ConvertTo(I(), floor));
    const VU next = hn::Add(cell, word(1U));
    const VF t = hn::Sub(x, floor);
    const VF t1 = hn::Sub(t, number(1.0F));
    const VF steep = hn::Add(hn::Mul(t, hn::Sub(hn::Mul(t, number(6.0F)), number(15.0F))), number(10.0F));
    const VF faded = hn::Mul(hn::Mul(hn::Mul(t, t), t), steep);
    const VF y0 = number(row.part);
    const VF y1 = number(row.part - 1.0F);
    const VF top = blended(faded, slope(hashed(hn::Add(cell, word(row.hash0))), t, y0),
                           slope(hashed(hn::Add(next, word(row.hash0))), t1, y0));
    const VF bottom = blended(faded, slope(hashed(hn::Add(cell, word(row.hash1))), t, y1),
                              slope(hashed(hn::Add(next, word(row.hash1))), t1, y1));
    const VF n = hn::Add(hn::Mul(blended(number(row.faded), top, bottom), number(gradient_scale_2d)), number(0.5F));
    return hn::Min(hn::Max(n, number(0.0F)), number(0.99999994F));
}

VF smoothstep(VF edge0, VF edge1, VF x) {
    const VF t = hn::Min(hn::Max(hn::Div(hn::Sub(x, edge0), hn::Sub(edge1, edge0)), number(0.0F)), number(1.0F));
    return hn::Mul(hn::Mul(t, t), hn::Sub(number(3.0F), hn::Mul(number(2.0F), t)));
}

VF places(int x, int width) {
    const F d;
    const VF columns = hn::Add(hn::Iota(d, 0.0F), number(static_cast<float>(x) + 0.5F));
    return hn::Div(columns, number(static_cast<float>(width)));
}

}  // namespace

void draw_noise_vignette(Picture& out, float radius, float softness, WorkerPool& pool) {
    const F d;
    const int lanes = static_cast<int>(hn::Lanes(d));
    each_row(out, pool, [&](int y) {
        const float v = (static_cast<float>(y) + 0.5F) / static_cast<float>(out.height);
        const float dy = v * 2 - 1;
        const NoiseRow row = noise_row(v * 6);
        for (int x = 0; x < out.width; x += lanes) {
            const VF u = places(x, out.width);
            const VF dx = hn::Sub(hn::Mul(u, number(2.0F)), number(1.0F));
            const VF noise = gradient_noise(hn::Mul(u, number(6.0F)), row);
            const VF away = hn::Sqrt(hn::Add(hn::Mul(dx, dx), number(dy * dy)));
            const VF reach = hn::Add(away, hn::Mul(hn::Sub(noise, number(0.5F)), number(0.4F)));
            hn::StoreU(smoothstep(number(radius), number(radius + softness), reach), d, out.at(x, y));
        }
    });
}

void draw_dissolve(Picture& out, const Picture& scene, float gone, float rim, WorkerPool& pool) {
    const F d;
    const int lanes = static_cast<int>(hn::Lanes(d));
    each_row(out, pool, [&](int y) {
        const NoiseRow row = noise_row((static_cast<float>(y) + 0.5F) / static_cast<float>(out.height) * 8);
        for (int x = 0; x < out.width; x += lanes) {
            const VF cloud = gradient_noise(hn::Mul(places(x, out.width), number(8.0F)), row);
            const VF healed = smoothstep(number(gone), number(gone + rim), cloud);
            const VF burnt = hn::Sub(number(1.0F), healed);
            VF r;
            VF g;
            VF b;
            VF a;
            hn::LoadInterleaved4(d, scene.at(x, y), r, g, b, a);
            const auto mixed = [&](float glow, VF colour) {
                return hn::Add(hn::Mul(number(glow), burnt), hn::Mul(colour, healed));
            };
            const VF opacity = hn::IfThenElseZero(hn::Ge(cloud, number(gone)), a);
            hn::StoreInterleaved4(mixed(3.0F, r), mixed(1.2F, g), mixed(0.2F, b), opacity, d, out.at(x, y));
        }
    });
}

void draw_ring_blur(Picture& out, const Picture& scene, float radius, WorkerPool& pool) {
    using F4 = hn::FixedTag<float, 4>;
    using Colour = hn::Vec<F4>;
    const F4 d;
    std::array<float, ring_taps> across{};
    std::array<float, ring_taps> along{};
    for (std::size_t i = 0; i < ring_taps; ++i) {
        const float angle = static_cast<float>(i) * 0.12566371F;
        across[i] = std::cos(angle) * radius;
        along[i] = std::sin(angle) * radius;
    }
    const auto rounded = [](float p, int size) {
        p = std::floor(p * 256.0F + 0.5F) * (1.0F / 256.0F);
        return std::min(std::max(p, 0.0F), static_cast<float>(size) - 1.0F);
    };
    each_row(out, pool, [&](int y) {
        for (int x = 0; x < out.width; ++x) {
            Colour sum = hn::Zero(d);
            for (std::size_t i = 0; i < ring_taps; ++i) {
                const float px = rounded(static_cast<float>(x) + across[i], scene.width);
                const float py = rounded(static_cast<float>(y) + along[i], scene.height);
                const int left = static_cast<int>(px);
                const int upper = static_cast<int>(py);
                const int right = std::min(left + 1, scene.width - 1);
                const int lower = std::min(upper + 1, scene.height - 1);
                const Colour fx = hn::Set(d, px - static_cast<float>(left));
                const Colour fy = hn::Set(d, py - static_cast<float>(upper));
                const auto mixed = [&](Colour a, Colour b, Colour f) {
                    return hn::Add(hn::Mul(a, hn::Sub(hn::Set(d, 1.0F), f)), hn::Mul(b, f));
                };
                const Colour top = mixed(hn::LoadU(d, scene.at(left, upper)), hn::LoadU(d, scene.at(right, upper)), fx);
                const Colour bottom =
                    mixed(hn::LoadU(d, scene.at(left, lower)), hn::LoadU(d, scene.at(right, lower)), fx);
                sum = hn::Add(sum, mixed(top, bottom, fy));
            }
            hn::StoreU(hn::Mul(sum, hn::Set(d, 1.0F / ring_taps)), d, out.at(x, y));
        }
    });
}

void draw_soft_discs(Picture& out, const std::vector<HandDrop>& discs, WorkerPool& pool) {
    constexpr int stripe = 32;
    std::fill(out.data.begin(), out.data.end(), 0.0F);
    pool.run((out.height + stripe - 1) / stripe, [&](int nth) {
        const int top = nth * stripe;
        const int bottom = std::min(out.height, top + stripe);
        for (const HandDrop& disc : discs) {
            const int first = std::max(top, static_cast<int>(std::floor(disc.y - disc.radius)));
            const int last = std::min(bottom - 1, static_cast<int>(std::ceil(disc.y + disc.radius)));
            const int left = std::max(0, static_cast<int>(std::floor(disc.x - disc.radius)));
            const int right = std::min(out.width - 1, static_cast<int>(std::ceil(disc.x + disc.radius)));
            const float scale = 1 / disc.radius;
            for (int y = first; y <= last; ++y) {
                const float v = (static_cast<float>(y) + 0.5F - disc.y) * scale;
                for (int x = left; x <= right; ++x) {
                    const float u = (static_cast<float>(x) + 0.5F - disc.x) * scale;
                    const float t = std::max(0.0F, 1 - u * u - v * v);
                    const float opacity = t * t;
                    float* pixel = out.at(x, y);
                    for (int k = 0; k < 4; ++k) pixel[k] = opacity + pixel[k] * (1 - opacity);
                }
            }
        }
    });
}

}  // namespace lacquer::bench
