#include "core/drive/runs.h"

namespace lacquer {

namespace {

int beyond_of(const Arguments& args) {
    const std::string word = args.word("beyond");
    if (word == "wrap") return LQ_WRAPS;
    return word == "stop" ? LQ_STOPS : LQ_GOES_ON;
}

// For one that stops at its ends, where it stood at each change of its speed: it may come back from them.
std::vector<std::pair<double, played::lq_drift>> states_of(const played::lq_drift& run, int beyond,
                                                           const Track& speed) {
    std::vector<std::pair<double, played::lq_drift>> states = {{run.start, run}};
    if (beyond != LQ_STOPS) return states;
    for (const double at : speed.moments()) {
        if (at <= run.start) continue;
        played::lq_drift state = states.back().second;
        lq_drift_change(&state, beyond, speed.integral(at));
        states.emplace_back(at, state);
    }
    return states;
}

Answerer drift_answerer(const Arguments& args) {
    const Track speed = args.track("speed");
    const int beyond = beyond_of(args);
    const CueReadings readings(args, {"start", "low", "high"});
    const Runs<played::lq_drift> runs = replayed<played::lq_drift>(
        args,
        [&](played::lq_drift& run, double start, const Cue& cue, std::size_t) {
            const played::lq_cue heard = played_cue(cue);
            lq_drift_begin(&run, beyond, start, &heard, readings.at(start).data(), speed.integral(start));
        },
        [](const played::lq_drift&) { return std::numeric_limits<double>::infinity(); }, never_takes_over);
    std::vector<std::vector<std::pair<double, played::lq_drift>>> states;
    states.reserve(runs.runs.size());
    for (const played::lq_drift& run : runs.runs) states.push_back(states_of(run, beyond, speed));
    return [speed, beyond, runs, states = std::move(states), before = args.number("start")](double time) {
        const std::ptrdiff_t run = runs.at(time);
        if (run < 0) return answer_before(before);
        const auto& of_run = states[static_cast<std::size_t>(run)];
        const auto next = std::upper_bound(of_run.begin(), of_run.end(), time,
                                           [](double t, const auto& state) { return t < state.first; });
        played::lq_answer answer{};
        lq_drift_at(&(next - 1)->second, beyond, time, speed.integral(time), &answer);
        return answer_from(answer, runs.cue(run));
    };
}

}  // namespace

ResponseKind drift_kind() {
    ResponseKind kind;
    kind.name = "drift";
    kind.words = "moves steadily; each cue sets it back to its start";
    kind.listens_to_cue = true;
    kind.outputs = {"strength", "direction", "place", "object", "since"};
    kind.arguments = {number_argument("speed", 1, -10, 10, "/s", "units a second", Reads::rate),
                      number_argument("start", 0, 0, 1, "", "where it starts"),
                      word_argument("beyond", {"go_on", "wrap", "stop"}, "what it does beyond its ends"),
                      number_argument("low", 0, 0, 1, "", "the lower end, to wrap or stop at"),
                      number_argument("high", 1, 0, 1, "", "the upper end, to wrap or stop at")};
    kind.answerer = drift_answerer;
    return kind;
}

}  // namespace lacquer
