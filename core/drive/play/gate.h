/* On while something holds, or from one cue to another. */

typedef struct {
    double ease_in;
    double ease_out;
    lq_easing easing;
} lq_gate_kind;

/* The gate was last opened or shut, and found it `share` open; and the same of the time before that. */
typedef struct {
    double at;
    int opens;
    double share;
    double earlier_at;
    int earlier_opens;
    double earlier_share;
} lq_gate;

static inline double lq_gate_open(const lq_gate_kind* kind, const lq_gate* gate, double seconds) {
    const double elapsed = seconds - gate->at;
    const double whole = gate->opens ? kind->ease_in : kind->ease_out;
    const double done = elapsed >= whole ? 1 : lq_ease(&kind->easing, elapsed / whole);
    return lq_blend(gate->share, gate->opens ? 1 : 0, done);
}

/* How it stands at the beginning. */
static inline void lq_gate_start(lq_gate* gate, int opens) {
    gate->at = 0;
    gate->opens = opens;
    gate->share = opens ? 1 : 0;
    gate->earlier_at = gate->at;
    gate->earlier_opens = gate->opens;
    gate->earlier_share = gate->share;
}

/* Opens or shuts it; at the beginning at once. Of several turns at one time only the last counts. */
static inline void lq_gate_turn(lq_gate* gate, const lq_gate_kind* kind, double seconds, int opens) {
    if (seconds <= 0) {
        lq_gate_start(gate, opens);
        return;
    }
    if (seconds == gate->at) {
        gate->at = gate->earlier_at;
        gate->opens = gate->earlier_opens;
        gate->share = gate->earlier_share;
    }
    if (gate->opens == opens) return;
    gate->earlier_at = gate->at;
    gate->earlier_opens = gate->opens;
    gate->earlier_share = gate->share;
    gate->share = lq_gate_open(kind, gate, seconds);
    gate->at = seconds;
    gate->opens = opens;
}
