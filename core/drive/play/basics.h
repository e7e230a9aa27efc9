/* What all responses have in common. Plain C99, and C++ as well: what is shipped is what the application runs. Times
   are seconds, angles degrees clockwise from the right, places shares of the frame from its top left. */

#define LQ_TAKE_OVER 0
#define LQ_START_AGAIN 1
#define LQ_IGNORE 2
#define LQ_QUEUE 3

/* Something that happened: how strongly (0 to 1), which way, where, to which object (0 for none). */
typedef struct {
    double strength;
    double direction;
    double x;
    double y;
    int object;
} lq_cue;

/* What a response says at a moment, and the cue that it answers. */
typedef struct {
    double value[2];
    double presence;
    double turn;
    double zoom;
    double since;
    lq_cue cue;
} lq_answer;

static inline double lq_clamp(double x, double least, double most) { return x < least ? least : x > most ? most : x; }

static inline double lq_larger(double a, double b) { return a < b ? b : a; }

static inline double lq_smaller(double a, double b) { return b < a ? b : a; }

/* `a` at 0 and `b` at 1, exactly, so that rest is rest to the last bit. */
static inline double lq_blend(double a, double b, double share) {
    if (share == 0) return a;
    if (share == 1) return b;
    return a * (1 - share) + b * share;
}

static inline void lq_cue_set(lq_cue* cue, double strength, double direction, double x, double y, int object) {
    cue->strength = strength;
    cue->direction = direction;
    cue->x = x;
    cue->y = y;
    cue->object = object;
}

static inline void lq_cue_copy(lq_cue* cue, const lq_cue* from) {
    lq_cue_set(cue, from->strength, from->direction, from->x, from->y, from->object);
}

/* The answer of a response that rests. */
static inline void lq_answer_rest(lq_answer* answer, double value) {
    answer->value[0] = value;
    answer->value[1] = 0;
    answer->presence = 0;
    answer->turn = 0;
    answer->zoom = 0;
    answer->since = 0;
    lq_cue_set(&answer->cue, 0, 0, 0.5, 0.5, 0);
}

/* The same of one that answers a cue since so many seconds. */
static inline void lq_answer_to(lq_answer* answer, const lq_cue* cue, double since) {
    lq_answer_rest(answer, 0);
    answer->since = since;
    lq_cue_copy(&answer->cue, cue);
}

/* When a cue that comes at `at` is answered, where the last one is over at `over`; infinite if never. */
static inline double lq_run_start(int when_again, double at, double over) {
    if (at < over && when_again == LQ_IGNORE) return INFINITY;
    if (at < over && when_again == LQ_QUEUE) return over;
    return at;
}
