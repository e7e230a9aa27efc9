#include <algorithm>
#include <cmath>

#include "core/drive/runs.h"

namespace lacquer {

namespace {

struct Path {
    PathKeys keys = {};
    double times = 1;  // 0: for ever
    bool turns_back = false;

    double length() const { return keys.empty() ? 0 : std::max(keys.back().at, 0.0); }
    double lasts() const { return times > 0 ? length() * times * (turns_back ? 2 : 1) : for_ever; }
    // How far along its keys it is.
    double place(double elapsed) const {
        const double whole = length();
        if (whole <= 0) return 0;
        if (elapsed >= lasts()) return turns_back ? 0 : whole;
        const double part = std::fmod(std::max(elapsed, 0.0), whole * (turns_back ? 2 : 1));
        return part <= whole ? part : 2 * whole - part;
    }
    double plain(double elapsed) const { return path_value(keys, place(elapsed)); }
    // What it found beside its own beginning goes out on the way to its second key.
    double after(double elapsed, double beside) const {
        if (beside == 0 || keys.size() < 2) return plain(elapsed);
        const double over = std::max(keys[1].at, 0.0);
        if (elapsed >= over) return plain(elapsed);
        const double share = elapsed / over;
        return plain(elapsed) + beside * (1 - share * share * (3 - 2 * share));
    }
};

Answerer answerer(const Arguments& args) {
    Path path{args.keys("keys"), std::max(std::floor(args.number("repeat")), 0.0), args.word("turn_back") == "yes"};
    std::vector<Run> runs = runs_of(args, [&](const Cue&) { return path.lasts(); });
    std::vector<double> beside;
    const bool from_here = takes_over(args);
    for (std::size_t i = 0; i < runs.size(); ++i) {
        const bool carries = from_here && i > 0;
        const double found = carries ? path.after(runs[i].start - runs[i - 1].start, beside.back()) : 0;
        beside.push_back(carries ? found - path.plain(0) : 0);
    }
    return [path = std::move(path), runs = std::move(runs), beside = std::move(beside)](double time) {
        const Run* run = run_at(runs, time);
        Answer answer = answer_of(run, time);
        if (run == nullptr) {
            answer.value[0] = path.plain(0);
            return answer;
        }
        answer.value[0] = path.after(answer.since, beside[static_cast<std::size_t>(run - runs.data())]);
        answer.presence = answer.since < path.lasts() ? 1 : 0;
        return answer;
    };
}

}  // namespace

ResponseKind path_kind() {
    ResponseKind kind;
    kind.name = "path";
    kind.words = "follows a curve through keys";
    kind.listens_to_cue = true;
    kind.outputs = {"presence", "strength", "direction", "place", "object", "since"};
    kind.arguments = {ArgumentSpec{"keys", ArgumentKind::keys, 0, 0, 1, {}, "values at seconds"},
                      number_argument("repeat", 1, 0, 10, "times", "how often it runs; 0 is for ever", Reads::steady),
                      word_argument("turn_back", {"no", "yes"}, "whether it comes back the same way"),
                      when_again_argument()};
    kind.answerer = answerer;
    return kind;
}

}  // namespace lacquer
