#include "core/drive/arguments.h"

#include <algorithm>
#include <cmath>

namespace lacquer {

const Setting* Arguments::setting(std::string_view name) const {
    const auto found = response_.settings.find(std::string(name));
    return found == response_.settings.end() ? nullptr : &found->second;
}

double Arguments::number(std::string_view name, double time) const {
    const ArgumentSpec* spec = find_argument(kind_, name);
    const double usual = spec == nullptr ? 0 : spec->default_number;
    const Setting* set = setting(name);
    if (set == nullptr) return usual;
    if (const double* number = std::get_if<double>(set)) return *number;
    if (!std::holds_alternative<std::string>(*set) || !formulas_.value) return usual;
    const double value = formulas_.value(std::string(name), time);
    return std::isfinite(value) ? value : usual;
}

std::function<double(double)> Arguments::at_any_time(std::string_view name) const {
    const Setting* set = setting(name);
    const bool formula = set != nullptr && std::holds_alternative<std::string>(*set) && formulas_.value;
    const bool still = formula && formulas_.stands_still && formulas_.stands_still(std::string(name));
    if (!formula || still) {
        return [value = number(name)](double) { return value; };
    }
    const ArgumentSpec* spec = find_argument(kind_, name);
    return [read = formulas_.value, key = std::string(name),
            usual = spec == nullptr ? 0 : spec->default_number](double time) {
        const double value = read(key, time);
        return std::isfinite(value) ? value : usual;
    };
}

Track Arguments::track(std::string_view name) const {
    Track track(number(name, 0));
    const Setting* set = setting(name);
    if (set == nullptr || !std::holds_alternative<std::string>(*set)) return track;
    if (formulas_.stands_still && formulas_.stands_still(std::string(name))) return track;
    for (const double at : formulas_.moments) track.change(at, number(name, at));
    return track;
}

std::string Arguments::word(std::string_view name) const {
    const ArgumentSpec* spec = find_argument(kind_, name);
    if (spec == nullptr) return {};
    const Setting* set = setting(name);
    const std::string* word = set == nullptr ? nullptr : std::get_if<std::string>(set);
    if (word == nullptr) return spec->default_word;
    const auto& choices = spec->choices;
    const bool offered = choices.empty() || std::find(choices.begin(), choices.end(), *word) != choices.end();
    return offered ? *word : spec->default_word;
}

Easing Arguments::easing(std::string_view name) const { return easing_named(word(name)).value_or(Easing{}); }

PathKeys Arguments::keys(std::string_view name) const {
    const Setting* set = setting(name);
    const PathKeys* keys = set == nullptr ? nullptr : std::get_if<PathKeys>(set);
    if (keys == nullptr) return {{0, 0, {}, {}}, {1, 1, {}, {}}};
    return *keys;
}

bool Arguments::is_set(std::string_view name) const {
    const Setting* set = setting(name);
    const std::string* text = set == nullptr ? nullptr : std::get_if<std::string>(set);
    return set != nullptr && (text == nullptr || !text->empty());
}

Cues Arguments::heard(const std::string& cue) const {
    Cues heard;
    for (const Cue& one : tape_.cues) {
        if (one.name == cue && one.strength > 0) heard.push_back(one);
    }
    return heard;
}

}  // namespace lacquer
