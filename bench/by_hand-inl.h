// What effects that are written by hand are made of, compiled for one processor by whoever includes this.
#pragma once

#include <hwy/highway.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "core/base/worker_pool.h"
#include "core/lang/noise.h"
#include "core/picture/picture.h"

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

void noise_vignette(Picture& out, float radius, float softness, WorkerPool& pool) {
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

}  // namespace

}  // namespace lacquer::bench
