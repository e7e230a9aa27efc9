#include "core/drive/runs.h"

namespace lacquer {

namespace {

Answerer strike_answerer(const Arguments& args) {
    const KeptEasing rise(args.easing("rise_easing"));
    const KeptEasing fall(args.easing("fall_easing"));
    const played::lq_strike_kind kind{args.number("rest"), rise.played(), fall.played()};
    const CueReadings readings(args, {"least", "most", "rise", "stay", "fall"});
    Runs<played::lq_strike> hits;
    // A strike answers cues only: without one to listen to, it rests.
    if (!args.cue().empty()) {
        hits = replayed<played::lq_strike>(
            args,
            [&](played::lq_strike& hit, double start, const Cue& cue, std::size_t) {
                const played::lq_cue heard = played_cue(cue);
                lq_strike_begin(&hit, &kind, start, &heard, readings.at(cue.at).data());
            },
            [](const played::lq_strike& hit) { return lq_strike_lasts(&hit); },
            [&](played::lq_strike& hit, const played::lq_strike& before) {
                lq_strike_take_over(&hit, &kind, &before);
            });
    }
    return [kind, rise, fall, hits = std::move(hits)](double time) {
        const std::ptrdiff_t hit = hits.at(time);
        if (hit < 0) return answer_before(kind.rest);
        played::lq_answer answer{};
        lq_strike_at(&hits[hit], &kind, time, &answer);
        return answer_from(answer, hits.cue(hit));
    };
}

}  // namespace

ResponseKind strike_kind() {
    ResponseKind kind;
    kind.name = "strike";
    kind.words =
        "rises, stays and falls at each cue, as far as that is strong: to `least` at the weakest, to `most` at "
        "strength 1; "
        "a cue of strength 0 is none";
    kind.listens_to_cue = true;
    kind.outputs = {"presence", "strength", "direction", "place", "object", "since"};
    kind.arguments = {number_argument("rest", 0, 0, 1, "", "where it rests", Reads::steady),
                      number_argument("least", 0.25, 0, 1, "", "the peak of the weakest hit"),
                      number_argument("most", 1, 0, 1, "", "the peak of the strongest hit"),
                      number_argument("rise", 0.1, 0, 5, "s", "how long it takes to the peak"),
                      number_argument("stay", 0.1, 0, 5, "s", "how long it stays there"),
                      number_argument("fall", 0.6, 0, 5, "s", "how long it takes back to rest"),
                      easing_argument("rise_easing", "ease_out", "how the rise is spread"),
                      easing_argument("fall_easing", "ease_in_out", "how the fall is spread"),
                      when_again_argument()};
    kind.answerer = strike_answerer;
    return kind;
}

}  // namespace lacquer
