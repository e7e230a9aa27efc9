// Numbers that become dials.
#include <catch2/catch.hpp>

#include "core/finish/dial_making.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::finish_of;

namespace {

DialOffer offer(const Finish& finish, const std::string& step, const std::string& words) {
    const std::string formula = find_step(finish, step)->formula;
    const auto at = formula.find(words);
    REQUIRE(at != std::string::npos);
    auto made = offer_dial(*test::checked(finish), step,
                           {static_cast<std::uint32_t>(at), static_cast<std::uint32_t>(at + words.size())});
    if (!made) FAIL(to_text(made.fault()));
    return std::move(*made);
}

}  // namespace

TEST_CASE("a number becomes a dial with a name, a range and an increment; the picture stays as it is") {
    const Finish finish = finish_of({{"spray", "uv.x"}, {"gust", "spray * 0.35 + 0.65"}});
    const DialOffer gain = offer(finish, "gust", "0.35");
    CHECK(gain.dial.name == "spray_gain");
    CHECK(gain.dial.value[0] == 0.35);
    CHECK(gain.dial.default_value == gain.dial.value);
    CHECK(gain.dial.least == 0);
    CHECK(gain.dial.most == 1);
    CHECK(gain.dial.increment == Approx(0.01));
    const auto made = make_dial(finish, gain, false);
    REQUIRE(made);
    CHECK(find_step(*made, "gust")->formula == "spray * spray_gain + 0.65");
    CHECK(test::draw(*made, "gust", 8, 1).picture.data == test::draw(finish, "gust", 8, 1).picture.data);
}

TEST_CASE("all equal uses are offered") {
    const Finish finish = finish_of({{"a", "uv.x * 0.4"}, {"b", "smoothstep(0.4, 0.9, a) - 0.40"}});
    const DialOffer edge = offer(finish, "b", "0.4");
    CHECK(edge.dial.name == "edge");
    CHECK(edge.places.size() == 3);
    const auto made = make_dial(finish, edge, true);
    REQUIRE(made);
    CHECK(find_step(*made, "a")->formula == "uv.x * edge");
    CHECK(find_step(*made, "b")->formula == "smoothstep(edge, 0.9, a) - edge");
}

TEST_CASE("an operation's argument gives the dial its name, range and unit") {
    Finish finish = finish_of({{"soft", "gaussian_blur(scene, 12)"}});
    finish.grounds.push_back(test::picture_ground("scene", "none.png"));
    const DialOffer made = offer(finish, "soft", "12");
    const Operation& blur = built_in_catalogue()->operations.at("gaussian_blur");
    CHECK(made.dial.name == blur.arguments[1].name);
    CHECK(made.dial.most == blur.arguments[1].range->second);
    CHECK(made.dial.unit == blur.arguments[1].unit);
}

TEST_CASE("guessed ranges go by size and sign; colours become colour dials") {
    CHECK(offer(finish_of({{"a", "uv.x * 7"}}), "a", "7").dial.most == 20);
    const Dial shift = offer(finish_of({{"a", "uv.x + -0.3"}}), "a", "-0.3").dial;
    CHECK(shift.least == -1);
    CHECK(shift.most == 1);
    const Finish colours = finish_of({{"a", "vec3(2, 0.5, 0)"}, {"b", "vec4(2, 0.5, 0, 0.25)"}});
    const DialOffer colour = offer(colours, "a", "vec3(2, 0.5, 0)");
    CHECK(colour.dial.kind == DialKind::colour);
    CHECK(colour.places.size() == 2);
    const auto made = make_dial(colours, colour, true);
    REQUIRE(made);
    CHECK(find_step(*made, "a")->formula == "a_colour");
    CHECK(find_step(*made, "b")->formula == "vec4(a_colour, 0.25)");
    CHECK(test::draw(*made, "b", 1, 1).picture.data == test::draw(colours, "b", 1, 1).picture.data);
}

TEST_CASE("what must stay whole, and what isn't a number, is told") {
    const Finish finish = finish_of({{"a", "float s = 0.0; for (int i = 0; i < 8; i++) s += 0.5; return s;"}});
    const auto at = static_cast<std::uint32_t>(find_step(finish, "a")->formula.find("8"));
    CHECK(offer_dial(*test::checked(finish), "a", {at, at + 1}).fault().id == "edit.dial");
    CHECK(offer_dial(*test::checked(finish), "a", {0, 5}).fault().id == "edit.dial");
    CHECK(offer_dial(*test::checked(finish), "b", {0, 5}).fault().id == "edit.unknown");
}
