#include "core/finish/edits.h"

#include <algorithm>

#include "core/base/text.h"
#include "core/finish/ground_pictures.h"
#include "core/lang/builtins.h"
#include "core/lang/known_names.h"
#include "core/lang/rename.h"
#include "core/lang/token.h"

namespace lacquer {

namespace {

Fault edit_fault(const char* id, std::string_view where, std::string message, std::string mend) {
    return {id, std::move(message), std::move(mend), {std::string(where), {}, 0, 0}, Severity::fault};
}

Fault unknown(std::string_view name) {
    return edit_fault("edit.unknown", name, "nothing is called '" + std::string(name) + "'", "");
}

bool is_known_word(std::string_view name) { return is_builtin_name(name) || is_known_name(name); }

Result<Done> check_new_name(const Finish& finish, const std::string& name) {
    if (!is_identifier(name)) {
        return edit_fault("edit.name", name, "a name needs a letter first", "use up to 24 letters, digits and blanks");
    }
    if (is_known_word(name)) {
        return edit_fault("edit.name", name, "'" + name + "' is a word of the language", "choose another name");
    }
    if (is_name_taken(finish, name)) {
        return edit_fault("edit.name", name, "'" + shown_name(name) + "' exists already", "choose another name");
    }
    return Done{};
}

// A step's place, or no value.
bool find_place(const Finish& finish, std::string_view name, StepPlace& place) {
    for (std::size_t c = 0; c < finish.coats.size(); ++c) {
        for (std::size_t s = 0; s < finish.coats[c].steps.size(); ++s) {
            if (finish.coats[c].steps[s].name == name) {
                place = {c, s};
                return true;
            }
        }
    }
    return false;
}

auto step_at(Finish& finish, StepPlace place) {
    return finish.coats[place.coat].steps.begin() + static_cast<std::ptrdiff_t>(place.step);
}

bool uses(std::string_view formula, std::string_view name) { return rename_in_formula(formula, name, "*") != formula; }

// Droplets read curves, a place in play, and by their formulas dials and signals.
bool goes_by(const Ground& ground, std::string_view name) {
    Ground copy = ground;
    auto* drops = copy.as<DropletsGround>();
    if (drops == nullptr) return false;
    const std::vector<std::string*> names = names_in(*drops);
    const std::vector<DropFormula> formulas = formulas_of(*drops);
    return std::any_of(names.begin(), names.end(), [&](const std::string* each) { return *each == name; }) ||
           std::any_of(formulas.begin(), formulas.end(),
                       [&](const DropFormula& each) { return uses(*each.text, name); });
}

}  // namespace

std::vector<std::string*> formulas_of(Response& response) {
    std::vector<std::string*> formulas;
    const ResponseKind* kind = find_response_kind(response.kind);
    if (kind == nullptr) return formulas;
    for (auto& [name, setting] : response.settings) {
        std::string* text = std::get_if<std::string>(&setting);
        const ArgumentSpec* spec = find_argument(*kind, name);
        if (text == nullptr || spec == nullptr) continue;
        if (spec->kind == ArgumentKind::number || spec->kind == ArgumentKind::condition) formulas.push_back(text);
    }
    return formulas;
}

Finish rename_cue(Finish finish, const std::string& from, const std::string& to) {
    for (CueKind& cue : finish.cues) {
        if (cue.name == from) cue.name = to;
    }
    for (Response& response : finish.responses) {
        if (response.cue == from) response.cue = to;
        const ResponseKind* kind = find_response_kind(response.kind);
        for (auto& [name, setting] : response.settings) {
            std::string* text = std::get_if<std::string>(&setting);
            const ArgumentSpec* spec = kind == nullptr ? nullptr : find_argument(*kind, name);
            if (text != nullptr && spec != nullptr && spec->kind == ArgumentKind::cue && *text == from) *text = to;
        }
    }
    for (Ground& ground : finish.grounds) {
        auto* drops = ground.as<DropletsGround>();
        if (drops == nullptr) continue;
        for (std::string* cue : cues_in(*drops)) {
            if (*cue == from) *cue = to;
        }
    }
    for (Cue& played : finish.tape.cues) {
        if (played.name == from) played.name = to;
    }
    if (finish.ticks.reset == from) finish.ticks.reset = to;
    return finish;
}

bool is_known_name(std::string_view name) { return find_known(name) != nullptr; }

bool is_name_taken(const Finish& finish, std::string_view name) {
    const auto named = [&](const auto& thing) { return thing.name == name; };
    return find_step(finish, name) != nullptr || std::any_of(finish.dials.begin(), finish.dials.end(), named) ||
           std::any_of(finish.grounds.begin(), finish.grounds.end(), named) ||
           find_ground_picture(finish, name).has_value() ||
           std::any_of(finish.responses.begin(), finish.responses.end(), named) ||
           std::any_of(finish.signals.begin(), finish.signals.end(), named);
}

std::string free_name(const Finish& finish, std::string_view wish) {
    const std::string stem = std::string(wish).substr(0, max_name_length - 4);
    std::string name = stem;
    for (int n = is_known_word(name) ? 1 : 2; is_name_taken(finish, name) || is_known_word(name); ++n)
        name = stem + "_" + std::to_string(n);
    return name;
}

StepPlace place_of(const Finish& finish, std::string_view name) {
    StepPlace place;
    if (!find_place(finish, name, place) && !finish.coats.empty()) {
        place = {finish.coats.size() - 1, finish.coats.back().steps.size()};
    }
    return place;
}

Result<Finish> add_step(Finish finish, std::string_view after, Step step) {
    if (auto good = check_new_name(finish, step.name); !good) return good.fault();
    if (finish.coats.empty()) finish.coats.push_back(Coat{"Coat 1", "", true, false, {}, {}});
    StepPlace place;
    if (find_place(finish, after, place)) {
        ++place.step;
    } else {
        place = {finish.coats.size() - 1, finish.coats.back().steps.size()};
    }
    finish.coats[place.coat].steps.insert(step_at(finish, place), std::move(step));
    return finish;
}

Result<Finish> delete_step(Finish finish, std::string_view name) {
    StepPlace place;
    if (!find_place(finish, name, place)) return unknown(name);
    finish.coats[place.coat].steps.erase(step_at(finish, place));
    return finish;
}

Result<Finish> move_step(Finish finish, std::string_view name, int direction) {
    StepPlace place;
    if (!find_place(finish, name, place)) return unknown(name);
    auto& steps = finish.coats[place.coat].steps;
    const auto at = static_cast<std::ptrdiff_t>(place.step);
    const std::ptrdiff_t to = at + direction;
    if (to >= 0 && to < static_cast<std::ptrdiff_t>(steps.size())) {
        std::iter_swap(steps.begin() + at, steps.begin() + to);
        return finish;
    }
    const std::ptrdiff_t coat = static_cast<std::ptrdiff_t>(place.coat) + direction;
    if (coat < 0 || coat >= static_cast<std::ptrdiff_t>(finish.coats.size())) {
        return edit_fault("edit.end", name,
                          "'" + shown_name(name) + "' is " + (direction < 0 ? "first" : "last") + " already", "");
    }
    Step moved = std::move(steps[place.step]);
    steps.erase(steps.begin() + at);
    auto& target = finish.coats[static_cast<std::size_t>(coat)].steps;
    target.insert(direction < 0 ? target.end() : target.begin(), std::move(moved));
    return finish;
}

Result<Finish> rename(Finish finish, std::string_view from, std::string_view typed) {
    if (!is_name_taken(finish, from)) return unknown(from);
    const std::string old(from);
    const std::string to = identifier_from(typed);
    if (to == old) return finish;
    if (auto good = check_new_name(finish, to); !good) return good.fault();
    const auto rename_in = [&](auto& things) {
        for (auto& thing : things) {
            if (thing.name == old) thing.name = to;
        }
    };
    // A scene's layers go by its name.
    std::vector<std::pair<std::string, std::string>> names{{old, to}};
    if (const Ground* ground = find_ground(finish, old); ground != nullptr) {
        Ground renamed = *ground;
        renamed.name = to;
        const std::vector<GroundPicture> before = ground_pictures(*ground);
        const std::vector<GroundPicture> after = ground_pictures(renamed);
        for (std::size_t i = 1; i < before.size(); ++i) names.emplace_back(before[i].name, after[i].name);
        for (Ground& each : finish.grounds) {
            if (std::string* other = other_of(each); other != nullptr && *other == old) *other = to;
        }
    }
    for (Ground& each : finish.grounds) {
        auto* drops = each.as<DropletsGround>();
        if (drops == nullptr) continue;
        for (std::string* name : names_in(*drops)) {
            if (*name == old) *name = to;
        }
        for (const DropFormula& formula : formulas_of(*drops))
            *formula.text = rename_in_formula(*formula.text, old, to);
    }
    rename_in(finish.grounds);
    rename_in(finish.responses);
    rename_in(finish.signals);
    for (Signal& signal : finish.signals) {
        if (signal.zone.of == old) signal.zone.of = to;
    }
    for (Response& response : finish.responses) {
        for (std::string* formula : formulas_of(response)) *formula = rename_in_formula(*formula, old, to);
    }
    for (Change& change : finish.tape.changes) {
        if (change.name == old) change.name = to;
    }
    for (Dial& dial : finish.dials) {
        // The game's name for it stays, unless nobody has given it one yet.
        if (dial.name == old && dial.code_name == old && old.starts_with("dial")) dial.code_name = to;
    }
    rename_in(finish.dials);
    if (finish.ticks.reset == old) finish.ticks.reset = to;
    for (Dial& dial : finish.dials) dial.formula = rename_in_formula(dial.formula, old, to);
    for (Coat& coat : finish.coats) {
        rename_in(coat.steps);
        for (Step& step : coat.steps) {
            for (const auto& [from_name, to_name] : names) {
                for (std::string* formula : {&step.formula, &step.ticking.starts})
                    *formula = rename_in_formula(*formula, from_name, to_name);
            }
        }
    }
    for (const auto& [from_name, to_name] : names) {
        if (!finish.variants.empty()) {
            for (Variant& each : finish.variants.own()) each.overlay = renamed_in(each.overlay, from_name, to_name);
        }
        if (!finish.set_aside.empty()) {
            for (SetAside& each : finish.set_aside.own()) {
                each.overlay = renamed_in(each.overlay, from_name, to_name);
                if (auto held = each.held.extract(from_name)) {
                    held.key() = to_name;
                    each.held.insert(std::move(held));
                }
            }
        }
    }
    return finish;
}

Finish add_coat(Finish finish, std::size_t after, std::string name) {
    const std::size_t at = finish.coats.empty() ? 0 : std::min(after + 1, finish.coats.size());
    finish.coats.insert(finish.coats.begin() + static_cast<std::ptrdiff_t>(at),
                        Coat{std::move(name), "", true, false, {}, {}});
    return finish;
}

Result<Finish> delete_coat(Finish finish, std::size_t coat) {
    if (coat >= finish.coats.size()) return unknown("coat");
    finish.coats.erase(finish.coats.begin() + static_cast<std::ptrdiff_t>(coat));
    return finish;
}

Result<Finish> add_dial(Finish finish, Dial dial) {
    if (auto good = check_new_name(finish, dial.name); !good) return good.fault();
    if (dial.code_name.empty()) dial.code_name = dial.name;
    finish.dials.push_back(std::move(dial));
    return finish;
}

Result<Finish> delete_dial(Finish finish, std::string_view name) {
    const auto gone =
        std::remove_if(finish.dials.begin(), finish.dials.end(), [&](const Dial& d) { return d.name == name; });
    if (gone == finish.dials.end()) return unknown(name);
    finish.dials.erase(gone, finish.dials.end());
    return finish;
}

Result<Finish> move_dial(Finish finish, std::string_view name, int direction) {
    const auto found =
        std::find_if(finish.dials.begin(), finish.dials.end(), [&](const Dial& d) { return d.name == name; });
    if (found == finish.dials.end()) return unknown(name);
    const std::ptrdiff_t to = found - finish.dials.begin() + direction;
    if (to < 0 || to >= static_cast<std::ptrdiff_t>(finish.dials.size())) {
        return edit_fault("edit.end", name,
                          "'" + shown_name(name) + "' is " + (direction < 0 ? "first" : "last") + " already", "");
    }
    std::iter_swap(found, finish.dials.begin() + to);
    return finish;
}

std::vector<std::string> users_of(const Finish& finish, std::string_view name) {
    std::vector<std::string> users;
    for_each_step(finish, [&](const Coat&, const Step& step) {
        if (uses(step.formula, name)) users.push_back(step.name);
    });
    for (const Response& response : finish.responses) {
        Response copy = response;
        for (const std::string* formula : formulas_of(copy)) {
            if (!uses(*formula, name)) continue;
            users.push_back(response.name);
            break;
        }
    }
    for (const Ground& ground : finish.grounds) {
        if (goes_by(ground, name)) users.push_back(ground.name);
    }
    for (const Dial& dial : finish.dials) {
        if (uses(dial.formula, name)) users.push_back(dial.name);
    }
    return users;
}

Finish empty_finish() {
    Finish finish;
    finish.coats.push_back(Coat{"Coat 1", "", true, false, {}, {}});
    return finish;
}

}  // namespace lacquer
