#include <cmath>
#include <numbers>
#include <string>

#include "core/drive/response.h"

namespace lacquer {

namespace {

// Each shape goes from 0 to 1 and back, or to 1 and down at once, over one turn.
double shape_value(const std::string& shape, double turns) {
    const double part = turns - std::floor(turns);
    if (shape == "triangle") return part < 0.5 ? 2 * part : 2 - 2 * part;
    if (shape == "saw") return part;
    if (shape == "square") return part < 0.5 ? 1 : 0;
    const double sine = std::sin(2 * std::numbers::pi * turns);
    if (shape == "size_of_sine") return std::fabs(sine);
    return 0.5 + 0.5 * sine;
}

double value(const Arguments& args, const Moment& moment) {
    const double turns = moment.time * args.number("rate") + args.number("phase");
    const double share = shape_value(args.word("shape"), turns);
    return args.number("low") * (1 - share) + args.number("high") * share;
}

}  // namespace

ResponseKind wave_kind() {
    ResponseKind kind;
    kind.name = "wave";
    kind.words = "swings between two values for ever";
    kind.arguments = {
        {"shape", 0, 0, 1, "", "the form of one swing", {"sine", "size_of_sine", "triangle", "saw", "square"}, "sine"},
        {"rate", 1, 0, 10, "/s", "swings a second"},
        {"low", 0, 0, 1, "", "the lower end"},
        {"high", 1, 0, 1, "", "the upper end"},
        {"phase", 0, 0, 1, "turns", "how far into a swing it starts"}};
    kind.value = value;
    return kind;
}

}  // namespace lacquer
