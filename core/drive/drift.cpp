#include <algorithm>
#include <cmath>

#include "core/drive/runs.h"

namespace lacquer {

namespace {

enum class Beyond { goes_on, wraps, stops };

// One run: from where, and from which of the speed's integral on.
struct Drift {
    double start = 0;
    double low = 0;
    double high = 1;
    Beyond beyond = Beyond::goes_on;
    std::vector<double> moments = {};  // of change, for one that stops: it may come back from an end
    std::vector<double> reached = {};

    double held(double value) const { return std::clamp(value, std::min(low, high), std::max(low, high)); }

    double at(const Track& speed, double began, double time) const {
        if (beyond == Beyond::stops) {
            const auto next = std::upper_bound(moments.begin(), moments.end(), time);
            const auto i = static_cast<std::size_t>(std::max<std::ptrdiff_t>(next - moments.begin(), 1)) - 1;
            return held(reached[i] + speed.integral(time) - speed.integral(moments[i]));
        }
        const double value = start + speed.integral(time) - speed.integral(began);
        const double span = high - low;
        if (beyond == Beyond::goes_on || !(span > 0)) return value;
        return value - span * std::floor((value - low) / span);
    }
};

Drift drift_of(const Arguments& args, const Track& speed, double began) {
    Drift drift;
    drift.start = args.number("start", began);
    drift.low = args.number("low", began);
    drift.high = args.number("high", began);
    const std::string word = args.word("beyond");
    drift.beyond = word == "wrap" ? Beyond::wraps : word == "stop" ? Beyond::stops : Beyond::goes_on;
    if (drift.beyond != Beyond::stops) return drift;
    drift.moments.push_back(began);
    drift.reached.push_back(drift.held(drift.start));
    for (const double at : speed.moments()) {
        if (at <= began) continue;
        const double way = speed.integral(at) - speed.integral(drift.moments.back());
        drift.reached.push_back(drift.held(drift.reached.back() + way));
        drift.moments.push_back(at);
    }
    return drift;
}

Answerer answerer(const Arguments& args) {
    const Track speed = args.track("speed");
    const std::vector<Run> runs = runs_of(args, [](const Cue&) { return for_ever; });
    std::vector<Drift> drifts;
    drifts.reserve(runs.size());
    for (const Run& run : runs) drifts.push_back(drift_of(args, speed, run.start));
    return [speed, runs, drifts = std::move(drifts), before = args.number("start")](double time) {
        const Run* run = run_at(runs, time);
        Answer answer = answer_of(run, time);
        answer.value[0] =
            run == nullptr ? before : drifts[static_cast<std::size_t>(run - runs.data())].at(speed, run->start, time);
        return answer;
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
    kind.answerer = answerer;
    return kind;
}

}  // namespace lacquer
