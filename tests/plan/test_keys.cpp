// Passes with the same key compute the same; the others do not share one.
#include <catch2/catch.hpp>
#include <chrono>

#include "core/plan/plan.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

StructuralHash key_of_last(const Finish& finish, std::shared_ptr<const Catalogue> catalogue = built_in_catalogue()) {
    const CheckedFinish checked = check_finish(std::make_shared<const Finish>(finish), std::move(catalogue));
    for (const CheckedStep& step : checked.steps) {
        if (step.fault) FAIL(to_text(*step.fault));
    }
    return key_of(plan_passes(checked, {checked.steps.back().name}).passes.back());
}

StructuralHash key_of_steps(const std::vector<std::pair<std::string, std::string>>& steps) {
    return key_of_last(test::finish_of(steps));
}

}  // namespace

TEST_CASE("a stored step of another type makes another pass of what reads it") {
    const auto with = [](const std::string& a) {
        return key_of_steps({{"a", a}, {"there", "texture(a, uv * 0.5)"}, {"b", "there.x > 0.5 ? 1 : 0"}});
    };
    CHECK(with("vec2(uv.x)") != with("vec4(uv.x)"));
    CHECK(with("vec2(uv.x)") == with("vec2(uv.y)"));  // drawn in a pass of its own
}

TEST_CASE("an operation whose body has changed makes another pass of what calls it") {
    const std::string head = "//! title T\n//! group G\n//! about A.\n//! says s\n//! value x 1 number : x\n";
    const auto with = [&](const std::string& body) {
        const auto catalogue =
            make_catalogue({{"own", head + "float own(float x) { return " + body + "; }", "own.glsl"}});
        return key_of_last(test::finish_of({{"a", "own(uv.x)"}}), catalogue);
    };
    CHECK(with("x * 2") != with("x * 3"));
    CHECK(with("x * 2") == with("x  *  2"));
}

TEST_CASE("numbers, operators and functions count, blanks and where something stands do not") {
    CHECK(key_of_steps({{"a", "uv.x + 1"}}) == key_of_steps({{"a", "  uv.x+1.0"}}));
    CHECK(key_of_steps({{"a", "uv.x + 1"}}) != key_of_steps({{"a", "uv.x - 1"}}));
    CHECK(key_of_steps({{"a", "uv.x + 1"}}) != key_of_steps({{"a", "uv.y + 1"}}));
    CHECK(key_of_steps({{"a", "sin(uv.x)"}}) != key_of_steps({{"a", "cos(uv.x)"}}));
    CHECK(key_of_steps({{"a", "float x = uv.x; x = x * 2; return x;"}}) !=
          key_of_steps({{"a", "float x = uv.x; x = x + 2; return x;"}}));
}

TEST_CASE("the text and the key of a tree grow with its nodes, however often a value is named") {
    std::string formula = "s";
    for (int i = 0; i < 24; ++i) formula += " * s.rgb";
    const auto begin = std::chrono::steady_clock::now();
    const auto checked = test::checked(test::finish_of({{"s", "vec4(uv, 1, 1)"}, {"a", formula}}));
    REQUIRE(checked->steps[1].typed);
    CHECK(to_text(*checked->steps[1].typed).size() < 1000);
    CHECK(std::chrono::steady_clock::now() - begin < std::chrono::seconds(2));
}

TEST_CASE("the plan names every picture that is stored, with as many channels as its type needs") {
    const auto checked = test::checked(test::finish_of({{"mask", "uv.x"},
                                                        {"place", "uv"},
                                                        {"colour", "vec3(uv, 1)"},
                                                        {"all",
                                                         "vec4(texture(mask, uv.yx), texture(place, uv.yx), "
                                                         "texture(colour, uv.yx).r)"}}));
    const Plan plan = plan_passes(*checked, {"all"});
    REQUIRE(plan.resources.size() == 4);
    CHECK(plan.resources[0] == Resource{"mask", Type::number, 1});
    CHECK(plan.resources[1] == Resource{"place", Type::vec2, 2});
    CHECK(plan.resources[2] == Resource{"colour", Type::vec3, 4});
    CHECK(plan.resources[3].lifetime == Lifetime::pass);
    CHECK(resource_of(plan.passes[3], "mask").channels == 1);
}
