/* Follows a curve through keys: cubic Hermite pieces. */

/* A value at a time, with the slopes before and after it, units a second; or it stays and jumps at the next key. */
typedef struct {
    double at;
    double value;
    double before;
    double after;
    int stays;
} lq_key;

typedef struct {
    const lq_key* keys;
    int count;
    double times;
    int turns_back;
} lq_path_kind;

/* One run; what it found beside its own beginning goes out on the way to the second key. */
typedef struct {
    double start;
    lq_cue cue;
    double beside;
} lq_path;

static inline double lq_keys_value(const lq_key* keys, int count, double time) {
    int low = 0;
    int high = count;
    if (count == 0) return 0;
    while (low < high) {
        const int middle = (low + high) >> 1;
        if (time < keys[middle].at) high = middle;
        if (!(time < keys[middle].at)) low = middle + 1;
    }
    if (low == 0) return keys[0].value;
    if (low == count) return keys[count - 1].value;
    if (keys[low - 1].stays) return keys[low - 1].value;
    const double span = keys[low].at - keys[low - 1].at;
    const double t = (time - keys[low - 1].at) / span;
    const double a = keys[low - 1].after * span;
    const double b = keys[low].before * span;
    const double t2 = t * t;
    const double t3 = t2 * t;
    return (2 * t3 - 3 * t2 + 1) * keys[low - 1].value + (t3 - 2 * t2 + t) * a + (3 * t2 - 2 * t3) * keys[low].value +
           (t3 - t2) * b;
}

static inline double lq_path_length(const lq_path_kind* kind) {
    return kind->count == 0 ? 0 : lq_larger(kind->keys[kind->count - 1].at, 0);
}

static inline double lq_path_lasts(const lq_path_kind* kind) {
    return kind->times > 0 ? lq_path_length(kind) * kind->times * (kind->turns_back ? 2 : 1) : INFINITY;
}

static inline double lq_path_plain(const lq_path_kind* kind, double elapsed) {
    const double whole = lq_path_length(kind);
    double place = 0;
    if (whole > 0) {
        place = fmod(lq_larger(elapsed, 0), whole * (kind->turns_back ? 2 : 1));
        if (place > whole) place = 2 * whole - place;
        if (elapsed >= lq_path_lasts(kind)) place = kind->turns_back ? 0 : whole;
    }
    return lq_keys_value(kind->keys, kind->count, place);
}

static inline double lq_path_value(const lq_path_kind* kind, const lq_path* run, double seconds) {
    const double elapsed = seconds - run->start;
    if (run->beside == 0 || kind->count < 2) return lq_path_plain(kind, elapsed);
    const double over = lq_larger(kind->keys[1].at, 0);
    if (elapsed >= over) return lq_path_plain(kind, elapsed);
    const double share = elapsed / over;
    return lq_path_plain(kind, elapsed) + run->beside * (1 - share * share * (3 - 2 * share));
}

static inline void lq_path_begin(lq_path* run, double start, const lq_cue* cue) {
    run->start = start;
    lq_cue_copy(&run->cue, cue);
    run->beside = 0;
}

static inline void lq_path_take_over(lq_path* run, const lq_path_kind* kind, const lq_path* before) {
    run->beside = lq_path_value(kind, before, run->start) - lq_path_plain(kind, 0);
}

static inline void lq_path_at(const lq_path* run, const lq_path_kind* kind, double seconds, lq_answer* answer) {
    lq_answer_to(answer, &run->cue, seconds - run->start);
    answer->value[0] = lq_path_value(kind, run, seconds);
    answer->presence = answer->since < lq_path_lasts(kind) ? 1 : 0;
}
