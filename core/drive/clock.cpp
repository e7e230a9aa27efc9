#include "core/drive/runs.h"

namespace lacquer {

namespace {

Answerer clock_answerer(const Arguments& args) {
    const played::lq_clock_kind kind{args.word("repeat") == "again" ? 1 : 0, args.word("counts") == "runs" ? 1 : 0};
    const CueReadings readings(args, {"seconds"});
    Runs<played::lq_clock> runs = replayed<played::lq_clock>(
        args,
        [&](played::lq_clock& run, double start, const Cue& cue, std::size_t) {
            const played::lq_cue heard = played_cue(cue);
            lq_clock_begin(&run, start, &heard, readings.at(cue.at).data());
        },
        [&](const played::lq_clock& run) { return lq_clock_lasts(&kind, &run); }, never_takes_over);
    return [kind, runs = std::move(runs)](double time) {
        const std::ptrdiff_t run = runs.at(time);
        if (run < 0) return answer_before(0);
        played::lq_answer answer{};
        lq_clock_at(&runs[run], &kind, time, &answer);
        return answer_from(answer, runs.cue(run));
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
    kind.answerer = clock_answerer;
    return kind;
}

}  // namespace lacquer
