#include "core/finish/played_finish.h"

#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/kinds.h"
#include "core/finish/limits.h"
#include "core/finish/variants.h"

namespace lacquer {

namespace {

template <class Things>
void add_names(std::vector<std::string>& names, const Things& things) {
    for (const auto& thing : things) names.push_back(thing.name);
}

// Whether it is one of these names.
Result<Done> known(const std::string& what, const std::string& name, const std::vector<std::string>& names) {
    if (std::find(names.begin(), names.end(), name) != names.end()) return Done{};
    const auto near = nearest_name(name, names);
    return Fault{"play.unknown",
                 "there is no " + what + " '" + name + "'",
                 near ? "did you mean " + *near + "?" : "use one of those that there are",
                 {},
                 Severity::fault};
}

template <class Things>
Result<Done> known_one_of(const std::string& what, const std::string& name, const Things& things) {
    std::vector<std::string> names;
    add_names(names, things);
    return known(what, name, names);
}

Result<Done> playable(double at, std::initializer_list<double> numbers) {
    const bool are_numbers = std::all_of(numbers.begin(), numbers.end(), [](double n) { return std::isfinite(n); });
    if (are_numbers && std::isfinite(at) && at >= 0) return Done{};
    return Fault{
        "play.value", "what is played has numbers, and a time from 0 s on", "hand in others", {}, Severity::fault};
}

Result<Done> room(const Tape& tape) {
    if (room_on(tape) > 0) return Done{};
    return Fault{"play.full", "the tape is full", "clear it, or play less on it", {}, Severity::fault};
}

void check(PlayedFinish& played, Finish finish) {
    played.checked = std::make_shared<const CheckedFinish>(
        check_finish(std::make_shared<const Finish>(std::move(finish)), played.catalogue, played.checked.get()));
}

}  // namespace

PlayedFinish play_finish(Finish finish, std::string path, std::shared_ptr<const Catalogue> catalogue) {
    PlayedFinish played{std::move(path), std::move(catalogue), nullptr, {finish.name, finish.length, finish.tape}};
    check(played, std::move(finish));
    return played;
}

Result<Done> use_variant(PlayedFinish& played, const std::string& name) {
    if (!name.empty()) {
        if (auto is_known = known_one_of("variant", name, played.finish().variants); !is_known) return is_known;
    }
    if (played.finish().variant != name) check(played, switch_variant(played.finish(), name));
    return Done{};
}

Result<Done> use_tape(PlayedFinish& played, const std::string& path, Faults& notices) {
    Result<NamedTape> tape = load_tape(path, notices);
    if (!tape) return tape.fault();
    played.tape = std::move(*tape);
    return Done{};
}

Result<Done> hold_dial(PlayedFinish& played, const std::string& name, const DialValue& value) {
    if (auto is_known = known_one_of("dial", name, played.finish().dials); !is_known) return is_known;
    if (auto good = playable(0, {value[0], value[1], value[2]}); !good) return good;
    played.held[name] = value;
    return Done{};
}

Result<Done> let_go_of_dial(PlayedFinish& played, const std::string& name) {
    if (auto is_known = known_one_of("dial", name, played.finish().dials); !is_known) return is_known;
    played.held.erase(name);
    return Done{};
}

Result<Done> press_cue(PlayedFinish& played, Cue cue) {
    if (auto is_known = known_one_of("cue", cue.name, played.finish().cues); !is_known) return is_known;
    if (auto good = playable(cue.at, {cue.strength, cue.direction, cue.x, cue.y}); !good) return good;
    if (auto has_room = room(played.tape.tape); !has_room) return has_room;
    cue.strength = std::clamp(cue.strength, 0.0, 1.0);
    add_to_tape(played.tape.tape, std::move(cue));
    return Done{};
}

Result<Done> change_at(PlayedFinish& played, Change change) {
    std::vector<std::string> names;
    add_names(names, played.finish().signals);
    add_names(names, played.finish().dials);
    if (auto is_known = known("signal or dial", change.name, names); !is_known) return is_known;
    if (auto good = playable(change.at, {change.value[0], change.value[1], change.value[2]}); !good) return good;
    if (auto has_room = room(played.tape.tape); !has_room) return has_room;
    add_to_tape(played.tape.tape, std::move(change));
    return Done{};
}

}  // namespace lacquer
