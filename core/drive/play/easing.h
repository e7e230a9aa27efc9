/* How a change is spread over its time. W3C CSS Easing Functions Level 1 and 2; R. Penner, "Programming Macromedia
   Flash MX", 2002, chapter 7, formulas from memory. */

#define LQ_BEZIER 0
#define LQ_STEPS 1
#define LQ_LINEAR 2
#define LQ_CURVE 3

#define LQ_SINE 0
#define LQ_QUAD 1
#define LQ_CUBIC 2
#define LQ_QUART 3
#define LQ_QUINT 4
#define LQ_EXPO 5
#define LQ_CIRC 6
#define LQ_BACK 7
#define LQ_ELASTIC 8
#define LQ_BOUNCE 9

#define LQ_IN 0
#define LQ_OUT 1
#define LQ_IN_OUT 2

/* A Bezier curve by its inner points; a stair of so many steps, which begins with one (`first`) and has so many jumps;
   straight pieces through points (share of time, share of change); or one of the usual curves. */
typedef struct {
    int kind;
    double x1;
    double y1;
    double x2;
    double y2;
    int steps;
    int first;
    int jumps;
    int curve;
    int end;
    int count;
    const double* points;
} lq_easing;

static inline double lq_bezier(double a, double b, double s) {
    const double r = 1 - s;
    return 3 * r * r * s * a + 3 * r * s * s * b + s * s * s;
}

static inline double lq_bezier_slope(double a, double b, double s) {
    const double r = 1 - s;
    return 3 * r * r * a + 6 * r * s * (b - a) + 3 * s * s * (1 - b);
}

/* x(s) rises all the way, so there is one s with x(s) = t. Newton's steps find it in a few goes; where one would leave
   the stretch that it must lie in, halving closes in on it all the same. */
static inline double lq_eased_bezier(const lq_easing* easing, double t) {
    double low = 0;
    double high = 1;
    double s = t;
    if (t <= 0) return 0;
    if (t >= 1) return 1;
    if (easing->x1 == easing->y1 && easing->x2 == easing->y2) return t;
    for (int i = 0; i < 80; ++i) {
        const double away = lq_bezier(easing->x1, easing->x2, s) - t;
        const double slope = lq_bezier_slope(easing->x1, easing->x2, s);
        const double next = s - away / slope;
        if (fabs(away) < 1e-15) break;
        if (away < 0) low = s;
        if (away >= 0) high = s;
        s = slope > 0 && next > low && next < high ? next : (low + high) / 2;
        if (high - low < 1e-16) break;
    }
    return lq_bezier(easing->y1, easing->y2, s);
}

static inline double lq_eased_steps(const lq_easing* easing, double t) {
    const double step = floor(t * easing->steps) + easing->first;
    return lq_smaller(step, easing->jumps) / easing->jumps;
}

/* Of several points at one time, the last counts from there on. */
static inline double lq_eased_linear(const lq_easing* easing, double t) {
    int next = 0;
    while (next < 2 * easing->count && !(t < easing->points[next])) next += 2;
    if (next == 0) return easing->points[1];
    if (next == 2 * easing->count) return easing->points[next - 1];
    return easing->points[next - 1] +
           (easing->points[next + 1] - easing->points[next - 1]) *
               ((t - easing->points[next - 2]) / (easing->points[next] - easing->points[next - 2]));
}

static inline double lq_out_bounce(double t) {
    const double steep = 7.5625;
    const double wide = 2.75;
    if (t < 1 / wide) return steep * t * t;
    if (t < 2 / wide) return steep * (t - 1.5 / wide) * (t - 1.5 / wide) + 0.75;
    if (t < 2.5 / wide) return steep * (t - 2.25 / wide) * (t - 2.25 / wide) + 0.9375;
    return steep * (t - 2.625 / wide) * (t - 2.625 / wide) + 0.984375;
}

/* Each as it goes in; out and in-and-out follow from it by turning it round. */
static inline double lq_curve_in(int curve, double t) {
    const double pi = 3.14159265358979323846;
    const double beyond = 1.70158;
    const double period = 0.3;
    if (curve == LQ_SINE) return 1 - cos(t * pi / 2);
    if (curve == LQ_QUAD) return t * t;
    if (curve == LQ_CUBIC) return t * t * t;
    if (curve == LQ_QUART) return t * t * t * t;
    if (curve == LQ_QUINT) return t * t * t * t * t;
    if (curve == LQ_EXPO) return t <= 0 ? 0 : exp2(10 * (t - 1));
    if (curve == LQ_CIRC) return 1 - sqrt(1 - t * t);
    if (curve == LQ_BACK) return t * t * ((beyond + 1) * t - beyond);
    if (curve == LQ_BOUNCE) return 1 - lq_out_bounce(1 - t);
    if (t <= 0) return 0;
    if (t >= 1) return 1;
    return -exp2(10 * (t - 1)) * sin((t - 1 - period / 4) * 2 * pi / period);
}

static inline double lq_eased_curve(const lq_easing* easing, double t) {
    if (t <= 0) return 0;
    if (t >= 1) return 1;
    if (easing->end == LQ_IN) return lq_curve_in(easing->curve, t);
    if (easing->end == LQ_OUT) return 1 - lq_curve_in(easing->curve, 1 - t);
    return t < 0.5 ? lq_curve_in(easing->curve, 2 * t) / 2 : 1 - lq_curve_in(easing->curve, 2 - 2 * t) / 2;
}

/* The share of the change that is done after the share `t` of the time, which is held to 0..1. */
static inline double lq_ease(const lq_easing* easing, double t) {
    const double held = t > 0 ? lq_smaller(t, 1) : 0;
    if (easing->kind == LQ_BEZIER) return lq_eased_bezier(easing, held);
    if (easing->kind == LQ_STEPS) return lq_eased_steps(easing, held);
    if (easing->kind == LQ_LINEAR) return lq_eased_linear(easing, held);
    return lq_eased_curve(easing, held);
}
