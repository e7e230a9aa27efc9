// Compiled for the very processor that it runs on: the fastest that a person would write without changing the result.
#include "bench/by_hand.h"

#include "bench/by_hand-inl.h"

namespace lacquer::bench {

void draw_noise_vignette(Picture& out, float radius, float softness, WorkerPool& pool) {
    noise_vignette(out, radius, softness, pool);
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
