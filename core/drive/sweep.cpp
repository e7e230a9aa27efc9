#include <algorithm>
#include <cmath>

#include "core/drive/runs.h"

namespace lacquer {

namespace {

// One run, with the arguments as they were when it began.
struct Sweep {
    double found = 0;  // the value that it set out from; `from` unless it took over
    double from = 0;
    double to = 1;
    double seconds = 1;
    double delay = 0;
    double times = 1;  // 0: for ever
    bool turns_back = false;
    Easing easing = {};

    double lasts() const { return times > 0 ? delay + seconds * times * (turns_back ? 2 : 1) : for_ever; }
    double after(double elapsed) const {
        elapsed -= delay;
        if (elapsed < 0) return found;
        const double parts = turns_back ? 2 : 1;
        if (times > 0 && elapsed >= seconds * parts * times) return turns_back ? from : to;
        if (seconds <= 0) return to;
        const double run = std::fmod(elapsed / seconds, parts);
        const double share = easing(run <= 1 ? run : 2 - run);
        return blend(elapsed < seconds ? found : from, to, share);
    }
};

// What each run reads; looked up once for all of them.
struct Reading {
    explicit Reading(const Arguments& args)
        : turns_back(args.word("turn_back") == "yes"),
          easing(args.easing("easing")),
          from(args.at_any_time("from")),
          to(args.at_any_time("to")),
          seconds(args.at_any_time("seconds")),
          delay(args.at_any_time("delay")),
          repeat(args.at_any_time("repeat")) {}

    Sweep sweep(double at) const {
        Sweep sweep;
        sweep.found = sweep.from = from(at);
        sweep.to = to(at);
        sweep.seconds = std::max(seconds(at), 0.0);
        sweep.delay = std::max(delay(at), 0.0);
        sweep.times = std::max(std::floor(repeat(at)), 0.0);
        sweep.turns_back = turns_back;
        sweep.easing = easing;
        return sweep;
    }

    bool turns_back;
    Easing easing;
    std::function<double(double)> from, to, seconds, delay, repeat;
};

Answerer answerer(const Arguments& args) {
    const Reading reading(args);
    std::vector<Run> runs = runs_of(args, [&](const Cue& cue) { return reading.sweep(cue.at).lasts(); });
    std::vector<Sweep> sweeps;
    const bool from_here = takes_over(args);
    for (std::size_t i = 0; i < runs.size(); ++i) {
        Sweep sweep = reading.sweep(runs[i].cue.at);
        if (from_here && i > 0) sweep.found = sweeps.back().after(runs[i].start - runs[i - 1].start);
        sweeps.push_back(std::move(sweep));
    }
    return [before = args.number("from"), runs = std::move(runs), sweeps = std::move(sweeps)](double time) {
        const Run* run = run_at(runs, time);
        Answer answer = answer_of(run, time);
        answer.value[0] = before;
        if (run == nullptr) return answer;
        const Sweep& sweep = sweeps[static_cast<std::size_t>(run - runs.data())];
        answer.value[0] = sweep.after(answer.since);
        answer.presence = answer.since < sweep.lasts() ? 1 : 0;
        return answer;
    };
}

}  // namespace

ResponseKind sweep_kind() {
    ResponseKind kind;
    kind.name = "sweep";
    kind.words = "goes from one value to another, once or in a loop";
    kind.listens_to_cue = true;
    kind.outputs = {"presence", "strength", "direction", "place", "object", "since"};
    kind.arguments = {number_argument("from", 0, 0, 1, "", "where it starts"),
                      number_argument("to", 1, 0, 1, "", "where it goes"),
                      number_argument("seconds", 1, 0, 10, "s", "how long one way takes"),
                      number_argument("delay", 0, 0, 10, "s", "how long it waits first"),
                      easing_argument("easing", "linear", "how the change is spread"),
                      number_argument("repeat", 1, 0, 10, "times", "how often it runs; 0 is for ever"),
                      word_argument("turn_back", {"no", "yes"}, "whether it comes back the same way"),
                      when_again_argument()};
    kind.answerer = answerer;
    return kind;
}

}  // namespace lacquer
