// lacquer-cli values FILE: what everything that moves is worth over time, as lines of comma-separated values.
#include <fmt/core.h>

#include <CLI/CLI.hpp>
#include <cmath>

#include "cli/played.h"
#include "cli/verbs.h"
#include "core/base/text.h"
#include "core/finish/play.h"

namespace lacquer::cli {

namespace {

// Signals, responses and driven dials, in the order of the finish.
std::vector<std::string> names_of(const Finish& finish) {
    std::vector<std::string> names;
    for (const Signal& signal : finish.signals) names.push_back(signal.name);
    for (const Response& response : finish.responses) names.push_back(response.name);
    for (const Dial& dial : finish.dials) {
        if (!dial.formula.empty()) names.push_back(dial.name);
    }
    return names;
}

std::vector<std::string> droplets_of(const Finish& finish) {
    std::vector<std::string> names;
    for (const Ground& ground : finish.grounds) {
        if (ground.as<DropletsGround>() != nullptr) names.push_back(ground.name);
    }
    return names;
}

std::string numbers_text(const Value& value) {
    const DialValue numbers = setting_from(value);
    std::string text = shortest_number(numbers[0]);
    for (int part = 1; part < width_of(value.type); ++part)
        text += " " + shortest_number(numbers[static_cast<std::size_t>(part)]);
    return text;
}

struct ValuesOptions {
    PlayedOptions played;
    double rate = 60;
};

Result<Outcome> values(const ValuesOptions& options) {
    const double rate = options.rate;
    if (!(rate > 0) || rate > 1000) return usage_fault("cli.number", "--frames takes more than 0, up to 1000", "");
    Result<PlayedFinish> played = played_finish(options.played);
    if (!played) return played.fault();
    const NamedTape& tape = played->tape;
    const std::vector<std::string> names = names_of(*played->checked->finish);
    const std::vector<std::string> drops = droplets_of(*played->checked->finish);
    const Play play(played->checked, tape.tape);
    fmt::print("seconds");
    for (const std::string& name : names) fmt::print(",{}", name);
    for (const std::string& name : drops) fmt::print(",{}.count", name);
    fmt::print("\n");
    const int count = static_cast<int>(std::floor(tape.length * rate + 1e-9)) + 1;
    for (int i = 0; i < count; ++i) {
        const DriveValues now = play.values(i / rate);
        fmt::print("{}", shortest_number(i / rate));
        for (const std::string& name : names) fmt::print(",{}", numbers_text(now.at(name)));
        for (const std::string& name : drops) fmt::print(",{}", shortest_number(play.drop_count(name, i / rate)));
        fmt::print("\n");
    }
    return Outcome::done;
}

}  // namespace

Run offer_values(CLI::App& options) {
    const auto chosen = std::make_shared<ValuesOptions>();
    add_played(options, chosen->played);
    options.add_option("--frames", chosen->rate, "how often a second")->capture_default_str();
    return [chosen] { return values(*chosen); };
}

}  // namespace lacquer::cli
