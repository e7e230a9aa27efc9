/* Rises, stays and falls at each cue, as far as that is strong. */

typedef struct {
    double rest;
    lq_easing rise_easing;
    lq_easing fall_easing;
} lq_strike_kind;

/* One hit, with what it read when it came, and as it found the strike. */
typedef struct {
    double start;
    lq_cue cue;
    double peak;
    double rise;
    double stay;
    double fall;
    double found_value;
    double found_presence;
} lq_strike;

static inline double lq_strike_lasts(const lq_strike* hit) { return hit->rise + hit->stay + hit->fall; }

static inline double lq_strike_value(const lq_strike_kind* kind, const lq_strike* hit, double seconds) {
    const double elapsed = seconds - hit->start;
    const double falling = elapsed - hit->rise - hit->stay;
    if (elapsed < hit->rise)
        return lq_blend(hit->found_value, hit->peak, lq_ease(&kind->rise_easing, elapsed / hit->rise));
    if (elapsed - hit->rise <= hit->stay) return hit->peak;
    if (falling >= hit->fall) return kind->rest;
    return lq_blend(hit->peak, kind->rest, lq_ease(&kind->fall_easing, falling / hit->fall));
}

static inline double lq_strike_presence(const lq_strike_kind* kind, const lq_strike* hit, double seconds) {
    const double elapsed = seconds - hit->start;
    const double falling = elapsed - hit->rise - hit->stay;
    if (elapsed < hit->rise) return lq_blend(hit->found_presence, 1, lq_ease(&kind->rise_easing, elapsed / hit->rise));
    if (elapsed - hit->rise <= hit->stay) return 1;
    if (falling >= hit->fall) return 0;
    return lq_blend(1, 0, lq_ease(&kind->fall_easing, falling / hit->fall));
}

/* `reads` are least, most, rise, stay and fall as the cue finds them. */
static inline void lq_strike_begin(lq_strike* hit, const lq_strike_kind* kind, double start, const lq_cue* cue,
                                   const double* reads) {
    hit->start = start;
    lq_cue_copy(&hit->cue, cue);
    hit->peak = lq_blend(reads[0], reads[1], lq_smaller(cue->strength, 1));
    hit->rise = lq_larger(reads[2], 0);
    hit->stay = lq_larger(reads[3], 0);
    hit->fall = lq_larger(reads[4], 0);
    hit->found_value = kind->rest;
    hit->found_presence = 0;
}

/* Goes on from where the one before it is when it starts. */
static inline void lq_strike_take_over(lq_strike* hit, const lq_strike_kind* kind, const lq_strike* before) {
    const double value = lq_strike_value(kind, before, hit->start);
    hit->found_presence = lq_strike_presence(kind, before, hit->start);
    hit->found_value = value;
}

static inline void lq_strike_at(const lq_strike* hit, const lq_strike_kind* kind, double seconds, lq_answer* answer) {
    lq_answer_to(answer, &hit->cue, seconds - hit->start);
    answer->value[0] = lq_strike_value(kind, hit, seconds);
    answer->presence = lq_strike_presence(kind, hit, seconds);
}
