// A game that plays along with the window: what it sends is seen, recorded, and never waits for a picture.
#include <unistd.h>

#include <QLabel>
#include <atomic>
#include <catch2/catch.hpp>
#include <chrono>
#include <fstream>
#include <thread>

#include "core/link/sender.h"
#include "desktop/rehearse/rehearse_screen.h"
#include "standin/script.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

std::unique_ptr<LinkSender> sender_to(BenchWindow& bench) {
    REQUIRE(bench.link().listen(0));
    auto sender = LinkSender::open("127.0.0.1", bench.link().receiver()->port());
    REQUIRE(sender);
    return std::move(*sender);
}

struct Flooded {
    LinkCounts counts;
    double longest = 0;    ///< that the interface was kept in one go of its events, its own time, seconds
    double megabytes = 0;  ///< more at the end than after the first tenth
};

double resident_megabytes() {
    std::ifstream file("/proc/self/statm");
    double pages = 0;
    file >> pages >> pages;
    return pages * static_cast<double>(sysconf(_SC_PAGESIZE)) / 1e6;
}

// A game that sends one signal so often a second, with junk and bundles of hundreds in between if wanted.
Flooded flooded(double seconds, double rate, bool with_junk) {
    BenchWindow bench(test::demo_path());
    bench.key(Qt::Key_2, Qt::ControlModifier);
    Finish finish = bench.document().finish();
    finish.signals.push_back({"wind", SignalKind::number});
    bench.document().edit(finish, QStringLiteral("a signal"));
    const auto sender = sender_to(bench);
    // The screen has been painted once.
    bench.settle();
    bench.key(Qt::Key_Space);
    std::atomic<bool> heard_all = false;
    const std::vector<LinkMessage> bundle(300, LinkMessage{"/lacquer/signal/wind", {0.5}});
    const auto flood = standin::flood(seconds, rate);
    const auto begin = std::chrono::steady_clock::now();
    const auto since = [begin] {
        return std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
    };
    std::thread game([&] {
        std::size_t sent = 0;
        for (const auto& moment : flood) {
            while (since() < moment.at) std::this_thread::yield();
            sender->send(moment.messages);
            if (with_junk && ++sent % 10 == 0) sender->send_bytes({47, 1, 2});
            if (with_junk && sent % 500 == 0) sender->send(bundle);
        }
        // Should the last be lost, a later one tells so.
        for (double next = seconds; !heard_all; std::this_thread::yield()) {
            if (since() < next) continue;
            sender->send({});
            next += 0.01;
        }
    });
    Flooded result;
    // What is beyond a sender's share is dropped by packets, with their numbers; so time ends a flood of junk.
    const auto all_here = [&] {
        const LinkCounts counts = bench.link().receiver()->counts();
        return with_junk ? since() > seconds : counts.messages + counts.lost >= flood.size();
    };
    double before = 0;
    while (!all_here() && since() < seconds + 20) {
        const double own = test::thread_seconds();
        QCoreApplication::processEvents(QEventLoop::AllEvents, 1);
        result.longest = std::max(result.longest, test::thread_seconds() - own);
        bench.clock = since();
        if (before == 0 && since() > seconds / 10) before = resident_megabytes();
    }
    result.megabytes = resident_megabytes() - before;
    heard_all = true;
    game.join();
    bench.key(Qt::Key_Space);
    CHECK(all_here());
    result.counts = bench.link().receiver()->counts();
    return result;
}

// As for drags, with room for slower machines; 16 ms are promised.
constexpr double late = 0.024;

// A machine that is busy with other things counts some of them as ours; what we do ourselves shows in every round.
Flooded least_of_three(double seconds, double rate, bool with_junk) {
    Flooded least = flooded(seconds, rate, with_junk);
    for (int more = 0; more < 2 && least.longest >= late; ++more) {
        const Flooded again = flooded(seconds, rate, with_junk);
        if (again.longest < least.longest) least = again;
    }
    return least;
}

}  // namespace

TEST_CASE("what a game sends is played live, and recorded when that is asked for") {
    BenchWindow bench(test::demo_path());
    bench.action("clear_tape");
    const auto sender = sender_to(bench);
    bench.key(Qt::Key_Space, Qt::ShiftModifier);
    REQUIRE(bench.playing().recording());
    sender->send({{"/lacquer/cue/hit", {0.9, 45.0}}, {"/lacquer/dial/softness", {0.2}}});
    bench.wait_for([&] { return bench.playing().played().cues.size() == 1; });
    CHECK(bench.playing().played().cues[0].strength == Approx(0.9));
    CHECK(setting_from(bench.playing().values().at("softness"))[0] == Approx(0.2));
    bench.key(Qt::Key_Space);
    CHECK(bench.document().finish().tape.cues.size() == 1);
    REQUIRE(bench.document().finish().tape.changes.size() == 1);
    CHECK(bench.document().finish().tape.changes[0].name == "softness");
    // The dial itself keeps its working value.
    CHECK(find_dial(bench.document().finish(), "softness")->value[0] == 0.45);
    bench.link().stop_listening();
    CHECK(bench.link().receiver() == nullptr);
}

TEST_CASE("a game's tool is told what there is and what it is worth now") {
    BenchWindow bench(test::demo_path());
    const auto sender = sender_to(bench);
    sender->send({{"/lacquer/dial/softness", {0.2}}});
    bench.wait_for([&] { return std::abs(setting_from(bench.playing().values().at("softness"))[0] - 0.2) < 1e-6; });
    sender->send({{"/lacquer/ask/dial/softness", {}}});
    std::optional<LinkMessage> answer;
    bench.wait_for([&] { return (answer = sender->answer(0)).has_value(); });
    CHECK(answer->address == "/lacquer/told/dial/softness");
    REQUIRE(answer->arguments.size() == 5);
    CHECK(std::get<double>(answer->arguments[4]) == Approx(0.2));
    bench.wait_for([&] { return (answer = sender->answer(0)).has_value(); });
    CHECK(answer->address == "/lacquer/told");
}

TEST_CASE("a recording made by the link equals one made by hand") {
    const auto recorded = [](bool by_link) {
        BenchWindow bench(test::demo_path());
        bench.action("clear_tape");
        std::unique_ptr<LinkSender> sender = by_link ? sender_to(bench) : nullptr;
        bench.clock = 10;
        bench.key(Qt::Key_Space, Qt::ShiftModifier);
        REQUIRE(bench.playing().recording());
        bench.clock = 10.5;
        bench.wait_for([&] { return bench.playing().time() == 0.5; });
        const CueKind hit = *find_cue(bench.document().finish(), "hit");
        if (by_link) {
            sender->send({{"/lacquer/cue/hit", {0.75, hit.direction}}});
        } else {
            bench.playing().press_cue({"hit", bench.playing().time(), 0.75, hit.direction});
        }
        bench.wait_for([&] { return bench.playing().played().cues.size() == 1; });
        bench.clock = 11;
        bench.key(Qt::Key_Space);
        return bench.document().finish().tape;
    };
    CHECK(recorded(true) == recorded(false));
}

TEST_CASE("a wrong name is said with the nearest, a taken port with the reason") {
    BenchWindow bench(test::demo_path());
    const auto sender = sender_to(bench);
    sender->send({{"/lacquer/cue/hitt", {}}});
    bench.wait_for([&] { return bench.last_said.contains(QStringLiteral("/lacquer/cue/hit?")); });
    BenchWindow other;
    CHECK_FALSE(other.link().listen(bench.link().receiver()->port()));
    CHECK(other.last_said.contains(QStringLiteral("cannot be listened at")));
    auto* words = bench.find<QLabel>("link_words");
    bench.wait_for([&] { return words->text().contains(QStringLiteral("1 unknown")); });
}

TEST_CASE("five thousand messages a second make no frame late") {
    const Flooded result = least_of_three(2, 5000, false);
    INFO("longest " << result.longest * 1000 << " ms");
    CHECK(result.counts.dropped == 0);
    CHECK(result.longest < late);
}

TEST_CASE("ten thousand messages a second with junk and giant bundles make no frame late, and take no memory") {
    const Flooded result = least_of_three(4, 10'000, true);
    INFO("longest " << result.longest * 1000 << " ms, " << result.megabytes << " MB more");
    CHECK(result.counts.junk > 0);
    CHECK(result.longest < late);
    CHECK(result.megabytes < 60);
}

TEST_CASE("the same for a minute", "[.everything]") {
    const Flooded result = flooded(60, 10'000, true);
    INFO("longest " << result.longest * 1000 << " ms, " << result.megabytes << " MB more");
    CHECK(result.longest < late);
    CHECK(result.megabytes < 60);
}

TEST_CASE("a heavy finish drops pictures, never cues") {
    BenchWindow bench(test::demo_path());
    Finish finish = bench.document().finish();
    finish.tape = Tape();
    // Some hundred milliseconds a picture on any machine, even drawn at an eighth of both sides.
    finish.coats.back().steps.push_back(
        {"heavy",
         "float s = 0.0; for (int i = 0; i < 60000; i++) { s += sin(uv.x * float(i) + s); } "
         "return stained * (1.0 + s * 0.0001);",
         "",
         true,
         false,
         {}});
    bench.document().edit(finish, QStringLiteral("heavy"));
    const auto sender = sender_to(bench);
    bench.key(Qt::Key_Space);
    std::size_t pictures = 0;
    QObject::connect(&bench.drawing(), &Drawing::stage_changed, [&] { ++pictures; });
    constexpr std::size_t count = 60;
    for (std::size_t i = 0; i < count; ++i) {
        sender->send({{"/lacquer/cue/hit", {0.5}}});
        const auto until = std::chrono::steady_clock::now() + std::chrono::milliseconds(8);
        while (std::chrono::steady_clock::now() < until) QCoreApplication::processEvents(QEventLoop::AllEvents, 1);
    }
    bench.wait_for([&] { return bench.playing().played().cues.size() == count; });
    CHECK(pictures < count);
    bench.key(Qt::Key_Space);
}
