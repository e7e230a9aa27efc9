#include <algorithm>
#include <catch2/catch.hpp>
#include <chrono>
#include <memory>
#include <string>

#include "core/finish/play.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::checked;
using test::finish_of;

namespace {

Dial dial(const std::string& name, double value, const std::string& formula = {}, DialKind kind = DialKind::number) {
    Dial made;
    made.name = made.code_name = name;
    made.kind = kind;
    made.value = {value, 0, 0};
    made.formula = formula;
    return made;
}

double driven(const Finish& finish, const std::string& name, double time = 0, const HeldDials& held = {}) {
    return setting_from(drive_values(*checked(finish), time, finish.tape, held).at(name))[0];
}

}  // namespace

TEST_CASE("a step sees what stands above it, with its type") {
    const auto good = checked(finish_of({{"place", "uv - 0.5"}, {"reach", "length(place)"}}));
    REQUIRE(find_step(*good, "reach")->typed);
    CHECK(find_step(*good, "place")->typed->type == Type::vec2);
    CHECK(finished_step(*good) == "reach");
}

TEST_CASE("a step below, the step itself and a broken source are told apart") {
    const auto upside =
        checked(finish_of({{"reach", "length(place)"}, {"place", "uv"}, {"self", "self + 1"}, {"user", "reach * 2"}}));
    CHECK(find_step(*upside, "reach")->fault->id == "lang.out-of-reach");
    CHECK(find_step(*upside, "reach")->fault->message.find("further down") != std::string::npos);
    CHECK(find_step(*upside, "self")->fault->message.find("itself") != std::string::npos);
    CHECK(find_step(*upside, "user")->fault->id == "finish.broken-source");
    CHECK(find_step(*upside, "place")->typed);
    CHECK(find_step(*upside, "reach")->fault->place.where == "reach");
}

TEST_CASE("a step that is off passes on its first source of equal width, else 0") {
    Finish finish = finish_of({{"a", "uv.x"}, {"b", "mix(0.2, a, 0.5)"}, {"c", "sin(time)"}, {"d", "b + c"}});
    finish.coats[0].steps[1].on = false;
    finish.coats[0].steps[2].on = false;
    const auto off = checked(finish);
    CHECK(to_text(*find_step(*off, "b")->typed) == "a");
    CHECK(to_text(*find_step(*off, "c")->typed) == "0.0");
    CHECK(finished_step(*off) == "d");
    finish.coats[0].on = false;
    CHECK(finished_step(*checked(finish)).empty());
}

TEST_CASE("names that clash or cannot be are faults") {
    Finish finish = finish_of({{"rim", "1"}, {"rim", "2"}, {"Bad name", "3"}, {"mix", "4"}, {"time", "5"}});
    const auto result = checked(finish);
    std::vector<std::string> ids;
    for (const Fault& fault : result->faults) ids.push_back(fault.id);
    CHECK(ids == std::vector<std::string>{"finish.duplicate", "finish.name", "finish.name", "finish.name"});
}

TEST_CASE("dials are numbers, integers, switches and colours in formulas") {
    Finish finish = finish_of({{"a", "n + count"}, {"b", "flag ? tint : vec3(0)"}});
    finish.dials = {dial("n", 0.5), dial("count", 3.4, "", DialKind::integer), dial("flag", 1, "", DialKind::toggle),
                    dial("tint", 2, "", DialKind::colour)};
    finish.dials[3].value = {2.5, 0.1, 0};
    const auto result = checked(finish);
    CHECK(find_step(*result, "a")->typed->type == Type::number);
    CHECK(find_step(*result, "b")->typed->type == Type::vec3);
    CHECK(driven(finish, "count") == 3);
    CHECK(test::draw(finish, "b", 1, 1).picture.data[0] == 2.5F);
}

TEST_CASE("a dial follows its formula, whatever the order, unless it is held") {
    Finish finish = finish_of({{"a", "radius"}});
    finish.responses = {
        {"gusts", "wave", "", {{"shape", std::string("saw")}, {"rate", 1.0}, {"low", 0.0}, {"high", 4.0}}}};
    finish.dials = {dial("radius", 9, "twice + 1"), dial("twice", 9, "gusts * 2")};
    CHECK(driven(finish, "radius", 0.25) == 3);
    CHECK(driven(finish, "radius", 0.25, {{"twice", {10, 0, 0}}}) == 11);
    CHECK(driven(finish, "radius", 0.25, {{"radius", {7, 0, 0}}}) == 7);
}

TEST_CASE("dials that wait for each other are a fault, and stand still") {
    Finish finish = finish_of({{"a", "x"}});
    finish.dials = {dial("x", 5, "y"), dial("y", 6, "x")};
    const auto result = checked(finish);
    REQUIRE(result->faults.size() == 1);
    CHECK(result->faults[0].id == "finish.circle");
    CHECK(std::isfinite(driven(finish, "x")));
    finish.dials = {dial("x", 5, "x + 1")};
    CHECK(checked(finish)->faults.size() == 1);
    CHECK(driven(finish, "x") == 5);
}

TEST_CASE("a dial's formula knows no pixels, and its fault names the dial") {
    Finish finish = finish_of({{"a", "1"}});
    finish.dials = {dial("x", 5, "uv.x")};
    const auto result = checked(finish);
    REQUIRE(result->faults.size() == 1);
    CHECK(result->faults[0].place.where == "x");
    CHECK(driven(finish, "x") == 5);
}

TEST_CASE("dials that name many others are checked without looking through all of them for each name") {
    const auto seconds = [](int count) {
        Finish finish;
        for (int i = 0; i < count; ++i) {
            Dial one;
            one.name = one.code_name = "d" + std::to_string(i);
            for (int other = std::max(0, i - 80); other < i; ++other)
                one.formula += (one.formula.empty() ? "d" : " + d") + std::to_string(other);
            finish.dials.push_back(std::move(one));
        }
        const auto shared = std::make_shared<const Finish>(std::move(finish));
        const auto begin = std::chrono::steady_clock::now();
        const CheckedFinish checked = check_finish(shared);
        const double took = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
        CHECK(checked.faults.empty());
        CHECK(checked.dial_order.size() == static_cast<std::size_t>(count));
        return took;
    };
    (void)seconds(256);
    // Four times as many dials: four times the work, and sixteen times if each name went through all.
    CHECK(seconds(4096) < 9 * seconds(1024));
}
