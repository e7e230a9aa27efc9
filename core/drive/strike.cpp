#include <algorithm>

#include "core/drive/easing.h"
#include "core/drive/response.h"

namespace lacquer {

namespace {

struct Shape {
    double rest;
    double least;
    double most;
    double rise;
    double stay;
    double fall;
    Easing rise_easing;
    Easing fall_easing;
};

Shape shape_of(const Arguments& args) {
    return {args.number("rest"),
            args.number("least"),
            args.number("most"),
            std::max(args.number("rise"), 0.0),
            std::max(args.number("stay"), 0.0),
            std::max(args.number("fall"), 0.0),
            easing_named(args.word("rise_easing")).value_or(Easing{}),
            easing_named(args.word("fall_easing")).value_or(Easing{})};
}

// Where the strike stands: its value, and how present it is.
struct State {
    double value;
    double presence;
};

double blend(double a, double b, double share) {
    // Exactly a and exactly b at the ends, so that rest is rest to the last bit.
    if (share <= 0) return a;
    if (share >= 1) return b;
    return a * (1 - share) + b * share;
}

// `elapsed` seconds after a hit with this peak, which found the strike in state `from`.
State after_hit(const Shape& shape, State from, double peak, double elapsed) {
    if (elapsed < shape.rise) {
        const double share = shape.rise_easing(elapsed / shape.rise);
        return {blend(from.value, peak, share), blend(from.presence, 1, share)};
    }
    elapsed -= shape.rise;
    if (elapsed <= shape.stay) return {peak, 1};
    elapsed -= shape.stay;
    if (elapsed >= shape.fall) return {shape.rest, 0};
    const double share = shape.fall_easing(elapsed / shape.fall);
    return {blend(peak, shape.rest, share), blend(1, 0, share)};
}

State state_at(const Arguments& args, const Moment& moment) {
    const Shape shape = shape_of(args);
    State found{shape.rest, 0};  // as the latest hit found it
    const Cue* latest = nullptr;
    const auto peak_of = [&](const Cue& cue) { return blend(shape.least, shape.most, std::min(cue.strength, 1.0)); };
    for (const Cue& cue : moment.cues) {
        if (cue.at > moment.time) break;
        if (cue.name != args.cue() || !(cue.strength > 0)) continue;
        if (latest != nullptr) found = after_hit(shape, found, peak_of(*latest), cue.at - latest->at);
        latest = &cue;
    }
    if (latest == nullptr) return found;
    return after_hit(shape, found, peak_of(*latest), moment.time - latest->at);
}

}  // namespace

ResponseKind strike_kind() {
    ResponseKind kind;
    kind.name = "strike";
    kind.words = "rises, stays and falls at each cue; a new one takes over from where it is";
    kind.listens_to_cue = true;
    kind.arguments = {{"rest", 0, 0, 1, "", "where it rests"},
                      {"least", 0.25, 0, 1, "", "the peak of the weakest hit"},
                      {"most", 1, 0, 1, "", "the peak of the strongest hit"},
                      {"rise", 0.1, 0, 5, "s", "how long it takes to the peak"},
                      {"stay", 0.1, 0, 5, "s", "how long it stays there"},
                      {"fall", 0.6, 0, 5, "s", "how long it takes back to rest"},
                      {"rise_easing", 0, 0, 1, "", "how the rise is spread", easing_names(), "ease_out"},
                      {"fall_easing", 0, 0, 1, "", "how the fall is spread", easing_names(), "ease_in_out"}};
    kind.value = [](const Arguments& args, const Moment& moment) { return state_at(args, moment).value; };
    kind.presence = [](const Arguments& args, const Moment& moment) { return state_at(args, moment).presence; };
    return kind;
}

}  // namespace lacquer
