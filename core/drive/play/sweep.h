/* Goes from one value to another, once or in a loop. */

typedef struct {
    int turns_back;
    lq_easing easing;
} lq_sweep_kind;

/* One run, with what it read when it began; `found` is the value that it set out from, `times` 0 for ever. */
typedef struct {
    double start;
    lq_cue cue;
    double found;
    double from;
    double to;
    double seconds;
    double delay;
    double times;
} lq_sweep;

static inline double lq_sweep_lasts(const lq_sweep_kind* kind, const lq_sweep* run) {
    return run->times > 0 ? run->delay + run->seconds * run->times * (kind->turns_back ? 2 : 1) : INFINITY;
}

static inline double lq_sweep_value(const lq_sweep_kind* kind, const lq_sweep* run, double seconds) {
    const double elapsed = seconds - run->start - run->delay;
    const double parts = kind->turns_back ? 2 : 1;
    const double part = run->seconds > 0 ? fmod(elapsed / run->seconds, parts) : 0;
    if (elapsed < 0) return run->found;
    if (run->times > 0 && elapsed >= run->seconds * parts * run->times) return kind->turns_back ? run->from : run->to;
    if (run->seconds <= 0) return run->to;
    return lq_blend(elapsed < run->seconds ? run->found : run->from, run->to,
                    lq_ease(&kind->easing, part <= 1 ? part : 2 - part));
}

/* `reads` are from, to, seconds, delay and repeat as the cue finds them. */
static inline void lq_sweep_begin(lq_sweep* run, double start, const lq_cue* cue, const double* reads) {
    run->start = start;
    lq_cue_copy(&run->cue, cue);
    run->found = reads[0];
    run->from = reads[0];
    run->to = reads[1];
    run->seconds = lq_larger(reads[2], 0);
    run->delay = lq_larger(reads[3], 0);
    run->times = lq_larger(floor(reads[4]), 0);
}

static inline void lq_sweep_take_over(lq_sweep* run, const lq_sweep_kind* kind, const lq_sweep* before) {
    run->found = lq_sweep_value(kind, before, run->start);
}

static inline void lq_sweep_at(const lq_sweep* run, const lq_sweep_kind* kind, double seconds, lq_answer* answer) {
    lq_answer_to(answer, &run->cue, seconds - run->start);
    answer->value[0] = lq_sweep_value(kind, run, seconds);
    answer->presence = answer->since < lq_sweep_lasts(kind, run) ? 1 : 0;
}
