// The play link over the loopback: a real liblo client, a flood, losses, and names that nobody knows.
#include "core/link/receiver.h"

#include <lo/lo.h>

#include <atomic>
#include <catch2/catch.hpp>
#include <chrono>
#include <thread>

#include "core/link/sender.h"
#include "standin/script.h"

using namespace lacquer;

namespace {

LinkNames names() {
    LinkNames names;
    names.cues = {"hit", "touch"};
    names.signals = {{"hull", SignalKind::integer, 0, 100},
                     {"keeper", SignalKind::place},
                     {"in_spray", SignalKind::toggle},
                     {"wind", SignalKind::number}};
    names.dials = {{"tint_code", "tint"}};
    return names;
}

double seconds() { return std::chrono::duration<double>(std::chrono::steady_clock::now().time_since_epoch()).count(); }

std::unique_ptr<LinkReceiver> receiver(const std::function<double()>& clock = seconds) {
    auto opened = LinkReceiver::open(0, false, clock);
    REQUIRE(opened);
    (*opened)->set_names(names());
    return std::move(*opened);
}

// Waits until so much has come, at most ten seconds.
template <class Until>
void wait_for(const LinkReceiver& link, Until until) {
    const double end = seconds() + 10;
    while (!until(link.counts()) && seconds() < end) std::this_thread::yield();
    CHECK(until(link.counts()));
}

}  // namespace

TEST_CASE("a real client's messages become cues and changes at the time at which they came") {
    const auto link = receiver();
    const lo_address client = lo_address_new("127.0.0.1", std::to_string(link->port()).c_str());
    const double before = seconds();
    lo_send(client, "/lacquer/cue/hit", "ffffi", 0.5, 90.0, 0.25, 0.75, 7);
    lo_send(client, "/lacquer/cue/touch", "");
    lo_send(client, "/lacquer/signal/hull", "i", 90);
    lo_send(client, "/lacquer/signal/keeper", "ff", 0.5, 3.0);
    lo_send(client, "/lacquer/signal/in_spray", "T");
    lo_send(client, "/lacquer/dial/tint_code", "fff", 1.0, 0.5, 0.25);
    lo_address_free(client);
    wait_for(*link, [](const LinkCounts& counts) { return counts.messages == 6; });
    const LinkArrivals came = link->fetch();
    REQUIRE(came.events.cues.size() == 2);
    Cue hit = came.events.cues[0];
    CHECK(hit.at >= before);
    CHECK(hit.at <= seconds());
    hit.at = 0;
    CHECK(hit == Cue{"hit", 0, 0.5, 90, 0.25, 0.75, 7});
    CHECK(came.events.cues[1].strength == 1);
    REQUIRE(came.events.changes.size() == 4);
    CHECK(came.events.changes[0].name == "hull");
    CHECK(came.events.changes[0].value[0] == 90);
    CHECK(came.events.changes[1].value == std::array{0.5, 1.0, 0.0});  // held to the frame
    CHECK(came.events.changes[2].value[0] == 1);
    CHECK(came.events.changes[3] == Change{"tint", came.events.changes[3].at, {1, 0.5, 0.25}});
    CHECK(came.unknown.empty());
    CHECK(link->fetch().events.empty());
}

TEST_CASE("a name that nobody knows is answered with the nearest, once") {
    const auto link = receiver();
    auto sender = LinkSender::open("127.0.0.1", link->port());
    REQUIRE(sender);
    REQUIRE((*sender)->send({{"/lacquer/cue/hitt", {0.5}}, {"/lacquer/cue/hitt", {0.5}}}));
    const auto answer = (*sender)->answer(5000);
    REQUIRE(answer);
    CHECK(*answer ==
          LinkMessage{"/lacquer/unknown", {std::string("/lacquer/cue/hitt"), std::string("/lacquer/cue/hit")}});
    CHECK_FALSE((*sender)->answer(50));
    wait_for(*link, [](const LinkCounts& counts) { return counts.unknown == 2; });
    CHECK(link->fetch().unknown.size() == 1);
    // Not again in the next frame either, until the names are others.
    (*sender)->send({{"/lacquer/cue/hitt", {0.5}}});
    wait_for(*link, [](const LinkCounts& counts) { return counts.unknown == 3; });
    CHECK(link->fetch().unknown.empty());
    LinkNames others = names();
    others.cues.push_back("gale");
    link->set_names(others);
    (*sender)->send({{"/lacquer/cue/hitt", {0.5}}});
    wait_for(*link, [](const LinkCounts& counts) { return counts.unknown == 4; });
    CHECK(link->fetch().unknown.size() == 1);
    const auto nearest = [](const std::string& address) {
        return std::get<LinkUnknown>(understood({address}, names())).nearest;
    };
    CHECK(nearest("/lacquer/signal/hul") == "/lacquer/signal/hull");
    CHECK(nearest("/lacquer/dial/tint_cod") == "/lacquer/dial/tint_code");
    CHECK(nearest("/laquer/cue/hit") == "/lacquer/cue/hit");
    CHECK(nearest("/lacquer/cue/hull") == "/lacquer/signal/hull");  // the right name under the wrong root
    CHECK(nearest("/lacquer/signal/radius").empty());
    CHECK(nearest("/something/else/altogether").empty());
}

TEST_CASE("five thousand messages a second arrive, and what is lost is counted") {
    const auto link = receiver();
    auto sender = LinkSender::open("127.0.0.1", link->port());
    REQUIRE(sender);
    const auto flood = standin::flood(1, 5000);
    REQUIRE(flood.size() == 5000);
    const double begin = seconds();
    for (const auto& moment : flood) {
        while (seconds() < begin + moment.at) std::this_thread::yield();
        (*sender)->send(moment.messages);
    }
    // Each packet has its number: what did not come is known to be lost, as soon as a later one comes.
    std::uint64_t extra = 0;
    wait_for(*link, [&](const LinkCounts& counts) {
        if (counts.messages + counts.lost >= 5000) return true;
        (*sender)->send({});
        ++extra;
        return false;
    });
    CHECK(link->counts().messages + link->counts().lost <= 5000 + extra);
    // A busy machine may lose some; nearly all come.
    CHECK(link->counts().messages > 4000);
    CHECK(link->fetch().events.changes.size() == link->counts().messages - link->counts().dropped);
}

TEST_CASE("losses are counted by the packets' numbers; a sender that starts anew loses nothing") {
    const auto link = receiver();
    auto raw = LinkSender::open("127.0.0.1", link->port());
    REQUIRE(raw);
    const auto send = [&](std::int32_t number) {
        (*raw)->send_bytes(bundle_of({{"/lacquer/number", {number}}, {"/lacquer/cue/hit", {}}}));
    };
    for (const std::int32_t number : {1, 2, 5, 6, 10, 1, 2}) send(number);
    wait_for(*link, [](const LinkCounts& counts) { return counts.messages == 7; });
    CHECK(link->counts().lost == 5);
}

TEST_CASE("floods and junk do no harm, and take no memory without end") {
    // A second passes with each packet, so that nobody is held to a share.
    const auto link = receiver([now = 0.0]() mutable { return now += 1; });
    auto sender = LinkSender::open("127.0.0.1", link->port());
    REQUIRE(sender);
    std::vector<LinkMessage> many(200, LinkMessage{"/lacquer/cue/hit", {0.5}});
    for (int i = 0; i < 600; ++i) {
        (*sender)->send_bytes({1, 2, 3});
        (*sender)->send(many);
        // Not faster than they are taken, or the system throws them away before we can.
        const std::uint64_t junk = static_cast<std::uint64_t>(i) + 1;
        wait_for(*link, [&](const LinkCounts& c) { return c.messages + c.lost * 200 >= junk * 200 && c.junk >= junk; });
    }
    CHECK(link->counts().junk == 600);
    const LinkArrivals came = link->fetch();
    CHECK(came.events.cues.size() == 65'536);
    CHECK(link->counts().dropped == 600 * 200 - 65'536);
    (*sender)->send({{"/lacquer/cue/hit", {1.0}}});
    wait_for(*link, [](const LinkCounts& counts) { return counts.messages == 600 * 200 + 1; });
    CHECK(link->fetch().events.cues.size() == 1);
}

TEST_CASE("a sender without end is held to its share of a second, and the others are heard") {
    std::atomic<double> now = 0;
    const auto link = receiver([&now] { return now.load(); });
    auto loud = LinkSender::open("127.0.0.1", link->port());
    auto quiet = LinkSender::open("127.0.0.1", link->port());
    REQUIRE(loud);
    REQUIRE(quiet);
    const std::vector<LinkMessage> many(200, LinkMessage{"/lacquer/cue/hit", {0.5}});
    for (int sent = 1; sent <= 100; ++sent) {
        (*loud)->send(many);
        wait_for(*link, [&](const LinkCounts& c) {
            return c.messages / 200 + c.lost + c.dropped >= static_cast<std::uint64_t>(sent);
        });
    }
    const std::uint64_t heard = link->counts().messages;
    // What it has saved in two seconds.
    CHECK(heard >= 15'800);
    CHECK(heard <= 16'200);
    CHECK(link->counts().dropped >= 18);
    (*quiet)->send({{"/lacquer/cue/hit", {1.0}}});
    wait_for(*link, [&](const LinkCounts& c) { return c.messages == heard + 1; });
    now = 1.5;
    (*loud)->send({{"/lacquer/cue/hit", {1.0}}});
    wait_for(*link, [&](const LinkCounts& c) { return c.messages == heard + 2; });

    // Junk counts, too, and no more than 64 are heard at a time.
    now = 3;
    const std::uint64_t before = link->counts().dropped;
    std::vector<std::unique_ptr<LinkSender>> crowd;
    for (int i = 0; i < 70; ++i) {
        auto one = LinkSender::open("127.0.0.1", link->port());
        REQUIRE(one);
        (*one)->send_bytes({1, 2, 3});
        crowd.push_back(std::move(*one));
    }
    wait_for(*link, [&](const LinkCounts& c) { return c.junk + c.dropped - before >= 70; });
    CHECK(link->counts().dropped - before == 6);
    CHECK(link->counts().junk == 64);
}

TEST_CASE("a port that is taken, and a host that is none, are told") {
    const auto link = receiver();
    const auto second = LinkReceiver::open(link->port(), false, seconds);
    REQUIRE_FALSE(second);
    CHECK(second.fault().id == "link.port");
    CHECK_FALSE(LinkReceiver::open(70'000, false, seconds));
    const auto nowhere = LinkSender::open("nowhere", 9000);
    REQUIRE_FALSE(nowhere);
    CHECK(nowhere.fault().id == "link.host");
    CHECK_FALSE(LinkSender::open("127.0.0.1", 0));
}

TEST_CASE("what is asked is answered with names, ranges and values, to a real client") {
    const LinkNames all = names();
    const LinkValues values = [](const std::string& name) {
        return name == "keeper" ? std::array{0.25, 0.75, 0.0} : std::array{0.5, 0.0, 0.0};
    };
    const auto answers = [&](const std::string& question) {
        return answers_to({question}, all, "Strike", 9127, values);
    };
    CHECK(answers("/lacquer/hello") == std::vector<LinkMessage>{{"/lacquer/here", {std::string("Strike"), 9127}}});
    const std::vector<LinkMessage> told = answers("/lacquer/ask");
    REQUIRE(told.size() == 2 + 4 + 1 + 1);
    CHECK(told[0].address == "/lacquer/told/cue/hit");
    CHECK(told[2] ==
          LinkMessage{"/lacquer/told/signal/hull", {std::string("integer"), 0.0, 100.0, std::string(), 0.5}});
    CHECK(told[3].arguments.size() == 6);
    CHECK(told[6].address == "/lacquer/told/dial/tint_code");
    CHECK(told.back() == LinkMessage{"/lacquer/told", {std::int32_t{7}}});
    CHECK(answers("/lacquer/ask/signal/keeper").size() == 2);
    CHECK(std::holds_alternative<LinkQuestion>(understood({"/lacquer/ask/dial/tint_code", {}}, all)));
    const auto wrong = understood({"/lacquer/ask/signal/huul", {}}, all);
    REQUIRE(std::holds_alternative<LinkUnknown>(wrong));
    CHECK(std::get<LinkUnknown>(wrong).nearest == "/lacquer/ask/signal/hull");

    const auto link = receiver();
    auto sender = LinkSender::open("127.0.0.1", link->port());
    REQUIRE(sender);
    REQUIRE((*sender)->send({{"/lacquer/hello", {}}}));
    wait_for(*link, [](const LinkCounts& counts) { return counts.messages == 1; });
    const LinkArrivals came = link->fetch();
    REQUIRE(came.questions.size() == 1);
    CHECK(came.events.empty());
    link->reply(came.questions[0], answers(came.questions[0].question.address));
    const auto heard = (*sender)->answer(5000);
    REQUIRE(heard);
    CHECK(*heard == LinkMessage{"/lacquer/here", {std::string("Strike"), std::int32_t{9127}}});
    // Of a flood of questions few are answered.
    for (int i = 0; i < 500; ++i) REQUIRE((*sender)->send({{"/lacquer/ask", {}}}));
    wait_for(*link, [](const LinkCounts& counts) { return counts.messages + counts.lost >= 501; });
    CHECK(link->fetch().questions.size() <= 60);
    CHECK(link->counts().dropped > 300);
}
