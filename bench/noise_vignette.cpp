#include "bench/noise_vignette.h"

#include <cmath>

#include "core/lang/noise.h"

namespace lacquer::bench {

void draw_noise_vignette(Picture& out, float radius, float softness, WorkerPool& pool) {
    constexpr int band = 16;
    pool.run((out.height + band - 1) / band, [&](int piece) {
        for (int y = piece * band; y < std::min(out.height, (piece + 1) * band); ++y) {
            const float v = (static_cast<float>(y) + 0.5F) / static_cast<float>(out.height);
            for (int x = 0; x < out.width; ++x) {
                const float u = (static_cast<float>(x) + 0.5F) / static_cast<float>(out.width);
                const float dx = u * 2 - 1;
                const float dy = v * 2 - 1;
                const auto corner = [](std::uint32_t i, std::uint32_t j) { return lattice_hash(i, j); };
                const float noise = unit_noise(gradient_noise_2d(u * 6, v * 6, corner), gradient_scale_2d);
                const float reach = std::sqrt(dx * dx + dy * dy) + (noise - 0.5F) * 0.4F;
                const float t = std::min(std::max((reach - radius) / softness, 0.0F), 1.0F);
                *out.at(x, y) = t * t * (3 - 2 * t);
            }
        }
    });
}

}  // namespace lacquer::bench
