#include <cmath>
#include <numbers>

#include "core/drive/arguments.h"

namespace lacquer {

namespace {

// Each shape goes from 0 to 1 and back, or to 1 and down at once, over one turn.
double shape_value(const std::string& shape, double turns) {
    const double part = turns - std::floor(turns);
    if (shape == "triangle") return part < 0.5 ? 2 * part : 2 - 2 * part;
    if (shape == "saw") return part;
    if (shape == "square") return part < 0.5 ? 1 : 0;
    const double sine = std::sin(2 * std::numbers::pi * turns);
    if (shape == "absolute_sine") return std::fabs(sine);
    return 0.5 + 0.5 * sine;
}

Answerer answerer(const Arguments& args) {
    return [shape = args.word("shape"), rate = args.track("rate"), phase = args.number("phase"),
            low = args.at_any_time("low"), high = args.at_any_time("high")](double time) {
        // The rate is integrated, so that a change of it never makes the value jump.
        const double share = shape_value(shape, rate.integral(time) + phase);
        Answer answer;
        answer.value[0] = low(time) * (1 - share) + high(time) * share;
        return answer;
    };
}

}  // namespace

ResponseKind wave_kind() {
    ResponseKind kind;
    kind.name = "wave";
    kind.words = "swings between two values for ever";
    kind.arguments = {
        word_argument("shape", {"sine", "absolute_sine", "triangle", "saw", "square"}, "the form of one swing"),
        number_argument("rate", 1, 0, 10, "/s", "swings a second; 0 stands still", Reads::rate),
        number_argument("low", 0, 0, 1, "", "the lower end", Reads::any_time),
        number_argument("high", 1, 0, 1, "", "the upper end", Reads::any_time),
        number_argument("phase", 0, 0, 1, "turns", "how far into a swing it starts", Reads::steady)};
    kind.answerer = answerer;
    return kind;
}

}  // namespace lacquer
