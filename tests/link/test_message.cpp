// Open Sound Control 1.0: the standard's own messages byte for byte, and bytes that are none.
#include "core/link/message.h"

#include <lo/lo.h>

#include <catch2/catch.hpp>
#include <random>
#include <string_view>

using namespace lacquer;

namespace {

LinkBytes bytes_of(std::string_view hex) {
    LinkBytes bytes;
    const auto digit = [](char c) { return static_cast<std::uint8_t>(c <= '9' ? c - '0' : c - 'a' + 10); };
    for (std::size_t i = 0; i + 1 < hex.size(); i += 2)
        bytes.push_back(static_cast<std::uint8_t>(digit(hex[i]) * 16 + digit(hex[i + 1])));
    return bytes;
}

// M. Wright, "The Open Sound Control 1.0 Specification", 2002, "OSC Message Examples", printed there.
const std::string_view oscillator = "2f6f7363696c6c61746f722f342f6672657175656e6379002c66000043dc0000";
const std::string_view foo = "2f666f6f000000002c69697366660000000003e8ffffffff68656c6c6f0000003f9df3b640b5b22d";

}  // namespace

TEST_CASE("the standard's own messages are written and read byte for byte") {
    const LinkMessage first{"/oscillator/4/frequency", {440.0}};
    const LinkMessage second{"/foo", {1000, -1, std::string("hello"), 1.234, 5.678}};
    CHECK(packet_of(first) == bytes_of(oscillator));
    CHECK(packet_of(second) == bytes_of(foo));
    const auto read = messages_in(bytes_of(oscillator));
    REQUIRE(read);
    CHECK(*read == std::vector{first});
    const auto again = messages_in(bytes_of(foo));
    REQUIRE(again);
    REQUIRE(again->size() == 1);
    CHECK((*again)[0].arguments[0] == LinkArgument(1000));
    CHECK((*again)[0].arguments[1] == LinkArgument(-1));
    CHECK((*again)[0].arguments[2] == LinkArgument(std::string("hello")));
    CHECK(std::get<double>((*again)[0].arguments[3]) == Approx(1.234));
    CHECK(std::get<double>((*again)[0].arguments[4]) == Approx(5.678));
}

TEST_CASE("bundles hold messages and bundles, as the standard and liblo write them") {
    const std::vector<LinkMessage> two = {{"/a", {true, false}}, {"/b/c", {7}}};
    const LinkBytes bundle = bundle_of(two);
    CHECK(std::string_view(reinterpret_cast<const char*>(bundle.data()), 7) == "#bundle");
    const auto read = messages_in(bundle);
    REQUIRE(read);
    CHECK(*read == two);

    const lo_bundle inner = lo_bundle_new(LO_TT_IMMEDIATE);
    const lo_message message = lo_message_new();
    lo_message_add(message, "ifsT", 3, 0.5, "spray");
    lo_bundle_add_message(inner, "/inner", message);
    const lo_bundle outer = lo_bundle_new(LO_TT_IMMEDIATE);
    lo_bundle_add_bundle(outer, inner);
    LinkBytes bytes(lo_bundle_length(outer));
    std::size_t size = 0;
    lo_bundle_serialise(outer, bytes.data(), &size);
    lo_bundle_free_recursive(outer);
    const auto nested = messages_in(bytes);
    REQUIRE(nested);
    CHECK(*nested == std::vector{LinkMessage{"/inner", {3, 0.5, std::string("spray"), true}}});
}

TEST_CASE("bytes that are no packet are a fault, whatever they are") {
    std::mt19937 random(23);
    const std::vector<LinkBytes> good = {bytes_of(oscillator), bytes_of(foo),
                                         bundle_of({{"/a", {1, 2.5, std::string("x")}}, {"/b", {true}}})};
    std::size_t refused = 0;
    for (int i = 0; i < 40'000; ++i) {
        LinkBytes bytes = good[random() % good.size()];
        if (i % 4 == 0) {
            bytes.resize(random() % 64);
            for (std::uint8_t& byte : bytes) byte = static_cast<std::uint8_t>(random());
        } else if (i % 4 == 1) {
            bytes.resize(random() % (bytes.size() + 1));
        } else {
            for (unsigned k = 0; k <= random() % 4; ++k)
                bytes[random() % bytes.size()] = static_cast<std::uint8_t>(random());
        }
        const auto read = messages_in(bytes);
        if (read) continue;
        ++refused;
        REQUIRE(read.fault().id == "link.packet");
    }
    CHECK(refused > 10'000);
    CHECK_FALSE(messages_in({}));
    CHECK_FALSE(messages_in(LinkBytes(max_packet + 4, '/')));
    // Bundles within bundles without end.
    LinkBytes deep = bundle_of({{"/a", {}}});
    for (int i = 0; i < 20; ++i) {
        LinkBytes around = bundle_of({});
        for (const int shift : {24, 16, 8, 0}) around.push_back(static_cast<std::uint8_t>(deep.size() >> shift));
        around.insert(around.end(), deep.begin(), deep.end());
        deep = around;
    }
    CHECK_FALSE(messages_in(deep));
}
