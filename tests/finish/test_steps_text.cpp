// Steps as text: out of one finish, into another.
#include <catch2/catch.hpp>

#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/steps_text.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::finish_of;

TEST_CASE("copied steps bring what they name, and nothing else") {
    const Finish demo = test::demo_finish();
    const std::string text = steps_as_text(demo, test::demo_path(), {"torn", "rim"});
    Finish other = finish_of({{"reach", "length(uv - 0.5)"}, {"spray", "uv.y"}});
    const auto pasted = paste_text(other, "/tmp/other.lacquer", "spray", text);
    REQUIRE(pasted);
    CHECK(pasted->step == "rim");
    const Finish& now = pasted->finish;
    CHECK(find_step(now, "rim")->formula == find_step(demo, "rim")->formula);
    CHECK(now.dials.size() == 5);  // grain, radius, softness, presence, flicker
    CHECK(find_dial(now, "haze") == nullptr);
    CHECK(now.responses.size() == 2);
    CHECK(now.cues.size() == 1);
    CHECK(now.grounds.empty());
    const auto checked = test::checked(now);
    for (const CheckedStep& step : checked->steps) CHECK_FALSE(step.fault);
}

TEST_CASE("names that are taken change, also where they are used; what is alike is shared") {
    const Finish finish = finish_of({{"a", "uv.x"}, {"b", "a * 2"}});
    const auto pasted = paste_text(finish, "", "b", steps_as_text(finish, "", {"a", "b"}));
    REQUIRE(pasted);
    CHECK(find_step(pasted->finish, "a_2")->formula == "uv.x");
    CHECK(find_step(pasted->finish, "b_2")->formula == "a_2 * 2");
    const Finish demo = test::demo_finish();
    const auto twice = paste_text(demo, test::demo_path(), "rim", steps_as_text(demo, test::demo_path(), {"rim"}));
    REQUIRE(twice);
    CHECK(twice->finish.dials == demo.dials);
    CHECK(twice->finish.grounds == demo.grounds);
}

TEST_CASE("a coat comes as a coat") {
    const Finish demo = test::demo_finish();
    const std::string text = coat_as_text(demo, test::demo_path(), 1);
    const auto pasted = paste_text(demo, test::demo_path(), "rim", text);
    REQUIRE(pasted);
    REQUIRE(pasted->finish.coats.size() == 3);
    CHECK(pasted->finish.coats[1].name == "Brine");
    CHECK(pasted->finish.coats[1].steps.size() == 8);
}

TEST_CASE("dials and grounds by themselves are text, too, and come once more where they came from") {
    const Finish demo = test::demo_finish();
    const std::string dial = demo.dials.front().name;
    const std::string ground = demo.grounds.front().name;
    const std::string text = parts_as_text(demo, test::demo_path(), {dial, ground});
    const auto again = paste_text(demo, test::demo_path(), "rim", text);
    REQUIRE(again);
    CHECK(again->step == "rim");
    CHECK(step_count(again->finish) == step_count(demo));
    REQUIRE(again->finish.grounds.size() == demo.grounds.size() + 1);
    CHECK(again->finish.grounds.back().kind == demo.grounds.front().kind);
    CHECK(again->finish.dials.size() > demo.dials.size());
    // A finish of another folder finds the file all the same.
    const auto elsewhere = paste_text(empty_finish(), "/tmp/elsewhere/own.lacquer", "", text);
    REQUIRE(elsewhere);
    CHECK(picture_path("/tmp/elsewhere/own.lacquer", *path_of(elsewhere->finish.grounds.front())) ==
          picture_path(test::demo_path(), *path_of(demo.grounds.front())));
    CHECK(find_dial(elsewhere->finish, dial) != nullptr);
}

TEST_CASE("cues and signals by themselves are text, too") {
    Finish finish = test::finish_of({{"a", "uv.x"}});
    finish.cues = {{"gust", 0.5}};
    finish.signals = {Signal{.name = "health"}};
    const auto pasted = paste_text(finish, "", "a", parts_as_text(finish, "", {"gust", "health"}));
    REQUIRE(pasted);
    REQUIRE(pasted->finish.cues.size() == 2);
    CHECK(pasted->finish.cues[1].name != "gust");
    CHECK(pasted->finish.cues[1].strength == 0.5);
    CHECK(pasted->finish.signals.size() == 2);
}

TEST_CASE("lines typed by hand are steps") {
    const auto pasted = paste_text(empty_finish(), "", "", "Edge = uv.x *\n  2\nrim = edge == 0.5 ? 1.0 : 0.0\r\n");
    REQUIRE(pasted);
    CHECK(find_step(pasted->finish, "edge")->formula == "uv.x *\n  2");
    CHECK(find_step(pasted->finish, "rim")->formula == "edge == 0.5 ? 1.0 : 0.0");
    CHECK(pasted->step == "rim");
}

TEST_CASE("a text that holds no steps is told, whatever it is") {
    for (const char* text : {"", "  \n", "hello there", "{\"format\": 1}", "{\"format\": 99}", "{{{{", "= 3"}) {
        INFO(text);
        const auto pasted = paste_text(empty_finish(), "", "", text);
        REQUIRE_FALSE(pasted);
        CHECK(pasted.fault().id == "edit.paste");
    }
}
