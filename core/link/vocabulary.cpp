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
constexpr std::string_view hello_address = "/lacquer/hello";
constexpr std::string_view ask_address = "/lacquer/ask";
constexpr std::string_view told_address = "/lacquer/told";

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
    if (address == hello_address || address == ask_address) return LinkQuestion{address};
    if (address.starts_with(std::string(ask_address) + "/")) {
        const std::string about = "/lacquer" + address.substr(ask_address.size());
        const std::vector<std::string> all = addresses_of(names);
        if (std::find(all.begin(), all.end(), about) != all.end()) return LinkQuestion{address};
        LinkUnknown other = unknown(about, names);
        if (!other.nearest.empty()) other.nearest.insert(std::string_view("/lacquer").size(), "/ask");
        return LinkUnknown{address, std::move(other.nearest)};
    }
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

std::vector<LinkMessage> answers_to(const LinkQuestion& question, const LinkNames& names, const std::string& finish,
                                    int port, const LinkValues& values) {
    if (question.address == hello_address) return {{"/lacquer/here", {finish, port}}};
    std::vector<LinkMessage> answers;
    const std::string about =
        "/lacquer" + question.address.substr(std::min(ask_address.size(), question.address.size()));
    const auto tell = [&](const std::string& address, std::vector<LinkArgument> facts, const std::string* name,
                          std::size_t numbers) {
        if (question.address != ask_address && address != about) return;
        const std::array<double, 3> now = name != nullptr ? values(*name) : std::array<double, 3>{};
        for (std::size_t k = 0; k < numbers; ++k) facts.emplace_back(now[k]);
        answers.push_back(
            {std::string(told_address) + address.substr(std::string_view("/lacquer").size()), std::move(facts)});
    };
    for (const std::string& cue : names.cues) tell(std::string(cue_root) + cue, {}, nullptr, 0);
    for (const Signal& signal : names.signals) {
        tell(std::string(signal_root) + signal.name,
             {std::string(signal_kind_name(signal.kind)), signal.least, signal.most, signal.unit}, &signal.name,
             signal.kind == SignalKind::place ? 2 : 1);
    }
    for (const LinkNames::DialName& dial : names.dials) {
        tell(std::string(dial_root) + dial.code_name, {dial.kind, dial.least, dial.most, dial.unit}, &dial.name,
             dial.kind == "colour" ? 3 : 1);
    }
    answers.push_back({std::string(told_address), {static_cast<std::int32_t>(answers.size())}});
    return answers;
}

}  // namespace lacquer
