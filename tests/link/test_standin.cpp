// The stand-in game: the same for the same seed, and the program itself over a real socket.
#include <catch2/catch.hpp>
#include <chrono>
#include <set>
#include <thread>

#include "core/link/receiver.h"
#include "standin/script.h"
#include "tests/support/temporary.h"

using namespace lacquer;

TEST_CASE("the storm is the same for the same seed, in order, and has all that a game has") {
    const auto one = standin::storm(20, 3);
    const auto again = standin::storm(20, 3);
    REQUIRE(one.size() == again.size());
    std::set<std::string> addresses;
    double before = 0;
    for (std::size_t i = 0; i < one.size(); ++i) {
        CHECK(one[i].at == again[i].at);
        CHECK(one[i].messages == again[i].messages);
        CHECK(one[i].at >= before);
        before = one[i].at;
        for (const LinkMessage& message : one[i].messages) addresses.insert(message.address);
    }
    for (const char* wanted : {"/lacquer/cue/hit", "/lacquer/cue/touch", "/lacquer/signal/hull",
                               "/lacquer/signal/keeper", "/lacquer/signal/in_spray", "/lacquer/signal/wind"})
        CHECK(addresses.contains(wanted));
    CHECK(standin::storm(20, 4).size() != one.size());
}

TEST_CASE("lacquer-standin sends its storm, and hears of names that nobody knows") {
    auto link = LinkReceiver::open(0, false, [] { return 0.0; });
    REQUIRE(link);
    LinkNames names;
    names.cues = {"hit"};
    names.signals = {{"hull", SignalKind::integer, 0, 100}, {"keepers", SignalKind::place}};
    (*link)->set_names(names);
    const auto result = test::run_command(test::program_folder() + "/lacquer-standin --seconds 2 --port " +
                                          std::to_string((*link)->port()));
    INFO(result.output);
    CHECK(result.code == 0);
    CHECK(result.output.find("nobody there knows /lacquer/signal/keeper; did you mean /lacquer/signal/keepers?") !=
          std::string::npos);
    CHECK((*link)->fetch().events.cues.size() >= 1);
    const auto wrong = test::run_command(test::program_folder() + "/lacquer-standin --speed 2");
    CHECK(wrong.code == 2);
    CHECK(wrong.output.find("--speed") != std::string::npos);
    CHECK(test::run_command(test::program_folder() + "/lacquer-standin --port").code == 2);
    CHECK(test::run_command(test::program_folder() + "/lacquer-standin --host nowhere").code == 1);
}
