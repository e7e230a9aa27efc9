// lacquer-standin: plays the part of a game over the play link, without a window.
#include <fmt/core.h>

#include <chrono>
#include <cstdint>
#include <string>
#include <thread>
#include <vector>

#include "core/base/fault.h"
#include "core/base/text.h"
#include "core/link/sender.h"
#include "standin/script.h"

namespace {

constexpr const char* help =
    "lacquer-standin [--port N] [--host ADDRESS] [--seconds N] [--seed N] [--flood N]\n"
    "    sends blows, health, zones and touches to a Lacquer that listens (Time, Listen to a game)\n"
    "    --flood sends one signal N times a second instead\n";

struct Options {
    double port = 9127;
    std::string host = "127.0.0.1";
    double seconds = 20;
    double seed = 1;
    double flood = 0;
};

// The reason why the words cannot be used, or nothing.
std::string read_options(const std::vector<std::string>& words, Options& options) {
    for (std::size_t i = 0; i + 1 < words.size(); i += 2) {
        const std::string& name = words[i];
        if (name == "--host") {
            options.host = words[i + 1];
            continue;
        }
        const auto number = lacquer::parse_number(words[i + 1]);
        double* option = name == "--port"      ? &options.port
                         : name == "--seconds" ? &options.seconds
                         : name == "--seed"    ? &options.seed
                         : name == "--flood"   ? &options.flood
                                               : nullptr;
        if (option == nullptr) return "there is no option '" + name + "'";
        if (!number || *number < 0 || *number > 1e6) return "'" + words[i + 1] + "' is no number for " + name;
        *option = *number;
    }
    return words.size() % 2 == 1 ? "'" + words.back() + "' has no value" : "";
}

int play(const Options& options) {
    auto sender = lacquer::LinkSender::open(options.host, static_cast<int>(options.port));
    if (!sender) {
        fmt::print(stderr, "lacquer-standin: {}\n", lacquer::to_text(sender.fault()));
        return 1;
    }
    const auto moments = options.flood > 0
                             ? lacquer::standin::flood(options.seconds, options.flood)
                             : lacquer::standin::storm(options.seconds, static_cast<std::uint32_t>(options.seed));
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
    const std::vector<std::string> words(argv + 1, argv + argc);
    if (!words.empty() && (words[0] == "--help" || words[0] == "-h")) {
        fmt::print("{}", help);
        return 0;
    }
    Options options;
    if (const std::string wrong = read_options(words, options); !wrong.empty()) {
        fmt::print(stderr, "lacquer-standin: {}\n{}", wrong, help);
        return 2;
    }
    return play(options);
}
