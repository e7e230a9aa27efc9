#include "core/drive/runs.h"

namespace lacquer {

namespace {

Answerer sweep_answerer(const Arguments& args) {
    const KeptEasing easing(args.easing("easing"));
    const played::lq_sweep_kind kind{args.word("turn_back") == "yes" ? 1 : 0, easing.played()};
    const CueReadings readings(args, {"from", "to", "seconds", "delay", "repeat"});
    Runs<played::lq_sweep> sweeps = replayed<played::lq_sweep>(
        args,
        [&](played::lq_sweep& run, double start, const Cue& cue, std::size_t) {
            const played::lq_cue heard = played_cue(cue);
            lq_sweep_begin(&run, start, &heard, readings.at(cue.at).data());
        },
        [&](const played::lq_sweep& run) { return lq_sweep_lasts(&kind, &run); },
        [&](played::lq_sweep& run, const played::lq_sweep& before) { lq_sweep_take_over(&run, &kind, &before); });
    return [kind, easing, before = args.number("from"), sweeps = std::move(sweeps)](double time) {
        const std::ptrdiff_t run = sweeps.at(time);
        if (run < 0) return answer_before(before);
        played::lq_answer answer{};
        lq_sweep_at(&sweeps[run], &kind, time, &answer);
        return answer_from(answer, sweeps.cue(run));
    };
}

}  // namespace

ResponseKind sweep_kind() {
    ResponseKind kind;
    kind.name = "sweep";
    kind.words = "goes from one value to another, once or in a loop";
    kind.listens_to_cue = true;
    kind.outputs = {"presence", "strength", "direction", "place", "object", "since"};
    kind.arguments = {number_argument("from", 0, 0, 1, "", "where it starts"),
                      number_argument("to", 1, 0, 1, "", "where it goes"),
                      number_argument("seconds", 1, 0, 10, "s", "how long one way takes"),
                      number_argument("delay", 0, 0, 10, "s", "how long it waits first"),
                      easing_argument("easing", "linear", "how the change is spread"),
                      number_argument("repeat", 1, 0, 10, "times", "how often it runs; 0 is for ever"),
                      word_argument("turn_back", {"no", "yes"}, "whether it comes back the same way"),
                      when_again_argument()};
    kind.answerer = sweep_answerer;
    return kind;
}

}  // namespace lacquer
