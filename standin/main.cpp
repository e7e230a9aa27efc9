// lacquer-standin: plays the part of a game over the play link, without a window.
#include <fmt/core.h>

#include <CLI/CLI.hpp>
#include <chrono>
#include <cstdint>
#include <string>
#include <thread>

#include "core/base/fault.h"
#include "core/base/text.h"
#include "core/link/sender.h"
#include "standin/script.h"

namespace {

struct Options {
    int port = 9127;
    std::string host = "127.0.0.1";
    double seconds = 20;
    std::uint32_t seed = 1;
    double flood = 0;
    bool ask = false;
};

// What is told over there, a line each, until that is all or nothing more comes.
int ask(const Options& options) {
    const auto sender = lacquer::LinkSender::open(options.host, options.port);
    if (!sender) {
        fmt::print(stderr, "lacquer-standin: {}\n", lacquer::to_text(sender.fault()));
        return 1;
    }
    (*sender)->send({{"/lacquer/hello", {}}, {"/lacquer/ask", {}}});
    constexpr int patience_ms = 2000;
    while (const auto answer = (*sender)->answer(patience_ms)) {
        std::string words = answer->address;
        for (const lacquer::LinkArgument& argument : answer->arguments) {
            words += ' ';
            if (const auto* text = std::get_if<std::string>(&argument)) words += text->empty() ? "-" : *text;
            if (const auto* whole = std::get_if<std::int32_t>(&argument)) words += std::to_string(*whole);
            if (const auto* number = std::get_if<double>(&argument)) words += lacquer::plain_number(*number, 4);
        }
        fmt::print("{}\n", words);
        if (answer->address == "/lacquer/told") return 0;
    }
    fmt::print(stderr, "lacquer-standin: nobody answers at port {} - begin with Time, Listen to a game\n",
               options.port);
    return 1;
}

int play(const Options& options) {
    auto sender = lacquer::LinkSender::open(options.host, options.port);
    if (!sender) {
        fmt::print(stderr, "lacquer-standin: {}\n", lacquer::to_text(sender.fault()));
        return 1;
    }
    const auto moments = options.flood > 0 ? lacquer::standin::flood(options.seconds, options.flood)
                                           : lacquer::standin::storm(options.seconds, options.seed);
    const auto begin = std::chrono::steady_clock::now();
    std::size_t sent = 0;
    std::size_t refused = 0;
    for (const auto& moment : moments) {
        std::this_thread::sleep_until(begin + std::chrono::duration<double>(moment.at));
        ((*sender)->send(moment.messages) ? sent : refused) += 1;
        // What nobody knows there is told once.
        while (const auto answer = (*sender)->answer(0)) {
            if (answer->arguments.size() < 2) continue;
            const auto* address = std::get_if<std::string>(&answer->arguments[0]);
            const auto* nearest = std::get_if<std::string>(&answer->arguments[1]);
            if (address == nullptr || nearest == nullptr) continue;
            fmt::print("nobody there knows {}{}\n", *address,
                       nearest->empty() ? "" : "; did you mean " + *nearest + "?");
        }
    }
    fmt::print("sent {} to {}, port {}\n", lacquer::counted(sent, "packet"), options.host, options.port);
    if (refused > 0) fmt::print("{} refused: nobody listens there\n", lacquer::counted(refused, "packet"));
    return 0;
}

}  // namespace

int main(int argc, char** argv) {
    Options options;
    CLI::App app("Sends blows, health, zones and touches to a Lacquer that listens (Time, Listen to a game).",
                 "lacquer-standin");
    app.set_help_flag("-h,--help", "tells what there is");
    app.add_option("--port", options.port, "where it listens")->check(CLI::Range(1, 65535))->capture_default_str();
    app.add_option("--host", options.host, "on which machine")->capture_default_str();
    app.add_option("--seconds", options.seconds, "how long")->check(CLI::Range(0.0, 1e6))->capture_default_str();
    app.add_option("--seed", options.seed, "another seed is another storm")->capture_default_str();
    app.add_option("--flood", options.flood, "sends one signal so often a second instead")->check(CLI::Range(0.0, 1e6));
    app.add_flag("--ask", options.ask, "asks who is there and what can be told, and prints that");
    try {
        app.parse(argc, argv);
    } catch (const CLI::CallForHelp&) {
        fmt::print("{}", app.help());
        return 0;
    } catch (const CLI::ParseError& problem) {
        fmt::print(stderr, "lacquer-standin: {}\n{}", problem.what(), app.help());
        return 2;
    }
    return options.ask ? ask(options) : play(options);
}
