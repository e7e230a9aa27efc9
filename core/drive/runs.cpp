#include "core/drive/runs.h"

#include <algorithm>

namespace lacquer {

std::vector<Run> runs_of(const Arguments& arguments, const Lasts& lasts) {
    if (arguments.cue().empty()) return {Run{}};
    const std::string rule = arguments.word("when_again");
    std::vector<Run> runs;
    const Cues heard = arguments.heard(arguments.cue());
    double over = -for_ever;
    for (std::size_t i = 0; i < heard.size(); ++i) {
        double start = heard[i].at;
        if (start < over && rule == "ignore") continue;
        if (start < over && rule == "queue") start = over;
        if (start == for_ever) break;
        runs.push_back({start, heard[i], i});
        over = start + lasts(heard[i]);
    }
    return runs;
}

ArgumentSpec when_again_argument(std::vector<std::string> choices) {
    return word_argument("when_again", std::move(choices), "what a cue does that comes while one runs");
}

bool takes_over(const Arguments& arguments) { return arguments.word("when_again") == "take_over"; }

const Run* run_at(const std::vector<Run>& runs, double time) {
    const auto next =
        std::upper_bound(runs.begin(), runs.end(), time, [](double t, const Run& run) { return t < run.start; });
    return next == runs.begin() ? nullptr : &*(next - 1);
}

Answer answer_of(const Run* run, double time) {
    Answer answer;
    answer.cue.strength = 0;
    if (run == nullptr) return answer;
    answer.cue = run->cue;
    answer.since = time - run->start;
    return answer;
}

double blend(double a, double b, double share) {
    if (share == 0) return a;
    if (share == 1) return b;
    return a * (1 - share) + b * share;
}

}  // namespace lacquer
