/* Swings between two values for ever. */

#define LQ_WAVE_SINE 0
#define LQ_WAVE_ABSOLUTE_SINE 1
#define LQ_WAVE_TRIANGLE 2
#define LQ_WAVE_SAW 3
#define LQ_WAVE_SQUARE 4

/* Each shape goes from 0 to 1 and back, or to 1 and down at once, over one turn. */
static inline double lq_wave_shape(int shape, double turns) {
    const double part = turns - floor(turns);
    const double sine = sin(2 * 3.14159265358979323846 * turns);
    if (shape == LQ_WAVE_TRIANGLE) return part < 0.5 ? 2 * part : 2 - 2 * part;
    if (shape == LQ_WAVE_SAW) return part;
    if (shape == LQ_WAVE_SQUARE) return part < 0.5 ? 1 : 0;
    if (shape == LQ_WAVE_ABSOLUTE_SINE) return fabs(sine);
    return 0.5 + 0.5 * sine;
}

/* `turns` is the integral of the rate and the phase, so that a change of the rate never makes the value jump. */
static inline double lq_wave_value(int shape, double turns, double low, double high) {
    const double share = lq_wave_shape(shape, turns);
    return low * (1 - share) + high * share;
}
