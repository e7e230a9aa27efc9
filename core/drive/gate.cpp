#include "core/drive/runs.h"

namespace lacquer {

namespace {

// Open by the cue that opens it and not yet shut by the other.
Track between_cues(const Arguments& args) {
    Track between(0);
    if (args.cue().empty()) return between;
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
    return between;
}

Answerer gate_answerer(const Arguments& args) {
    const Track condition = args.track("when");
    const Track between = between_cues(args);
    const KeptEasing easing(args.easing("easing"));
    const played::lq_gate_kind kind{std::max(args.number("ease_in"), 0.0), std::max(args.number("ease_out"), 0.0),
                                    easing.played()};
    const auto open_at = [&](double time) { return condition.value(time) != 0 || between.value(time) != 0; };
    std::vector<played::lq_gate> turns(1);
    lq_gate_start(&turns[0], open_at(0) ? 1 : 0);
    for (const double at : moments_of(condition, between)) {
        played::lq_gate turn = turns.back();
        lq_gate_turn(&turn, &kind, at, open_at(at) ? 1 : 0);
        if (turn.opens != turns.back().opens) turns.push_back(turn);
    }
    return [kind, easing, turns = std::move(turns), on = args.at_any_time("on"),
            off = args.at_any_time("off")](double time) {
        const auto next = std::upper_bound(turns.begin(), turns.end(), time,
                                           [](double t, const played::lq_gate& turn) { return t < turn.at; });
        Answer answer;
        answer.presence = next == turns.begin() ? turns.front().share : played::lq_gate_open(&kind, &*(next - 1), time);
        answer.value[0] = played::lq_blend(off(time), on(time), answer.presence);
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
    kind.answerer = gate_answerer;
    return kind;
}

}  // namespace lacquer
