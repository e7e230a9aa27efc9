#include <algorithm>
#include <cmath>

#include "core/drive/runs.h"

namespace lacquer {

namespace {

Answerer answerer(const Arguments& args) {
    const bool again = args.word("repeat") == "again";
    const auto length = [seconds = args.at_any_time("seconds")](const Cue& cue) {
        return std::max(seconds(cue.at), 0.0);
    };
    std::vector<Run> runs = runs_of(args, [&](const Cue& cue) { return again ? for_ever : length(cue); });
    std::vector<double> lengths;
    lengths.reserve(runs.size());
    for (const Run& run : runs) lengths.push_back(length(run.cue));
    return [runs = std::move(runs), lengths = std::move(lengths), again,
            in_runs = args.word("counts") == "runs"](double time) {
        const Run* run = run_at(runs, time);
        Answer answer = answer_of(run, time);
        if (run == nullptr) return answer;
        const double seconds = lengths[static_cast<std::size_t>(run - runs.data())];
        const bool is_running = again || answer.since < seconds;
        const double turns = seconds > 0 ? answer.since / seconds : 1;
        const double share = again ? turns - std::floor(turns) : std::min(turns, 1.0);
        answer.value[0] = in_runs ? share : answer.since;
        answer.presence = is_running ? 1 : 0;
        return answer;
    };
}

}  // namespace

ResponseKind clock_kind() {
    ResponseKind kind;
    kind.name = "clock";
    kind.words = "counts seconds, or the share of a run, since a cue";
    kind.listens_to_cue = true;
    kind.outputs = {"presence", "strength", "direction", "place", "object", "since"};
    kind.arguments = {word_argument("counts", {"runs", "seconds"}, "the share of a run from 0 to 1, or seconds"),
                      number_argument("seconds", 1, 0, 10, "s", "how long a run takes; 1 / speed"),
                      word_argument("repeat", {"once", "again"}, "whether it begins again at its end"),
                      when_again_argument({"start_again", "ignore", "queue"})};
    kind.answerer = answerer;
    return kind;
}

}  // namespace lacquer
