#include "core/drive/runs.h"

namespace lacquer {

played::lq_cue played_cue(const Cue& cue) { return {cue.strength, cue.direction, cue.x, cue.y, cue.object}; }

Answer answer_from(const played::lq_answer& answer, const Cue& cue) {
    return {{answer.value[0], answer.value[1]}, answer.presence, answer.turn, answer.zoom, cue, answer.since};
}

Answer answer_before(double value) {
    Answer answer;
    answer.cue.strength = 0;
    answer.value[0] = value;
    return answer;
}

int when_again_of(const Arguments& arguments) {
    const std::string rule = arguments.word("when_again");
    if (rule == "take_over") return LQ_TAKE_OVER;
    if (rule == "ignore") return LQ_IGNORE;
    return rule == "queue" ? LQ_QUEUE : LQ_START_AGAIN;
}

ArgumentSpec when_again_argument(std::vector<std::string> choices) {
    return word_argument("when_again", std::move(choices), "what a cue does that comes while one runs");
}

CueReadings::CueReadings(const Arguments& arguments, std::initializer_list<std::string_view> names) {
    for (const std::string_view name : names) readings_.push_back(arguments.at_any_time(name));
}

std::array<double, CueReadings::most> CueReadings::at(double time) const {
    std::array<double, most> read{};
    for (std::size_t i = 0; i < readings_.size(); ++i) read[i] = readings_[i](time);
    return read;
}

KeptEasing::KeptEasing(Easing easing)
    : easing_(std::make_shared<const Easing>(std::move(easing))), played_(played_easing(*easing_)) {}

}  // namespace lacquer
