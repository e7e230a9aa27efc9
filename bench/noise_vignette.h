// A noise vignette written by hand, for comparison with the strip machine.
#pragma once

#include "core/base/worker_pool.h"
#include "core/picture/picture.h"

namespace lacquer::bench {

/// The same formula as `noise_vignette_formula`, as plain loops on the pool.
void draw_noise_vignette(Picture& out, float radius, float softness, WorkerPool& pool);

inline constexpr const char* noise_vignette_formula =
    "smoothstep(radius, radius + softness, length(uv * 2 - 1) + (gradient_noise(uv * 6) - 0.5) * 0.4)";

}  // namespace lacquer::bench
