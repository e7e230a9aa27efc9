/* A value that changes at moments and stays in between, with its integral from 0 s on. */

typedef struct {
    double at;
    double value;
    double sum;
} lq_track;

static inline void lq_track_start(lq_track* track, double value) {
    track->at = 0;
    track->value = value;
    track->sum = 0;
}

/* The integral up to a moment that is not before the last change; negative before 0. */
static inline double lq_track_integral(const lq_track* track, double seconds) {
    return track->sum + (seconds - track->at) * track->value;
}

/* The value from a moment on; one at or before the last change takes its place. */
static inline void lq_track_change(lq_track* track, double seconds, double value) {
    if (seconds > track->at) {
        track->sum = lq_track_integral(track, seconds);
        track->at = seconds;
    }
    track->value = value;
}
