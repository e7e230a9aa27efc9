/* Counts seconds, or the share of a run, since a cue. */

typedef struct {
    int again;
    int in_runs;
} lq_clock_kind;

typedef struct {
    double start;
    lq_cue cue;
    double seconds;
} lq_clock;

static inline double lq_clock_lasts(const lq_clock_kind* kind, const lq_clock* run) {
    return kind->again ? INFINITY : run->seconds;
}

/* `reads` has the length of a run as the cue finds it. */
static inline void lq_clock_begin(lq_clock* run, double start, const lq_cue* cue, const double* reads) {
    run->start = start;
    lq_cue_copy(&run->cue, cue);
    run->seconds = lq_larger(reads[0], 0);
}

static inline void lq_clock_at(const lq_clock* run, const lq_clock_kind* kind, double seconds, lq_answer* answer) {
    const double since = seconds - run->start;
    const double turns = run->seconds > 0 ? since / run->seconds : 1;
    const double share = kind->again ? turns - floor(turns) : lq_smaller(turns, 1);
    lq_answer_to(answer, &run->cue, since);
    answer->value[0] = kind->in_runs ? share : since;
    answer->presence = kind->again || since < run->seconds ? 1 : 0;
}
