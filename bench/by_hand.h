// Three effects written by hand with vector instructions, to compare the strip machine with.
#pragma once

#include <vector>

#include "core/base/worker_pool.h"
#include "core/picture/picture.h"

namespace lacquer::bench {

inline constexpr const char* noise_vignette_formula =
    "smoothstep(radius, radius + softness, length(uv * 2 - 1) + (gradient_noise(uv * 6) - 0.5) * 0.4)";

/// `noise_vignette_formula`, one channel.
void draw_noise_vignette(Picture& out, float radius, float softness, WorkerPool& pool);
namespace avx2 {
/// The same, compiled for AVX2 whatever the processor has besides.
void draw_noise_vignette(Picture& out, float radius, float softness, WorkerPool& pool);
}  // namespace avx2

inline constexpr const char* dissolve_formula =
    "float cloud = gradient_noise(uv * 8);\n"
    "float healed = smoothstep(gone, gone + rim, cloud);\n"
    "return vec4(mix(vec3(3, 1.2, 0.2), scene.rgb, healed), scene.a * step(gone, cloud));";

/// `dissolve_formula`, four channels. Both pictures have the same size.
void draw_dissolve(Picture& out, const Picture& scene, float gone, float rim, WorkerPool& pool);

inline constexpr int ring_taps = 50;
inline constexpr const char* ring_blur_formula =
    "vec4 sum = vec4(0);\n"
    "for (int i = 0; i < 50; i++) {\n"
    "    float angle = float(i) * 0.12566371;\n"
    "    sum += texture(scene, uv + vec2(cos(angle), sin(angle)) * radius * pixel_size);\n"
    "}\n"
    "return sum / 50;";

/// `ring_blur_formula`, four channels, linear between pixels: one pixel after the other, a colour a vector.
void draw_ring_blur(Picture& out, const Picture& scene, float radius, WorkerPool& pool);

/// A soft white disc, in pixels.
struct HandDrop {
    float x = 0;
    float y = 0;
    float radius = 0;
};

/// Soft discs over one another on a clear picture of four channels, in stripes of rows.
void draw_soft_discs(Picture& out, const std::vector<HandDrop>& discs, WorkerPool& pool);

}  // namespace lacquer::bench
