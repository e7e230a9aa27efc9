#include "core/drive/runs.h"

namespace lacquer {

namespace {

Answerer jolt_answerer(const Arguments& args) {
    const Track rate = args.track("rate");
    const played::lq_jolt_kind kind{args.word("decay_form") == "linear" ? 1 : 0,
                                    args.word("way") == "along_the_blow" ? 1 : 0,
                                    args.word("each_time") == "new" ? 1 : 0, played::lq_word(args.number("seed"))};
    const CueReadings readings(args, {"reach", "turn", "zoom", "seconds", "decay"});
    Runs<played::lq_jolt> blows = replayed<played::lq_jolt>(
        args,
        [&](played::lq_jolt& blow, double start, const Cue& cue, std::size_t number) {
            const played::lq_cue heard = played_cue(cue);
            lq_jolt_begin(&blow, &kind, start, &heard, readings.at(cue.at).data(), static_cast<std::uint32_t>(number),
                          rate.integral(start));
        },
        [](const played::lq_jolt& blow) { return blow.seconds; },
        [&](played::lq_jolt& blow, const played::lq_jolt& before) { lq_jolt_take_over(&blow, &kind, &before); });
    return [kind, rate, blows = std::move(blows)](double time) {
        const std::ptrdiff_t blow = blows.at(time);
        if (blow < 0) return answer_before(0);
        played::lq_answer answer{};
        lq_jolt_at(&blows[blow], &kind, time, rate.integral(time), &answer);
        return answer_from(answer, blows.cue(blow));
    };
}

}  // namespace

ResponseKind jolt_kind() {
    ResponseKind kind;
    kind.name = "jolt";
    kind.words = "shakes at each cue and dies away; to be added to a place or a view";
    kind.listens_to_cue = true;
    kind.width = 2;
    kind.outputs = {"presence", "turn", "zoom", "strength", "direction", "place", "object", "since"};
    kind.arguments = {
        number_argument("reach", 12, 0, 100, "px", "how far at full strength; the unit is yours"),
        number_argument("rate", 14, 0, 60, "/s", "how quick it is", Reads::rate),
        number_argument("seconds", 0.8, 0, 5, "s", "after which it is at rest for certain"),
        number_argument("decay", 20, 0, 100, "/s", "what the reach loses a second; or the rate, if exponential"),
        word_argument("decay_form", {"linear", "exponential"}, "the same each second, or the same share"),
        word_argument("way", {"all_round", "along_the_blow"}, "where it goes"),
        number_argument("turn", 0, -45, 45, "deg", "how far it turns at full strength"),
        number_argument("zoom", 0, -0.5, 0.5, "", "by which share it comes nearer at full strength"),
        number_argument("seed", 1, 0, 999, "", "another shake for each number", Reads::steady),
        word_argument("each_time", {"new", "same"}, "whether each blow shakes in its own way"),
        when_again_argument()};
    kind.answerer = jolt_answerer;
    return kind;
}

}  // namespace lacquer
