/* What depends on how a language keeps numbers; machine.js has the same for scripts. */

/* Rounded to single precision. */
static inline double lq_f(double x) { return (double)(float)x; }

/* The low 32 bits of a whole number; what is no number gives 0. */
static inline uint32_t lq_word(double whole) {
    return (uint32_t)(int64_t)(whole < -1e15 ? -1e15 : whole > 1e15 ? 1e15 : whole == whole ? whole : 0);
}

/* 32 bits as a number from -2147483648 to 2147483647. */
static inline double lq_whole(uint32_t word) { return word < 2147483648U ? (double)word : (double)word - 4294967296.0; }

/* One word to one word. M. Jarzynski and M. Olano, "Hash Functions for GPU Rendering", JCGT 9(3), 2020, listing of
   pcg. */
static inline uint32_t lq_pcg(uint32_t v) {
    const uint32_t state = v * 747796405U + 2891336453U;
    const uint32_t word = ((state >> ((state >> 28U) + 4U)) ^ state) * 277803737U;
    return (word >> 22U) ^ word;
}

/* A hash word as a number in 0..1. */
static inline double lq_unit(uint32_t word) { return (double)(word >> 8U) / 16777216.0; }

/* Three words to three, of which this is one; listing of pcg3d, as above. */
static inline uint32_t lq_pcg3d(uint32_t x, uint32_t y, uint32_t z, int which) {
    uint32_t a = x * 1664525U + 1013904223U;
    uint32_t b = y * 1664525U + 1013904223U;
    uint32_t c = z * 1664525U + 1013904223U;
    a += b * c;
    b += c * a;
    c += a * b;
    a ^= a >> 16U;
    b ^= b >> 16U;
    c ^= c >> 16U;
    a += b * c;
    b += c * a;
    c += a * b;
    return which == 0 ? a : which == 1 ? b : c;
}

/* Whole numbers of 32 bits: what runs over goes round. */
static inline double lq_add_int(double a, double b) { return lq_whole(lq_word(a) + lq_word(b)); }
static inline double lq_subtract_int(double a, double b) { return lq_whole(lq_word(a) - lq_word(b)); }
static inline double lq_multiply_int(double a, double b) { return lq_whole(lq_word(a) * lq_word(b)); }
static inline double lq_divide_int(double a, double b) {
    return b == 0 ? 0 : b == -1 ? lq_whole(0U - lq_word(a)) : trunc(a / b);
}
static inline double lq_remainder_int(double a, double b) { return b == 0 || b == -1 ? 0 : fmod(a, b); }
static inline double lq_divide_uint(double a, double b) {
    return lq_word(b) == 0U ? 0 : lq_whole(lq_word(a) / lq_word(b));
}
static inline double lq_remainder_uint(double a, double b) {
    return lq_word(b) == 0U ? 0 : lq_whole(lq_word(a) % lq_word(b));
}
static inline double lq_less_uint(double a, double b) { return lq_word(a) < lq_word(b) ? -1 : 0; }
static inline double lq_from_uint(double a) { return lq_f((double)lq_word(a)); }
static inline double lq_to_uint(double x) { return !(x > 0) ? 0 : x >= 4294967296.0 ? -1 : lq_whole((uint32_t)x); }
static inline double lq_to_int(double x) {
    return !(x == x) ? 0 : x >= 2147483648.0 ? 2147483647 : x < -2147483648.0 ? -2147483648.0 : trunc(x);
}
static inline double lq_bit_and(double a, double b) { return lq_whole(lq_word(a) & lq_word(b)); }
static inline double lq_bit_or(double a, double b) { return lq_whole(lq_word(a) | lq_word(b)); }
static inline double lq_bit_xor(double a, double b) { return lq_whole(lq_word(a) ^ lq_word(b)); }
static inline double lq_bit_not(double a) { return lq_whole(~lq_word(a)); }
static inline double lq_shift_left(double a, double b) { return lq_whole(lq_word(a) << (lq_word(b) & 31U)); }
static inline double lq_shift_right(double a, double b) { return floor(a / exp2((double)(lq_word(b) & 31U))); }
static inline double lq_shift_right_uint(double a, double b) { return lq_whole(lq_word(a) >> (lq_word(b) & 31U)); }

/* The bits of a single-precision number as a whole one, and back. */
static inline double lq_bits_of(double x) {
    const float single = (float)x;
    uint32_t word = 0;
    memcpy(&word, &single, sizeof word);
    return lq_whole(word);
}
static inline double lq_of_bits(double whole) {
    const uint32_t word = lq_word(whole);
    float single = 0;
    memcpy(&single, &word, sizeof single);
    return (double)single;
}
