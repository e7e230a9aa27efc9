#include <algorithm>

#include "core/drive/runs.h"

namespace lacquer {

namespace {

// Where the strike stands: its value, and how present it is.
struct State {
    double value;
    double presence;
};

// One hit, with the arguments as they were when it came.
struct Hit {
    Run run = {};
    double peak = 0;
    double rise = 0;
    double stay = 0;
    double fall = 0;
    State found{0, 0};  // as it found the strike

    double lasts() const { return rise + stay + fall; }
};

struct Strike {
    double rest = 0;
    Easing rise_easing = {};
    Easing fall_easing = {};
    std::vector<Run> runs = {};
    std::vector<Hit> hits = {};  // one for each run

    State after(const Hit& hit, double elapsed) const {
        if (elapsed < hit.rise) {
            const double share = rise_easing(elapsed / hit.rise);
            return {blend(hit.found.value, hit.peak, share), blend(hit.found.presence, 1, share)};
        }
        elapsed -= hit.rise;
        if (elapsed <= hit.stay) return {hit.peak, 1};
        elapsed -= hit.stay;
        if (elapsed >= hit.fall) return {rest, 0};
        const double share = fall_easing(elapsed / hit.fall);
        return {blend(hit.peak, rest, share), blend(1, 0, share)};
    }

    State at(double time) const {
        const Run* run = run_at(runs, time);
        if (run == nullptr) return {rest, 0};
        return after(hits[static_cast<std::size_t>(run - runs.data())], time - run->start);
    }
};

// What each cue reads; looked up once for all of them.
struct Reading {
    explicit Reading(const Arguments& args)
        : least(args.at_any_time("least")),
          most(args.at_any_time("most")),
          rise(args.at_any_time("rise")),
          stay(args.at_any_time("stay")),
          fall(args.at_any_time("fall")) {}

    Hit hit(const Cue& cue) const {
        Hit hit;
        hit.peak = blend(least(cue.at), most(cue.at), std::min(cue.strength, 1.0));
        hit.rise = std::max(rise(cue.at), 0.0);
        hit.stay = std::max(stay(cue.at), 0.0);
        hit.fall = std::max(fall(cue.at), 0.0);
        return hit;
    }

    std::function<double(double)> least, most, rise, stay, fall;
};

Answerer answerer(const Arguments& args) {
    Strike strike;
    strike.rest = args.number("rest");
    strike.rise_easing = args.easing("rise_easing");
    strike.fall_easing = args.easing("fall_easing");
    const Reading reading(args);
    // A strike answers cues only: without one to listen to, it rests.
    if (!args.cue().empty()) {
        strike.runs = runs_of(args, [&](const Cue& cue) { return reading.hit(cue).lasts(); });
    }
    const bool from_here = takes_over(args);
    for (const Run& run : strike.runs) {
        Hit hit = reading.hit(run.cue);
        hit.run = run;
        hit.found = {strike.rest, 0};
        if (from_here && !strike.hits.empty())
            hit.found = strike.after(strike.hits.back(), run.start - strike.hits.back().run.start);
        strike.hits.push_back(std::move(hit));
    }
    return [strike = std::move(strike)](double time) {
        Answer answer = answer_of(run_at(strike.runs, time), time);
        const State state = strike.at(time);
        answer.value[0] = state.value;
        answer.presence = state.presence;
        return answer;
    };
}

}  // namespace

ResponseKind strike_kind() {
    ResponseKind kind;
    kind.name = "strike";
    kind.words =
        "rises, stays and falls at each cue, as far as that is strong: to `least` at the weakest, to `most` at "
        "strength 1; "
        "a cue of strength 0 is none";
    kind.listens_to_cue = true;
    kind.outputs = {"presence", "strength", "direction", "place", "object", "since"};
    kind.arguments = {number_argument("rest", 0, 0, 1, "", "where it rests", Reads::steady),
                      number_argument("least", 0.25, 0, 1, "", "the peak of the weakest hit"),
                      number_argument("most", 1, 0, 1, "", "the peak of the strongest hit"),
                      number_argument("rise", 0.1, 0, 5, "s", "how long it takes to the peak"),
                      number_argument("stay", 0.1, 0, 5, "s", "how long it stays there"),
                      number_argument("fall", 0.6, 0, 5, "s", "how long it takes back to rest"),
                      easing_argument("rise_easing", "ease_out", "how the rise is spread"),
                      easing_argument("fall_easing", "ease_in_out", "how the fall is spread"),
                      when_again_argument()};
    kind.answerer = answerer;
    return kind;
}

}  // namespace lacquer
