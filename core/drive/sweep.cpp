#include <algorithm>
#include <cmath>

#include "core/drive/easing.h"
#include "core/drive/response.h"

namespace lacquer {

namespace {

// The last cue that counts, or time 0 without one to listen to. False while none has come.
bool started(const Arguments& args, const Moment& moment, double& start) {
    start = 0;
    if (args.cue().empty()) return true;
    bool any = false;
    for (const Cue& cue : moment.cues) {
        if (cue.at > moment.time) break;
        if (cue.name == args.cue() && cue.strength > 0) {
            start = cue.at;
            any = true;
        }
    }
    return any;
}

double value(const Arguments& args, const Moment& moment) {
    const double from = args.number("from");
    const double to = args.number("to");
    double start = 0;
    if (!started(args, moment, start)) return from;
    const double elapsed = moment.time - start - args.number("delay");
    if (elapsed < 0) return from;
    const bool turns_back = args.word("turn_back") == "yes";
    const double seconds = std::max(args.number("seconds"), 0.0);
    const double runs = args.number("repeat");  // 0: for ever
    const double parts = turns_back ? 2 : 1;
    double run = seconds > 0 ? elapsed / seconds : parts * std::max(runs, 1.0);
    if (runs > 0 && run >= parts * runs) return turns_back ? from : to;
    run = std::fmod(run, parts);
    const double share = run <= 1 ? run : 2 - run;
    const double eased = easing_named(args.word("easing")).value_or(Easing{})(share);
    return from * (1 - eased) + to * eased;
}

}  // namespace

ResponseKind sweep_kind() {
    ResponseKind kind;
    kind.name = "sweep";
    kind.words = "goes from one value to another, once or again and again";
    kind.listens_to_cue = true;
    kind.arguments = {{"from", 0, 0, 1, "", "where it starts"},
                      {"to", 1, 0, 1, "", "where it goes"},
                      {"seconds", 1, 0, 10, "s", "how long one way takes"},
                      {"delay", 0, 0, 10, "s", "how long it waits first"},
                      {"easing", 0, 0, 1, "", "how the change is spread", easing_names(), "linear"},
                      {"repeat", 1, 0, 10, "times", "how often it runs; 0 is for ever"},
                      {"turn_back", 0, 0, 1, "", "whether it comes back the same way", {"no", "yes"}, "no"}};
    kind.value = value;
    return kind;
}

}  // namespace lacquer
