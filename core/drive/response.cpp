#include "core/drive/response.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/base/text.h"
#include "core/drive/arguments.h"

namespace lacquer {

ArgumentSpec number_argument(std::string_view name, double usual, double least, double most, std::string_view unit,
                             std::string_view words, Reads reads) {
    return {name, ArgumentKind::number, usual, least, most, unit, words, reads};
}

ArgumentSpec word_argument(std::string_view name, std::vector<std::string> choices, std::string_view words) {
    ArgumentSpec spec{name, ArgumentKind::word, 0, 0, 1, {}, words, Reads::steady};
    spec.default_word = choices.front();
    spec.choices = std::move(choices);
    return spec;
}

ArgumentSpec easing_argument(std::string_view name, std::string usual, std::string_view words) {
    ArgumentSpec spec{name, ArgumentKind::easing, 0, 0, 1, {}, words, Reads::steady};
    spec.default_word = std::move(usual);
    return spec;
}

std::span<const OutputSpec> response_outputs() {
    using Two = std::array<double, 2>;
    static const std::vector<OutputSpec> outputs = {{"presence", 1, "0 at rest, 1 at its peak",
                                                     [](const Answer& a) {
                                                         return Two{a.presence, 0};
                                                     }},
                                                    {"turn", 1, "degrees clockwise",
                                                     [](const Answer& a) {
                                                         return Two{a.turn, 0};
                                                     }},
                                                    {"zoom", 1, "share by which it comes nearer",
                                                     [](const Answer& a) {
                                                         return Two{a.zoom, 0};
                                                     }},
                                                    {"strength", 1, "of the cue that it answers",
                                                     [](const Answer& a) {
                                                         return Two{a.cue.strength, 0};
                                                     }},
                                                    {"direction", 2, "of the cue, of length 1",
                                                     [](const Answer& a) {
                                                         const double angle = a.cue.direction * std::numbers::pi / 180;
                                                         return Two{std::cos(angle), std::sin(angle)};
                                                     }},
                                                    {"place", 2, "of the cue in the frame, 0 to 1",
                                                     [](const Answer& a) {
                                                         return Two{a.cue.x, a.cue.y};
                                                     }},
                                                    {"object", 1, "number of the cue's object",
                                                     [](const Answer& a) {
                                                         return Two{static_cast<double>(a.cue.object), 0};
                                                     }},
                                                    {"since", 1, "seconds since the cue", [](const Answer& a) {
                                                         return Two{a.since, 0};
                                                     }}};
    return outputs;
}

bool ResponseKind::has(std::string_view output) const {
    return std::find(outputs.begin(), outputs.end(), output) != outputs.end();
}

std::span<const ResponseKind> response_kinds() {
    static const std::vector<ResponseKind> kinds = {hold_kind(),  sweep_kind(), strike_kind(), wave_kind(),
                                                    jolt_kind(),  chase_kind(), drift_kind(),  gate_kind(),
                                                    clock_kind(), path_kind()};
    return kinds;
}

const ResponseKind* find_response_kind(std::string_view name) {
    for (const ResponseKind& kind : response_kinds()) {
        if (kind.name == name) return &kind;
    }
    return nullptr;
}

const ArgumentSpec* find_argument(const ResponseKind& kind, std::string_view name) {
    for (const ArgumentSpec& spec : kind.arguments) {
        if (spec.name == name) return &spec;
    }
    return nullptr;
}

std::optional<double> number_of(const Response& response, std::string_view argument) {
    const ResponseKind* kind = find_response_kind(response.kind);
    const ArgumentSpec* spec = kind == nullptr ? nullptr : find_argument(*kind, argument);
    if (spec == nullptr || spec->kind != ArgumentKind::number) return std::nullopt;
    const auto set = response.settings.find(std::string(argument));
    if (set == response.settings.end()) return spec->default_number;
    const double* number = std::get_if<double>(&set->second);
    return number == nullptr ? std::nullopt : std::optional<double>(*number);
}

std::string setting_text(const Response& response, std::string_view argument) {
    const auto set = response.settings.find(std::string(argument));
    if (set != response.settings.end()) {
        if (const double* number = std::get_if<double>(&set->second)) return shortest_number(*number);
        if (const std::string* text = std::get_if<std::string>(&set->second)) return *text;
        return {};
    }
    const ResponseKind* kind = find_response_kind(response.kind);
    const ArgumentSpec* spec = kind == nullptr ? nullptr : find_argument(*kind, argument);
    if (spec == nullptr) return {};
    return spec->kind == ArgumentKind::number ? shortest_number(spec->default_number) : spec->default_word;
}

namespace {

std::string did_you_mean(const std::string& word, const std::vector<std::string>& names) {
    const auto near = nearest_name(word, names);
    return near ? "did you mean " + *near + "?" : "use one of those that there are";
}

// What a setting must be, in the user's words; empty if it is that.
std::string wanted_instead(const ArgumentSpec& spec, const Setting& setting) {
    const bool is_text = std::holds_alternative<std::string>(setting);
    switch (spec.kind) {
        case ArgumentKind::number:
            return is_text || std::holds_alternative<double>(setting) ? "" : "a number or a formula";
        case ArgumentKind::condition:
            return is_text ? "" : "a formula for yes or no";
        case ArgumentKind::keys:
            return std::holds_alternative<PathKeys>(setting) ? "" : "keys";
        case ArgumentKind::word:
        case ArgumentKind::easing:
        case ArgumentKind::cue:
            break;
    }
    return is_text ? "" : "a word";
}

void check_setting(const Response& response, const ArgumentSpec& spec, const Setting& setting, Faults& faults) {
    const Place place{response.name, {}, 0, 0};
    const std::string name(spec.name);
    if (const std::string wanted = wanted_instead(spec, setting); !wanted.empty()) {
        faults.push_back({"drive.argument", "'" + name + "' takes " + wanted, "", place, Severity::fault});
        return;
    }
    const std::string* word = std::get_if<std::string>(&setting);
    if (word == nullptr) return;
    if (spec.kind == ArgumentKind::easing) {
        if (Result<Easing> easing = easing_from(*word); !easing) {
            Fault fault = easing.fault();
            fault.place = place;
            faults.push_back(std::move(fault));
        }
    }
    const auto& choices = spec.choices;
    if (spec.kind == ArgumentKind::word && std::find(choices.begin(), choices.end(), *word) == choices.end()) {
        faults.push_back({"drive.argument", "'" + name + "' cannot be '" + *word + "'", did_you_mean(*word, choices),
                          place, Severity::fault});
    }
}

}  // namespace

Faults check_response(const Response& response) {
    const Place place{response.name, {}, 0, 0};
    const ResponseKind* kind = find_response_kind(response.kind);
    if (kind == nullptr) {
        std::vector<std::string> names;
        for (const ResponseKind& known : response_kinds()) names.emplace_back(known.name);
        return {{"drive.kind", "there is no response '" + response.kind + "'", did_you_mean(response.kind, names),
                 place, Severity::fault}};
    }
    Faults faults;
    for (const auto& [name, setting] : response.settings) {
        if (const ArgumentSpec* spec = find_argument(*kind, name)) {
            check_setting(response, *spec, setting, faults);
            continue;
        }
        std::vector<std::string> names;
        for (const ArgumentSpec& known : kind->arguments) names.emplace_back(known.name);
        faults.push_back({"drive.argument", "a " + response.kind + " has no '" + name + "'", did_you_mean(name, names),
                          place, Severity::fault});
    }
    return faults;
}

Answerer make_answerer(const Response& response, const Tape& tape, const FormulaSource& formulas) {
    const ResponseKind* kind = find_response_kind(response.kind);
    if (kind == nullptr) return [](double) { return Answer{}; };
    return kind->answerer(Arguments(response, *kind, tape, formulas));
}

}  // namespace lacquer
