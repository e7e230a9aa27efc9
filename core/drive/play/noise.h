/* Randomness and noise as formulas know them. Noise: K. Perlin, "Improving Noise", 2002; S. Worley, "A Cellular Texture
   Basis Function", 1996. */

/* The whole number below x, held to 32 bits. */
static inline uint32_t lq_lattice(double x) {
    const double below = floor(x);
    if (!(below > -2147483648.0)) return below == below ? 2147483648U : 0U;
    if (below >= 2147483648.0) return 2147483647U;
    return lq_word(below);
}

static inline double lq_hash_1(double x) { return lq_unit(lq_pcg(lq_lattice(x))); }
static inline double lq_hash_2(double x, double y) { return lq_unit(lq_pcg(lq_lattice(x) + lq_pcg(lq_lattice(y)))); }
static inline double lq_hash_3(double x, double y, double z) {
    return lq_unit(lq_pcg(lq_lattice(x) + lq_pcg(lq_lattice(y) + lq_pcg(lq_lattice(z)))));
}
static inline double lq_hash3(double x, double y, double z, int which) {
    return lq_unit(lq_pcg3d(lq_lattice(x), lq_lattice(y), lq_lattice(z), which));
}

static inline double lq_fade(double t) { return t * t * t * (t * (t * 6 - 15) + 10); }
static inline double lq_between(double t, double a, double b) { return a + t * (b - a); }
static inline double lq_below_one(double n) { return n < 0 ? 0 : n > 0.99999994 ? 0.99999994 : n; }

/* A corner of the lattice; in the plane its third number counts for nothing. */
static inline uint32_t lq_corner(int is_space, uint32_t x, uint32_t y, uint32_t z) {
    return lq_pcg(x + lq_pcg(is_space ? y + lq_pcg(z) : y));
}

/* Slope of a plane at (x, y): one of eight directions; in space one of twelve. */
static inline double lq_slope_2(uint32_t hash, double x, double y) {
    const double u = (hash & 4U) != 0 ? y : x;
    const double v = ((hash & 4U) != 0 ? x : y) * 0.41421356;
    return ((hash & 1U) != 0 ? -u : u) + ((hash & 2U) != 0 ? -v : v);
}
static inline double lq_slope_3(uint32_t hash, double x, double y, double z) {
    const uint32_t h = hash & 15U;
    const double u = h < 8U ? x : y;
    const double v = h < 4U ? y : h == 12U || h == 14U ? x : z;
    return ((h & 1U) != 0 ? -u : u) + ((h & 2U) != 0 ? -v : v);
}

/* What a corner of the lattice gives: a random height, or its plane's. */
static inline double lq_corner_value(int gradient, int is_space, uint32_t x, uint32_t y, uint32_t z, double dx,
                                     double dy, double dz) {
    const uint32_t hash = lq_corner(is_space, x, y, z);
    if (!gradient) return lq_unit(hash);
    return is_space ? lq_slope_3(hash, dx, dy, dz) : lq_slope_2(hash, dx, dy);
}

static inline double lq_slab(int gradient, int is_space, double x, double y, uint32_t iz, double dz) {
    const uint32_t ix = lq_lattice(x);
    const uint32_t iy = lq_lattice(y);
    const double fx = x - floor(x);
    const double fy = y - floor(y);
    const double top = lq_between(lq_fade(fx), lq_corner_value(gradient, is_space, ix, iy, iz, fx, fy, dz),
                                  lq_corner_value(gradient, is_space, ix + 1U, iy, iz, fx - 1, fy, dz));
    const double bottom = lq_between(lq_fade(fx), lq_corner_value(gradient, is_space, ix, iy + 1U, iz, fx, fy - 1, dz),
                                     lq_corner_value(gradient, is_space, ix + 1U, iy + 1U, iz, fx - 1, fy - 1, dz));
    return lq_between(lq_fade(fy), top, bottom);
}

static inline double lq_cellular(int is_space, double x, double y, double z) {
    double nearest = 1;
    const int depth = is_space ? 1 : 0;
    for (int k = -depth; k <= depth; ++k) {
        for (int j = -1; j <= 1; ++j) {
            for (int i = -1; i <= 1; ++i) {
                const uint32_t hash = lq_corner(is_space, lq_lattice(x) + (uint32_t)i, lq_lattice(y) + (uint32_t)j,
                                                lq_lattice(z) + (uint32_t)k);
                const double px = is_space ? (double)(hash >> 21U) / 2048 : (double)(hash >> 16U) / 65536;
                const double py = is_space ? (double)((hash >> 10U) & 2047U) / 2048 : (double)(hash & 65535U) / 65536;
                const double pz = is_space ? (double)(hash & 1023U) / 1024 : 0;
                const double dx = i + px - (x - floor(x));
                const double dy = j + py - (y - floor(y));
                const double dz = is_space ? k + pz - (z - floor(z)) : 0;
                nearest = lq_smaller(nearest, dx * dx + dy * dy + dz * dz);
            }
        }
    }
    return lq_below_one(sqrt(nearest));
}

#define LQ_VALUE_NOISE 0
#define LQ_GRADIENT_NOISE 1
#define LQ_CELLULAR_NOISE 2

/* One octave, 0 to below 1. */
static inline double lq_noise(int kind, int is_space, double x, double y, double z) {
    if (kind == LQ_CELLULAR_NOISE) return lq_cellular(is_space, x, y, z);
    const int gradient = kind == LQ_GRADIENT_NOISE ? 1 : 0;
    const uint32_t iz = lq_lattice(z);
    const double fz = z - floor(z);
    double n = lq_slab(gradient, is_space, x, y, iz, fz);
    if (is_space) n = lq_between(lq_fade(fz), n, lq_slab(gradient, is_space, x, y, iz + 1U, fz - 1));
    if (gradient) n = n * (is_space ? 0.5 : 0.65328148) + 0.5;
    return lq_f(lq_below_one(n));
}

/* Up to eight octaves, each twice as fine and half as strong as the one before. */
static inline double lq_fractal_noise(int kind, int is_space, double x, double y, double z, double octaves) {
    const double wanted = !(octaves > 1) ? 1 : lq_smaller(octaves, 8);
    double sum = 0;
    double weights = 0;
    double weight = 1;
    double scale = 1;
    for (int k = 0; k < 8 && wanted > k; ++k) {
        const double shift = lq_f(k * lq_f(17.31));
        const double share = weight * lq_smaller(wanted - k, 1);
        sum += share * lq_noise(kind, is_space, lq_f(lq_f(x * scale) + shift), lq_f(lq_f(y * scale) + shift),
                                lq_f(lq_f(z * scale) + shift));
        weights += share;
        weight *= 0.5;
        scale *= 2;
    }
    return lq_f(lq_below_one(sum / weights));
}
