#include <catch2/catch.hpp>

#include "core/finish/colour_text.h"
#include "core/finish/edits.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::finish_of;

namespace {

std::vector<std::string> order(const Finish& finish) {
    std::vector<std::string> names;
    for_each_step(finish, [&](const Coat& coat, const Step& step) { names.push_back(coat.name + "/" + step.name); });
    return names;
}

Step step(const std::string& name) { return {name, "0", "", true, false, {}}; }

}  // namespace

TEST_CASE("a step is added below the one named, or at the end") {
    Finish finish = finish_of({{"a", "1"}, {"b", "2"}});
    finish = *add_step(finish, "a", step("c"));
    finish = *add_step(finish, "", step("d"));
    CHECK(order(finish) == std::vector<std::string>{"Coat 1/a", "Coat 1/c", "Coat 1/b", "Coat 1/d"});
    CHECK(add_step(finish, "a", step("b")).fault().id == "edit.name");
    CHECK(add_step(finish, "a", step("mix")).fault().id == "edit.name");
    CHECK(add_step(finish, "a", step("Nope")).fault().id == "edit.name");
    CHECK(order(*add_step(Finish(), "", step("a"))) == std::vector<std::string>{"Coat 1/a"});
}

TEST_CASE("steps move within and across coats, and stop at the ends") {
    Finish finish = add_coat(finish_of({{"a", "1"}, {"b", "2"}}), 0, "Second");
    finish = *move_step(finish, "a", 1);
    CHECK(order(finish) == std::vector<std::string>{"Coat 1/b", "Coat 1/a"});
    finish = *move_step(finish, "a", 1);
    CHECK(order(finish) == std::vector<std::string>{"Coat 1/b", "Second/a"});
    CHECK(move_step(finish, "a", 1).fault().id == "edit.end");
    CHECK(move_step(finish, "b", -1).fault().id == "edit.end");
    CHECK(move_step(finish, "x", 1).fault().id == "edit.unknown");
    finish = *move_step(finish, "a", -1);
    CHECK(order(finish) == std::vector<std::string>{"Coat 1/b", "Coat 1/a"});
    CHECK(order(*delete_step(finish, "b")) == std::vector<std::string>{"Coat 1/a"});
    CHECK(delete_step(finish, "x").fault().id == "edit.unknown");
    CHECK(delete_coat(finish, 1)->coats.size() == 1);
    CHECK(delete_coat(finish, 9).fault().id == "edit.unknown");
}

TEST_CASE("a name changes everywhere it is used") {
    Finish finish = finish_of({{"rim", "uv.x * radius"}, {"out", "rim + rim.x * uv.rim"}});
    finish =
        *add_dial(finish, Dial{"radius", "", DialKind::number, {1, 0, 0}, {}, 0, 1, 0.1, "", "", "", "", false, {}});
    CHECK(finish.dials[0].code_name == "radius");
    finish = *rename(finish, "rim", "Torn edge");
    CHECK(finish.coats[0].steps[0].name == "torn_edge");
    CHECK(finish.coats[0].steps[1].formula == "torn_edge + torn_edge.x * uv.rim");
    finish = *rename(finish, "radius", "size");
    CHECK(finish.coats[0].steps[0].formula == "uv.x * size");
    CHECK(finish.dials[0].code_name == "radius");
    CHECK(rename(finish, "size", "out").fault().id == "edit.name");
    CHECK(rename(finish, "size", "!!").fault().id == "edit.name");
    CHECK(rename(finish, "nothing", "x").fault().id == "edit.unknown");
    CHECK(*rename(finish, "size", "size") == finish);
    CHECK(users_of(finish, "size") == std::vector<std::string>{"torn_edge"});
    CHECK(delete_dial(finish, "size")->dials.empty());
    CHECK(delete_dial(finish, "sizes").fault().id == "edit.unknown");
}

TEST_CASE("a free name is one that nothing has") {
    const Finish finish = finish_of({{"step", "1"}, {"step_2", "1"}});
    CHECK(free_name(finish, "step") == "step_1");
    CHECK(free_name(finish, "rim") == "rim");
    CHECK(free_name(finish, "mix") == "mix_1");
}

TEST_CASE("colours with their brightness go to text and back") {
    CHECK(colour_text({1, 0, 0}) == "#FF0000");
    CHECK(colour_text({2.5, 0, 1.25}) == "#FF00BC x 2.5");
    for (const char* text : {"#D9472B", "#FF472B x 2.4", "#000000", "#FFFFFF x 12"})
        CHECK(colour_text(*parse_colour(text)) == text);
    CHECK(parse_colour("#d9472b × 2")->at(0) == Approx(parse_colour("#D9472B x 2")->at(0)));
    CHECK(*parse_colour("1.5 0.25 -0.5") == DialValue{1.5, 0.25, -0.5});
    CHECK(*parse_colour(colour_text({1.5, 0.25, -0.5})) == DialValue{1.5, 0.25, -0.5});
    for (const char* text : {"", "#12345", "#GG0000", "1 2", "1 2 3 4", "red", "#FF0000 x -1", "#FF0000 x 1 1"})
        CHECK_FALSE(parse_colour(text));
}
