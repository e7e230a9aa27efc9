/* What formulas are made of, in single precision. Truths are -1, all bits, for yes and 0 for no. */

static inline double lq_negate(double a) { return -a; }
static inline double lq_absolute(double a) { return fabs(a); }
static inline double lq_sign(double a) { return a > 0 ? 1 : a < 0 ? -1 : a; }
static inline double lq_floor(double a) { return floor(a); }
static inline double lq_ceil(double a) { return ceil(a); }
static inline double lq_trunc(double a) { return trunc(a); }
static inline double lq_fract(double a) { return lq_f(a - floor(a)); }
/* To the nearest whole number, halves to the even one. */
static inline double lq_round(double a) {
    const double below = floor(a);
    const double part = a - below;
    if (part < 0.5) return below;
    if (part > 0.5) return below + 1;
    return part == 0.5 && fmod(below, 2) != 0 ? below + 1 : part == 0.5 ? below : a;
}
static inline double lq_mod(double a, double b) { return lq_f(a - lq_f(b * floor(lq_f(a / b)))); }
static inline double lq_min(double a, double b) { return b < a ? b : a; }
static inline double lq_max(double a, double b) { return a < b ? b : a; }
static inline double lq_held(double x, double least, double most) { return lq_min(lq_max(x, least), most); }
static inline double lq_mix(double a, double b, double share) {
    return lq_f(lq_f(a * lq_f(1 - share)) + lq_f(b * share));
}
static inline double lq_step(double edge, double x) { return x < edge ? 0 : 1; }
static inline double lq_smoothstep(double e0, double e1, double x) {
    const double t = lq_held(lq_f(lq_f(x - e0) / lq_f(e1 - e0)), 0, 1);
    if (e0 == e1) return x < e0 ? 0 : 1;
    return lq_f(lq_f(t * t) * lq_f(3 - lq_f(2 * t)));
}
static inline double lq_sqrt(double a) { return lq_f(sqrt(a)); }
static inline double lq_inversesqrt(double a) { return lq_f(1 / lq_f(sqrt(a))); }
static inline double lq_pow(double x, double power) {
    if (power == 0) return 1;
    if (x <= 0) return power > 0 ? 0 : power < 0 ? INFINITY : power;
    return lq_f(pow(x, power));
}
static inline double lq_exp(double a) { return lq_f(exp(a)); }
static inline double lq_exp2(double a) { return lq_f(exp2(a)); }
static inline double lq_log(double a) { return lq_f(log(a)); }
static inline double lq_log2(double a) { return lq_f(log2(a)); }
static inline double lq_sin(double a) { return lq_f(sin(a)); }
static inline double lq_cos(double a) { return lq_f(cos(a)); }
static inline double lq_tan(double a) { return lq_f(tan(a)); }
static inline double lq_asin(double a) { return lq_f(asin(lq_held(a, -1, 1))); }
static inline double lq_acos(double a) { return lq_f(acos(lq_held(a, -1, 1))); }
static inline double lq_atan(double a) { return lq_f(atan(a)); }
static inline double lq_atan2(double y, double x) { return lq_f(atan2(y + 0.0, x + 0.0)); }
static inline double lq_sinh(double a) { return lq_f(sinh(a)); }
static inline double lq_cosh(double a) { return lq_f(cosh(a)); }
static inline double lq_tanh(double a) { return lq_f(tanh(a)); }
static inline double lq_asinh(double a) { return lq_f(asinh(a)); }
static inline double lq_acosh(double a) { return lq_f(acosh(lq_max(a, 1))); }
static inline double lq_atanh(double a) { return lq_f(atanh(a)); }
static inline double lq_less(double a, double b) { return a < b ? -1 : 0; }
static inline double lq_less_equal(double a, double b) { return a <= b ? -1 : 0; }
static inline double lq_equal(double a, double b) { return a == b ? -1 : 0; }
static inline double lq_is_nan(double a) { return a == a ? 0 : -1; }
static inline double lq_is_inf(double a) { return a == INFINITY || a == -INFINITY ? -1 : 0; }
static inline double lq_min_uint(double a, double b) { return lq_less_uint(b, a) != 0 ? b : a; }
static inline double lq_max_uint(double a, double b) { return lq_less_uint(a, b) != 0 ? b : a; }
/* To the nearest whole number, halves away from 0. */
static inline double lq_rounded(double a) { return a < 0 ? -floor(0.5 - a) : floor(a + 0.5); }
/* Held to a range; what is no number becomes the least. */
static inline double lq_set(double value, double least, double most) {
    return value == value ? lq_clamp(value, least, most) : least;
}
