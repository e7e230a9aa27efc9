#include "core/drive/response.h"

#include <algorithm>

#include "core/base/text.h"

namespace lacquer {

const ArgumentSpec* Arguments::spec(std::string_view name) const {
    const auto found =
        std::find_if(specs_.begin(), specs_.end(), [&](const ArgumentSpec& s) { return s.name == name; });
    return found == specs_.end() ? nullptr : &*found;
}

double Arguments::number(std::string_view name) const {
    const auto set = response_.settings.find(std::string(name));
    if (set != response_.settings.end()) {
        if (const double* number = std::get_if<double>(&set->second)) return *number;
    }
    const ArgumentSpec* known = spec(name);
    return known != nullptr ? known->default_number : 0;
}

std::string Arguments::word(std::string_view name) const {
    const ArgumentSpec* known = spec(name);
    const auto set = response_.settings.find(std::string(name));
    if (known != nullptr && set != response_.settings.end()) {
        if (const std::string* word = std::get_if<std::string>(&set->second)) {
            const auto& choices = known->choices;
            if (std::find(choices.begin(), choices.end(), *word) != choices.end()) return *word;
        }
    }
    return known != nullptr ? std::string(known->default_word) : std::string();
}

std::span<const ResponseKind> response_kinds() {
    static const std::vector<ResponseKind> kinds = {hold_kind(), sweep_kind(), strike_kind(), wave_kind()};
    return kinds;
}

const ResponseKind* find_response_kind(std::string_view name) {
    for (const ResponseKind& kind : response_kinds()) {
        if (kind.name == name) return &kind;
    }
    return nullptr;
}

Faults check_response(const Response& response) {
    const Place place{response.name, {}, 0, 0};
    const auto did_you_mean = [](const std::string& word, const std::vector<std::string>& names) {
        const auto near = nearest_name(word, names);
        return near ? "did you mean " + *near + "?" : "use one of those that there are";
    };
    const ResponseKind* kind = find_response_kind(response.kind);
    if (kind == nullptr) {
        std::vector<std::string> names;
        for (const ResponseKind& known : response_kinds()) names.emplace_back(known.name);
        return {{"drive.kind", "there is no response '" + response.kind + "'", did_you_mean(response.kind, names),
                 place, Severity::fault}};
    }
    Faults faults;
    for (const auto& [name, setting] : response.settings) {
        const auto spec = std::find_if(kind->arguments.begin(), kind->arguments.end(),
                                       [&, wanted = name](const ArgumentSpec& s) { return s.name == wanted; });
        if (spec == kind->arguments.end()) {
            std::vector<std::string> names;
            for (const ArgumentSpec& known : kind->arguments) names.emplace_back(known.name);
            faults.push_back({"drive.argument", "a " + response.kind + " has no '" + name + "'",
                              did_you_mean(name, names), place, Severity::fault});
        } else if (spec->choices.empty() != std::holds_alternative<double>(setting)) {
            faults.push_back({"drive.argument",
                              "'" + name + "' takes " + (spec->choices.empty() ? "a number" : "a word"), "", place,
                              Severity::fault});
        } else if (const auto* word = std::get_if<std::string>(&setting);
                   word != nullptr &&
                   std::find(spec->choices.begin(), spec->choices.end(), *word) == spec->choices.end()) {
            faults.push_back({"drive.argument", "'" + name + "' cannot be '" + *word + "'",
                              did_you_mean(*word, spec->choices), place, Severity::fault});
        }
    }
    return faults;
}

double response_value(const Response& response, const Moment& moment) {
    const ResponseKind* kind = find_response_kind(response.kind);
    return kind == nullptr ? 0 : kind->value(Arguments(response, kind->arguments), moment);
}

double response_presence(const Response& response, const Moment& moment) {
    const ResponseKind* kind = find_response_kind(response.kind);
    if (kind == nullptr || kind->presence == nullptr) return 0;
    return kind->presence(Arguments(response, kind->arguments), moment);
}

}  // namespace lacquer
