// The list of instruction sets for which a file of kernels was compiled. Included after the kernels, under HWY_ONCE.
#pragma once

#include <hwy/targets.h>

#if HWY_TARGETS & HWY_AVX3
#define LACQUER_AVX3(fill) {"AVX3", HWY_AVX3, &N_AVX3::fill},
#else
#define LACQUER_AVX3(fill)
#endif
#if HWY_TARGETS & HWY_AVX2
#define LACQUER_AVX2(fill) {"AVX2", HWY_AVX2, &N_AVX2::fill},
#else
#define LACQUER_AVX2(fill)
#endif
#if HWY_TARGETS & HWY_SSE4
#define LACQUER_SSE4(fill) {"SSE4", HWY_SSE4, &N_SSE4::fill},
#else
#define LACQUER_SSE4(fill)
#endif
// Highway takes one of two for plain C++, by what the compiler does well.
#if HWY_TARGETS & HWY_EMU128
#define LACQUER_PLAIN(fill) {"scalar", HWY_EMU128, &N_EMU128::fill},
#else
#define LACQUER_PLAIN(fill) {"scalar", HWY_SCALAR, &N_SCALAR::fill},
#endif

#define LACQUER_TARGETS(fill) \
    { LACQUER_AVX3(fill) LACQUER_AVX2(fill) LACQUER_SSE4(fill) LACQUER_PLAIN(fill) }
