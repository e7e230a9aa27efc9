#include <algorithm>

#include "core/drive/runs.h"

namespace lacquer {

namespace {

// The gate was opened or shut, and found it `share` open.
struct Turn {
    double at = 0;
    bool opens = false;
    double share = 0;
};

struct Gate {
    double ease_in = 0;
    double ease_out = 0;
    Easing easing = {};
    std::vector<Turn> turns = {};

    double after(const Turn& turn, double elapsed) const {
        const double seconds = turn.opens ? ease_in : ease_out;
        const double done = elapsed >= seconds ? 1 : easing(elapsed / seconds);
        return blend(turn.share, turn.opens ? 1 : 0, done);
    }
    double at(double time) const {
        const auto next =
            std::upper_bound(turns.begin(), turns.end(), time, [](double t, const Turn& turn) { return t < turn.at; });
        return next == turns.begin() ? turns.front().share : after(*(next - 1), time - (next - 1)->at);
    }
    void turn(double time, bool opens) {
        if (turns.back().opens == opens) return;
        turns.push_back({time, opens, at(time)});
    }
};

Answerer answerer(const Arguments& args) {
    const Track condition = args.track("when");
    // Open by the cue that opens it and not yet shut by the other.
    Track between(0);
    if (!args.cue().empty()) {
        const std::string shuts = args.word("until");
        Cues cues = args.heard(args.cue());
        if (shuts != args.cue()) {
            const Cues others = args.heard(shuts);
            cues.own().insert(cues.end(), others.begin(), others.end());
            sort_cues(cues);
        }
        for (const Cue& cue : cues) {
            // One cue for both opens and shuts by turns.
            const bool opens = shuts == args.cue() ? between.value(cue.at) == 0 : cue.name == args.cue();
            between.change(cue.at, opens ? 1 : 0);
        }
    }
    Gate gate{std::max(args.number("ease_in"), 0.0), std::max(args.number("ease_out"), 0.0), args.easing("easing")};
    const auto open_at = [&](double time) { return condition.value(time) != 0 || between.value(time) != 0; };
    gate.turns.push_back({0, open_at(0), open_at(0) ? 1.0 : 0.0});
    for (const double at : moments_of(condition, between)) gate.turn(at, open_at(at));
    return [gate = std::move(gate), on = args.at_any_time("on"), off = args.at_any_time("off")](double time) {
        Answer answer;
        answer.presence = gate.at(time);
        answer.value[0] = blend(off(time), on(time), answer.presence);
        return answer;
    };
}

}  // namespace

ResponseKind gate_kind() {
    ResponseKind kind;
    kind.name = "gate";
    kind.words = "on while something holds, or from one cue to another";
    kind.listens_to_cue = true;
    kind.outputs = {"presence"};
    ArgumentSpec when{
        "when", ArgumentKind::condition, 0, 0, 1, {}, "on while this holds: a zone, or a formula over signals"};
    when.reads = Reads::rate;
    ArgumentSpec until{"until", ArgumentKind::cue, 0, 0, 1, {}, "the cue that shuts it"};
    until.reads = Reads::steady;
    kind.arguments = {when,
                      until,
                      number_argument("on", 1, 0, 1, "", "what it is when it is on", Reads::any_time),
                      number_argument("off", 0, 0, 1, "", "what it is when it is off", Reads::any_time),
                      number_argument("ease_in", 0.3, 0, 5, "s", "how long it takes to open", Reads::steady),
                      number_argument("ease_out", 0.3, 0, 5, "s", "how long it takes to shut", Reads::steady),
                      easing_argument("easing", "ease_in_out", "how that is spread")};
    kind.answerer = answerer;
    return kind;
}

}  // namespace lacquer
