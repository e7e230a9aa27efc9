/* Moves steadily; each cue sets it back to its start. How far it has moved comes from the integral of its speed. */

#define LQ_GOES_ON 0
#define LQ_WRAPS 1
#define LQ_STOPS 2

/* One run: where it was when the speed's integral was `travelled`, at its beginning or, for one that stops at its ends,
   when the speed last changed. */
typedef struct {
    double start;
    lq_cue cue;
    double value;
    double low;
    double high;
    double travelled;
} lq_drift;

static inline double lq_drift_held(const lq_drift* run, double value) {
    return lq_clamp(value, lq_smaller(run->low, run->high), lq_larger(run->low, run->high));
}

/* `reads` are start, low and high as the cue finds them. */
static inline void lq_drift_begin(lq_drift* run, int beyond, double start, const lq_cue* cue, const double* reads,
                                  double travel) {
    run->start = start;
    lq_cue_copy(&run->cue, cue);
    run->low = reads[1];
    run->high = reads[2];
    run->value = beyond == LQ_STOPS ? lq_drift_held(run, reads[0]) : reads[0];
    run->travelled = travel;
}

/* The speed changes when its integral is `travel`. */
static inline void lq_drift_change(lq_drift* run, int beyond, double travel) {
    if (beyond != LQ_STOPS) return;
    run->value = lq_drift_held(run, run->value + travel - run->travelled);
    run->travelled = travel;
}

static inline void lq_drift_at(const lq_drift* run, int beyond, double seconds, double travel, lq_answer* answer) {
    const double value = run->value + travel - run->travelled;
    const double span = run->high - run->low;
    lq_answer_to(answer, &run->cue, seconds - run->start);
    answer->value[0] = value;
    if (beyond == LQ_STOPS) answer->value[0] = lq_drift_held(run, value);
    if (beyond == LQ_WRAPS && span > 0) answer->value[0] = value - span * floor((value - run->low) / span);
}
