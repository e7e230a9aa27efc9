// Compiled for AVX2, whatever the processor has besides.
#include "bench/by_hand-inl.h"
#include "bench/by_hand.h"

static_assert(HWY_STATIC_TARGET == HWY_AVX2, "the compiler's options give another instruction set");

namespace lacquer::bench::avx2 {

void draw_noise_vignette(Picture& out, float radius, float softness, WorkerPool& pool) {
    noise_vignette(out, radius, softness, pool);
}

}  // namespace lacquer::bench::avx2
