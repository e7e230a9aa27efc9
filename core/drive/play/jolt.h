/* Shakes at each cue and dies away. How quick it is comes from the integral of its rate. */

typedef struct {
    int linear;
    int along;
    int each_new;
    uint32_t seed;
} lq_jolt_kind;

/* One blow, with what it read when it came: how far it reaches to the right, down, in turn and zoom. `left` is what was
   left of the one that it took over from. */
typedef struct {
    double start;
    lq_cue cue;
    double reach[4];
    double seconds;
    double decay;
    uint32_t seed;
    double travelled;
    double left[4];
} lq_jolt;

/* Steepness of the noise at a whole number: either way, and never so little that a jolt would not be felt. */
static inline double lq_jolt_slope(uint32_t seed, uint32_t whole) {
    const uint32_t hash = lq_pcg(seed + lq_pcg(whole));
    const double size = 0.5 + 0.5 * lq_unit(lq_pcg(hash));
    return (hash & 1U) != 0 ? size : -size;
}

/* Gradient noise along a line, within -1..1, 0 at whole numbers: the construction of Perlin 2002 in one dimension. */
static inline double lq_jolt_noise(uint32_t seed, double x) {
    const double below = floor(x);
    const double part = x - below;
    const uint32_t whole = lq_word(below);
    const double fade = part * part * part * (part * (part * 6 - 15) + 10);
    const double a = lq_jolt_slope(seed, whole) * part;
    const double b = lq_jolt_slope(seed, whole + 1U) * (part - 1);
    return 2 * (a + (b - a) * fade);
}

/* How much of it is left: never below 0, and exactly 0 at its end. */
static inline double lq_jolt_remains(const lq_jolt_kind* kind, const lq_jolt* blow, double elapsed, double reached) {
    if (elapsed < 0 || elapsed >= blow->seconds || !(reached > 0)) return 0;
    const double share =
        kind->linear ? lq_larger(reached - blow->decay * elapsed, 0) : reached * exp(-blow->decay * elapsed);
    /* The last quarter brings down to nothing what is left then. */
    const double late = lq_clamp((elapsed / blow->seconds - 0.75) * 4, 0, 1);
    return share * (1 - late * late * (3 - 2 * late));
}

/* A linear decay counts in units of the reach, so turn and zoom die away by its shares. */
static inline double lq_jolt_share(const lq_jolt_kind* kind, const lq_jolt* blow, double elapsed) {
    const double whole = lq_larger(blow->reach[0], 0);
    if (whole > 0) return lq_jolt_remains(kind, blow, elapsed, whole) / whole;
    return lq_jolt_remains(kind, blow, elapsed, 1);
}

/* Right, down, turn or zoom, by its number. */
static inline double lq_jolt_part(const lq_jolt_kind* kind, const lq_jolt* blow, int part, double elapsed,
                                  double travel) {
    const double x = travel - blow->travelled;
    const double share = lq_jolt_share(kind, blow, elapsed);
    const double angle = blow->cue.direction * 3.14159265358979323846 / 180;
    /* What was left of the one before goes out over a short while, so that nothing snaps. */
    const double gone = lq_smaller(elapsed / 0.1, 1);
    const double kept = blow->left[part] * (1 - gone * gone * (3 - 2 * gone));
    if (part >= 2)
        return blow->reach[part] * share * lq_jolt_noise(lq_pcg(blow->seed + (part == 2 ? 2U : 3U)), x) + kept;
    if (!kind->along)
        return blow->reach[part] * share * lq_jolt_noise(part == 0 ? blow->seed : lq_pcg(blow->seed + 1U), x) + kept;
    /* The first swing goes the way of the blow. */
    const double first = lq_jolt_slope(blow->seed, 0U) < 0 ? -1 : 1;
    const double swing = blow->reach[0] * share * first * lq_jolt_noise(blow->seed, x);
    return swing * (part == 0 ? cos(angle) : sin(angle)) + kept;
}

/* `reads` are reach, turn, zoom, seconds and decay as the cue finds them; `number` counts the cues that it hears. */
static inline void lq_jolt_begin(lq_jolt* blow, const lq_jolt_kind* kind, double start, const lq_cue* cue,
                                 const double* reads, uint32_t number, double travel) {
    const double strength = lq_smaller(cue->strength, 1);
    blow->start = start;
    lq_cue_copy(&blow->cue, cue);
    blow->reach[0] = lq_larger(reads[0], 0) * strength;
    blow->reach[1] = blow->reach[0];
    blow->reach[2] = reads[1] * strength;
    blow->reach[3] = reads[2] * strength;
    blow->seconds = lq_larger(reads[3], 0);
    blow->decay = lq_larger(reads[4], 0);
    blow->seed = lq_pcg(kind->seed + (kind->each_new ? lq_pcg(number + 1U) : 0U));
    blow->travelled = travel;
    for (int part = 0; part < 4; ++part) blow->left[part] = 0;
}

static inline void lq_jolt_take_over(lq_jolt* blow, const lq_jolt_kind* kind, const lq_jolt* before) {
    for (int part = 0; part < 4; ++part)
        blow->left[part] = lq_jolt_part(kind, before, part, blow->start - before->start, blow->travelled);
}

static inline void lq_jolt_at(const lq_jolt* blow, const lq_jolt_kind* kind, double seconds, double travel,
                              lq_answer* answer) {
    const double since = seconds - blow->start;
    lq_answer_to(answer, &blow->cue, since);
    answer->value[0] = lq_jolt_part(kind, blow, 0, since, travel);
    answer->value[1] = lq_jolt_part(kind, blow, 1, since, travel);
    answer->turn = lq_jolt_part(kind, blow, 2, since, travel);
    answer->zoom = lq_jolt_part(kind, blow, 3, since, travel);
    answer->presence = lq_jolt_share(kind, blow, since);
}
