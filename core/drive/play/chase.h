/* Follows a signal at a rate, from one range to another. */

typedef struct {
    double in_low;
    double in_high;
    double out_low;
    double out_high;
    int exponential;
} lq_chase_kind;

/* Where it stood when what it aims at, or how quickly it follows, last changed. */
typedef struct {
    double at;
    double reached;
    double aim;
    double rate;
} lq_chase;

static inline double lq_chase_aim(const lq_chase_kind* kind, double signal) {
    double share = 0;
    if (kind->in_low == kind->in_high) {
        share = signal >= kind->in_high ? 1 : 0;
    } else {
        share = lq_clamp((signal - kind->in_low) / (kind->in_high - kind->in_low), 0, 1);
    }
    return kind->out_low * (1 - share) + kind->out_high * share;
}

/* Exact for any step of time. By shares, the way that is left shrinks as exp(-rate * t) (common practice, no source);
   mixing a fixed share in every frame, as is often done, comes to the same only at one frame rate. */
static inline double lq_chase_value(const lq_chase_kind* kind, const lq_chase* chase, double seconds) {
    const double way = chase->aim - chase->reached;
    const double much = lq_larger(chase->rate, 0) * (seconds - chase->at);
    if (kind->exponential) return chase->reached + way * -expm1(-much);
    return chase->reached + lq_clamp(way, -much, much);
}

/* It starts where the signal is, without running in. */
static inline void lq_chase_change(lq_chase* chase, const lq_chase_kind* kind, double seconds, double signal,
                                   double rate) {
    const double aim = lq_chase_aim(kind, signal);
    chase->reached = seconds <= 0 ? aim : lq_chase_value(kind, chase, seconds);
    chase->at = lq_larger(seconds, 0);
    chase->aim = aim;
    chase->rate = rate;
}
