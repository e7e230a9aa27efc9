#include "core/link/vocabulary.h"

#include <algorithm>
#include <cmath>

#include "core/base/text.h"

namespace lacquer {

namespace {

constexpr std::string_view cue_root = "/lacquer/cue/";
constexpr std::string_view signal_root = "/lacquer/signal/";
constexpr std::string_view dial_root = "/lacquer/dial/";
constexpr std::string_view number_address = "/lacquer/number";

// Any argument as a number; what is none counts as `otherwise`.
double number_of(const LinkMessage& message, std::size_t index, double otherwise) {
    if (index >= message.arguments.size()) return otherwise;
    const LinkArgument& argument = message.arguments[index];
    double number = otherwise;
    if (const auto* real = std::get_if<double>(&argument)) number = *real;
    if (const auto* whole = std::get_if<std::int32_t>(&argument)) number = *whole;
    if (const auto* yes = std::get_if<bool>(&argument)) number = *yes ? 1 : 0;
    return std::isfinite(number) ? number : otherwise;
}

LinkUnknown unknown(const std::string& address, const LinkNames& names) {
    const std::vector<std::string> all = addresses_of(names);
    for (const std::string_view root : {cue_root, signal_root, dial_root}) {
        if (!address.starts_with(root)) continue;
        const std::string name = address.substr(root.size());
        // The right name under the wrong root, else the nearest under this one.
        std::vector<std::string> near;
        for (const std::string& known : all) {
            if (known.substr(known.rfind('/') + 1) == name) return {address, known};
            if (known.starts_with(root)) near.push_back(known.substr(root.size()));
        }
        const auto found = nearest_name(name, near);
        return {address, found ? std::string(root) + *found : std::string()};
    }
    return {address, nearest_name(address, all).value_or(std::string())};
}

}  // namespace

std::vector<std::string> addresses_of(const LinkNames& names) {
    std::vector<std::string> all;
    for (const std::string& cue : names.cues) all.push_back(std::string(cue_root) + cue);
    for (const Signal& signal : names.signals) all.push_back(std::string(signal_root) + signal.name);
    for (const LinkNames::DialName& dial : names.dials) all.push_back(std::string(dial_root) + dial.code_name);
    return all;
}

LinkEvent understood(const LinkMessage& message, const LinkNames& names) {
    const std::string& address = message.address;
    if (address == number_address) return LinkNumber{static_cast<std::int32_t>(number_of(message, 0, 0))};
    if (address.starts_with(cue_root)) {
        const std::string name = address.substr(cue_root.size());
        if (std::find(names.cues.begin(), names.cues.end(), name) == names.cues.end()) return unknown(address, names);
        Cue cue{name};
        cue.strength = std::clamp(number_of(message, 0, 1), 0.0, 1.0);
        cue.direction = number_of(message, 1, 0);
        cue.x = std::clamp(number_of(message, 2, 0.5), 0.0, 1.0);
        cue.y = std::clamp(number_of(message, 3, 0.5), 0.0, 1.0);
        cue.object = static_cast<int>(std::clamp(number_of(message, 4, 0), -1e9, 1e9));
        return cue;
    }
    const auto numbers = [&] {
        return std::array{number_of(message, 0, 0), number_of(message, 1, 0), number_of(message, 2, 0)};
    };
    if (address.starts_with(signal_root)) {
        const std::string name = address.substr(signal_root.size());
        for (const Signal& signal : names.signals) {
            if (signal.name == name) return Change{name, 0, signal_value(signal, numbers())};
        }
    }
    if (address.starts_with(dial_root)) {
        const std::string code_name = address.substr(dial_root.size());
        for (const LinkNames::DialName& dial : names.dials) {
            if (dial.code_name == code_name) return Change{dial.name, 0, numbers()};
        }
    }
    return unknown(address, names);
}

}  // namespace lacquer
