#include <algorithm>
#include <cmath>

#include "core/drive/arguments.h"

namespace lacquer {

namespace {

// Follows what it aims at: exact for any step of time, since aim and rate stay in between the moments of their change.
// By shares, the way that is left shrinks as exp(-rate * t) (common practice, no source); mixing a fixed share in every
// frame, as is often done, comes to the same only at one frame rate.
struct Chase {
    Track aim;
    Track rate;
    bool exponential = true;
    std::vector<double> moments = {};
    std::vector<double> reached = {};  // where it stands at each moment

    double from(double start, double at, double elapsed) const {
        const double way = aim.value(at) - start;
        const double much = std::max(rate.value(at), 0.0) * elapsed;
        if (exponential) return start + way * -std::expm1(-much);
        return start + std::clamp(way, -much, much);
    }
    double at(double time) const {
        const auto next = std::upper_bound(moments.begin(), moments.end(), time);
        if (next == moments.begin()) return reached.front();
        const auto i = static_cast<std::size_t>(next - moments.begin()) - 1;
        return from(reached[i], moments[i], time - moments[i]);
    }
};

double mapped(const Arguments& args, double signal) {
    const double low = args.number("in_low");
    const double high = args.number("in_high");
    const double share = low == high ? (signal >= high ? 1 : 0) : std::clamp((signal - low) / (high - low), 0.0, 1.0);
    return args.number("out_low") * (1 - share) + args.number("out_high") * share;
}

Answerer answerer(const Arguments& args) {
    const Track signal = args.track("signal");
    Chase chase{Track(mapped(args, signal.value(0))), args.track("rate"), args.word("way") == "exponential"};
    for (const double at : signal.moments()) chase.aim.change(at, mapped(args, signal.value(at)));
    chase.moments = moments_of(chase.aim, chase.rate);
    // It starts where the signal is, without running in.
    chase.reached.push_back(chase.aim.value(0));
    for (std::size_t i = 1; i < chase.moments.size(); ++i) {
        chase.reached.push_back(
            chase.from(chase.reached.back(), chase.moments[i - 1], chase.moments[i] - chase.moments[i - 1]));
    }
    return [chase = std::move(chase)](double time) {
        Answer answer;
        answer.value[0] = chase.at(time);
        return answer;
    };
}

}  // namespace

ResponseKind chase_kind() {
    ResponseKind kind;
    kind.name = "chase";
    kind.words = "follows a signal at a rate, from one range to another";
    kind.arguments = {number_argument("signal", 0, 0, 1, "", "what it follows: a formula over signals", Reads::rate),
                      number_argument("in_low", 0, 0, 1, "", "of the signal, for the lower end", Reads::steady),
                      number_argument("in_high", 1, 0, 1, "", "of the signal, for the upper end", Reads::steady),
                      number_argument("out_low", 0, 0, 1, "", "what it is at the lower end", Reads::steady),
                      number_argument("out_high", 1, 0, 1, "", "what it is at the upper end", Reads::steady),
                      number_argument("rate", 2, 0, 20, "/s", "how quickly it follows", Reads::rate),
                      word_argument("way", {"exponential", "linear"},
                                    "a share of what is left each second, or so many units each second")};
    kind.answerer = answerer;
    return kind;
}

}  // namespace lacquer
