#include "core/finish/limits.h"

#include <fmt/core.h>

#include <cmath>

#include "core/finish/json_things.h"
#include "core/finish/json_tree.h"

namespace lacquer {

namespace {

Fault too_much(std::string message, std::string mend) {
    return {"edit.limit", std::move(message), std::move(mend), {}, Severity::fault};
}

Result<Done> few_enough(std::size_t count, const std::string& what) {
    if (count <= max_members) return Done{};
    return too_much(fmt::format("there can be {} {} at most", max_members, what), "take some out first");
}

// What is written must be read again.
Result<Done> readable(const Overlay& overlay) {
    for (const Patches* patches : {&overlay.dials, &overlay.steps, &overlay.grounds, &overlay.responses}) {
        if (patches->size() > max_json_keys)
            return too_much(fmt::format("a variant or look holds {} things of a kind at most", max_json_keys),
                            "take some steps out first");
    }
    return Done{};
}

bool is_writable(double number) { return std::fabs(number) <= largest_number; }

bool is_writable(const Json& value) {
    if (value.is_number()) return is_writable(value.number());
    for (const Json& member : value.list()) {
        if (!is_writable(member)) return false;
    }
    for (const auto& [key, member] : value.members()) {
        if (!is_writable(member)) return false;
    }
    return true;
}

Fault number_too_large(const std::string& name) {
    return too_much("'" + name + "' has a number beyond a million million", "use smaller ones");
}

// What is written of them has all their numbers, of whatever kind they are; keys of other versions are kept as text.
template <class Things>
Result<Done> numbers_fit(const Things& things) {
    for (auto thing : things) {
        thing.extra.clear();
        if (!is_writable(json_of(thing))) return number_too_large(thing.name);
    }
    return Done{};
}

Result<Done> numbers_fit(const std::vector<Signal>& signals) {
    for (const Signal& signal : signals) {
        for (const double number : {signal.value[0], signal.value[1], signal.least, signal.most, signal.zone.x,
                                    signal.zone.y, signal.zone.radius}) {
            if (!is_writable(number)) return number_too_large(signal.name);
        }
    }
    return Done{};
}

Result<Done> numbers_fit(const std::vector<CueKind>& cues) {
    for (const CueKind& cue : cues) {
        if (!is_writable(cue.strength) || !is_writable(cue.direction) || !is_writable(cue.weakest.value_or(0)))
            return number_too_large(cue.name);
    }
    return Done{};
}

Result<Done> numbers_fit(const Tape& tape) {
    for (const Cue& cue : tape.cues) {
        for (const double number : {cue.at, cue.strength, cue.direction, cue.x, cue.y}) {
            if (!is_writable(number)) return number_too_large(cue.name);
        }
    }
    for (const Change& change : tape.changes) {
        for (const double number : {change.at, change.value[0], change.value[1], change.value[2]}) {
            if (!is_writable(number)) return number_too_large(change.name);
        }
    }
    return Done{};
}

}  // namespace

std::size_t room_on(const Tape& tape) {
    const std::size_t taken = tape.cues.size() + tape.changes.size();
    return taken < max_tape_events ? max_tape_events - taken : 0;
}

Result<Done> within_limits(const Finish& finish) {
    if (!(finish.length > 0) || finish.length > max_length)
        return too_much(fmt::format("a length is up to {} seconds", max_length), "make it shorter");
    if (finish.tape.cues.size() + finish.tape.changes.size() > max_tape_events)
        return too_much(fmt::format("a tape holds {} cues and changes at most", max_tape_events), "part it");
    if (!(finish.ticks.rate >= least_tick_rate) || finish.ticks.rate > most_tick_rate)
        return too_much(fmt::format("there are {} to {} ticks a second", least_tick_rate, most_tick_rate),
                        "say how many");
    Result<Done> good = Done{};
    const auto check = [&](std::size_t count, const std::string& what) {
        if (good) good = few_enough(count, what);
    };
    check(finish.coats.size(), "coats");
    check(finish.grounds.size(), "grounds");
    check(finish.dials.size(), "dials");
    check(finish.cues.size(), "cues");
    check(finish.signals.size(), "signals");
    check(finish.responses.size(), "responses");
    check(finish.variants.size(), "variants");
    check(finish.set_aside.size(), "looks set aside");
    for (const Variant& variant : finish.variants) {
        if (good) good = readable(variant.overlay);
    }
    for (const SetAside& look : finish.set_aside) {
        if (good) good = readable(look.overlay);
    }
    for (const Coat& coat : finish.coats) check(coat.steps.size(), "steps in a coat");
    for (const Ground& ground : finish.grounds) {
        const ListLength list = list_of(ground);
        check(list.length, std::string(list.words) + " in '" + ground.name + "'");
    }
    for (const Response& response : finish.responses) {
        for (const auto& [name, setting] : response.settings) {
            if (const auto* keys = std::get_if<PathKeys>(&setting))
                check(keys->size(), "keys in '" + response.name + "'");
        }
    }
    if (good) good = numbers_fit(finish.grounds);
    if (good) good = numbers_fit(finish.dials);
    if (good) good = numbers_fit(finish.responses);
    if (good) good = numbers_fit(finish.signals);
    if (good) good = numbers_fit(finish.cues);
    if (good) good = numbers_fit(finish.tape);
    return good;
}

}  // namespace lacquer
