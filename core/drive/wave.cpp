#include "core/drive/runs.h"

namespace lacquer {

namespace {

int shape_of(const std::string& word) {
    if (word == "triangle") return LQ_WAVE_TRIANGLE;
    if (word == "saw") return LQ_WAVE_SAW;
    if (word == "square") return LQ_WAVE_SQUARE;
    return word == "absolute_sine" ? LQ_WAVE_ABSOLUTE_SINE : LQ_WAVE_SINE;
}

Answerer wave_answerer(const Arguments& args) {
    return [shape = shape_of(args.word("shape")), rate = args.track("rate"), phase = args.number("phase"),
            low = args.at_any_time("low"), high = args.at_any_time("high")](double time) {
        Answer answer;
        answer.value[0] = played::lq_wave_value(shape, rate.integral(time) + phase, low(time), high(time));
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
    kind.answerer = wave_answerer;
    return kind;
}

}  // namespace lacquer
