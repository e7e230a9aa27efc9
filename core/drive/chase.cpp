#include "core/drive/runs.h"

namespace lacquer {

namespace {

Answerer chase_answerer(const Arguments& args) {
    const played::lq_chase_kind kind{args.number("in_low"), args.number("in_high"), args.number("out_low"),
                                     args.number("out_high"), args.word("way") == "exponential" ? 1 : 0};
    const Track signal = args.track("signal");
    const Track rate = args.track("rate");
    std::vector<played::lq_chase> states;
    for (const double at : moments_of(signal, rate)) {
        played::lq_chase state = states.empty() ? played::lq_chase{} : states.back();
        lq_chase_change(&state, &kind, at, signal.value(at), rate.value(at));
        states.push_back(state);
    }
    return [kind, states = std::move(states)](double time) {
        const auto next = std::upper_bound(states.begin(), states.end(), time,
                                           [](double t, const played::lq_chase& state) { return t < state.at; });
        Answer answer;
        answer.value[0] =
            next == states.begin() ? states.front().reached : played::lq_chase_value(&kind, &*(next - 1), time);
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
    kind.answerer = chase_answerer;
    return kind;
}

}  // namespace lacquer
