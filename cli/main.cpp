// lacquer-cli: Lacquer without a window.
#include <fmt/core.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <array>
#include <string>
#include <vector>

#include "cli/arguments.h"
#include "cli/verbs.h"
#include "core/base/guarded.h"

namespace lacquer::cli {

std::span<const Verb> verbs() {
    static constexpr std::array<Verb, 13> all = {{
        {"render", "draws a finish", offer_render},
        {"batch", "draws what a file of jobs asks for, by one process or by many", offer_batch},
        {"inspect", "measures a finish, and tells whether it keeps its promises", offer_inspect},
        {"ship", "writes a finish out for use elsewhere: shaders, play, pages, pictures", offer_ship},
        {"bring", "makes a finish of a fragment shader", offer_bring},
        {"rates", "plays the tape at several frame rates and tells what differs", offer_rates},
        {"values", "prints what signals, responses and driven dials are worth over time", offer_values},
        {"explain", "prints how a finish is understood, from its formulas down to strips and shaders", offer_explain},
        {"responses", "prints what is known of the responses", offer_responses},
        {"catalogue", "prints what is known of the operations, or draws them", offer_catalogue},
        {"scene", "writes a stand-in scene as a layered file", offer_scene},
        {"doctor", "tells what this machine has, for a report", offer_doctor},
        {"completion", "prints a script by which bash completes these words", offer_completion},
    }};
    return all;
}

namespace {

constexpr int fault_code = 1;
constexpr int usage_code = 2;
constexpr int notices_code = 3;

int run(int argc, char** argv) {
    CLI::App app(
        "Lacquer without a window.\n\nEnds with 0 where all was done as asked, 1 for a fault, 2 for a verb that "
        "there is not, 3 where something was missing that the error stream tells of.",
        "lacquer-cli");
    app.require_subcommand(1);
    app.set_help_flag("-h,--help", "tells what there is");
    std::vector<std::pair<CLI::App*, Run>> runs;
    for (const Verb& verb : verbs()) {
        CLI::App* options = app.add_subcommand(std::string(verb.name), std::string(verb.words));
        options->set_help_flag("-h,--help", "tells what the verb takes");
        runs.emplace_back(options, verb.offer(*options));
    }
    const std::string first = argc > 1 ? argv[1] : "";
    if (first.empty() || first == "help") {
        fmt::print("{}", app.help());
        return first.empty() ? usage_code : 0;
    }
    const auto is_first = [&](const Verb& verb) { return verb.name == first; };
    if (first[0] != '-' && std::none_of(verbs().begin(), verbs().end(), is_first)) {
        fmt::print(stderr, "lacquer-cli: there is no '{}'\n{}", first, app.help());
        return usage_code;
    }
    try {
        app.parse(argc, argv);
    } catch (const CLI::CallForHelp&) {
        for (const auto& [options, verb] : runs) {
            if (options->parsed()) {
                fmt::print("{}", options->help());
                return 0;
            }
        }
        fmt::print("{}", app.help());
        return 0;
    } catch (const CLI::ParseError& problem) {
        fmt::print(stderr, "lacquer-cli: {} - lacquer-cli {} --help tells what it takes\n", problem.what(), first);
        return fault_code;
    }
    for (const auto& [options, verb] : runs) {
        if (!options->parsed()) continue;
        const Result<Outcome> done = guarded([&, &verb = verb] { return verb(); });
        if (done) return *done == Outcome::done ? 0 : notices_code;
        fmt::print(stderr, "lacquer-cli: {}\n", to_text(done.fault()));
        return fault_code;
    }
    return usage_code;
}

}  // namespace

}  // namespace lacquer::cli

int main(int argc, char** argv) { return lacquer::cli::run(argc, argv); }
