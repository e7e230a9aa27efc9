/* One word to one word. M. Jarzynski and M. Olano, "Hash Functions for GPU Rendering", JCGT 9(3), 2020, listing of
   pcg. */
static inline uint32_t lq_pcg(uint32_t v) {
    const uint32_t state = v * 747796405U + 2891336453U;
    const uint32_t word = ((state >> ((state >> 28U) + 4U)) ^ state) * 277803737U;
    return (word >> 22U) ^ word;
}

/* A hash word as a number in 0..1. */
static inline double lq_unit(uint32_t word) { return (double)(word >> 8U) / 16777216.0; }

/* The low 32 bits of a whole number. */
static inline uint32_t lq_word(double whole) {
    return (uint32_t)(int64_t)(whole < -1e15 ? -1e15 : whole > 1e15 ? 1e15 : whole);
}
