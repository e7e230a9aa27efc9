#include <cmath>

#include "core/drive/runs.h"

namespace lacquer {

namespace {

Answerer path_answerer(const Arguments& args) {
    const auto keys = std::make_shared<const std::vector<played::lq_key>>(played_keys(args.keys("keys")));
    const played::lq_path_kind kind{keys->data(), static_cast<int>(keys->size()),
                                    std::max(std::floor(args.number("repeat")), 0.0),
                                    args.word("turn_back") == "yes" ? 1 : 0};
    Runs<played::lq_path> runs = replayed<played::lq_path>(
        args,
        [](played::lq_path& run, double start, const Cue& cue, std::size_t) {
            const played::lq_cue heard = played_cue(cue);
            lq_path_begin(&run, start, &heard);
        },
        [&](const played::lq_path&) { return lq_path_lasts(&kind); },
        [&](played::lq_path& run, const played::lq_path& before) { lq_path_take_over(&run, &kind, &before); });
    return [keys, kind, runs = std::move(runs)](double time) {
        const std::ptrdiff_t run = runs.at(time);
        if (run < 0) return answer_before(lq_path_plain(&kind, 0));
        played::lq_answer answer{};
        lq_path_at(&runs[run], &kind, time, &answer);
        return answer_from(answer, runs.cue(run));
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
    kind.answerer = path_answerer;
    return kind;
}

}  // namespace lacquer
