// What editors are told about a place in a formula. The places are marked by a bar.
#include <algorithm>
#include <catch2/catch.hpp>

#include "core/finish/completion.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

Completions at(std::string formula) {
    Finish finish = test::finish_of({{"rim", "length(uv)"}, {"torn_rim", "rim * uv"}, {"here", "rim"}, {"after", "1"}});
    finish.coats[0].steps[0].note = "far from the middle";
    finish.grounds = {test::picture_ground("scene", "x.png"), test::stops_ground("dusk", StopValues::colours, {})};
    Dial radius;
    radius.name = "radius";
    radius.unit = "px";
    radius.most = 40;
    finish.dials.push_back(radius);
    const auto bar = formula.find('|');
    formula.erase(bar, 1);
    return completions_at(*test::checked(finish), *built_in_catalogue(), "here", formula, bar);
}

const Completion* find(const Completions& completions, std::string_view name) {
    const auto found = std::find_if(completions.choices.begin(), completions.choices.end(),
                                    [&](const Completion& c) { return c.name == name; });
    return found == completions.choices.end() ? nullptr : &*found;
}

bool fits(const Completions& completions, std::string_view name) {
    const Completion* found = find(completions, name);
    REQUIRE(found != nullptr);
    return found->fits;
}

}  // namespace

TEST_CASE("a word that has been begun is completed, what begins so first") {
    const Completions completions = at("1 + rim|");
    CHECK(completions.word == Span{4, 7});
    REQUIRE(completions.choices.size() == 2);
    CHECK(completions.choices[0].name == "rim");
    CHECK(completions.choices[0].signature == "float rim");
    CHECK(completions.choices[0].words == "far from the middle");
    CHECK(completions.choices[1].name == "torn_rim");
}

TEST_CASE("an empty place offers everything that may be named there, and nothing from below") {
    const Completions completions = at("|");
    for (const char* name : {"uv", "time", "scene", "radius", "rim", "smoothstep", "vec3", "gaussian_blur", "mottle"}) {
        INFO(name);
        CHECK(fits(completions, name));
    }
    CHECK(find(completions, "here") == nullptr);
    CHECK(find(completions, "after") == nullptr);
    CHECK_FALSE(fits(completions, "dusk"));
    CHECK(find(completions, "radius")->words == "0 to 40 px");
    CHECK_FALSE(find(completions, "smoothstep")->words.empty());
    const auto wrong = std::find_if(completions.choices.begin(), completions.choices.end(),
                                    [](const Completion& c) { return !c.fits; });
    CHECK(std::none_of(wrong, completions.choices.end(), [](const Completion& c) { return c.fits; }));
}

TEST_CASE("within a call only what its argument takes fits") {
    const Completions picture = at("texture(|");
    CHECK(picture.inside == std::vector<std::string>{"texture(picture, where)"});
    CHECK(fits(picture, "scene"));
    CHECK(fits(picture, "rim"));
    CHECK_FALSE(fits(picture, "uv"));
    CHECK_FALSE(fits(picture, "radius"));
    CHECK_FALSE(fits(picture, "sin"));
    const Completions where = at("texture(scene, |");
    CHECK(where.argument == 1);
    CHECK(fits(where, "uv"));
    CHECK(fits(where, "rim"));
    CHECK_FALSE(fits(where, "scene"));
    CHECK(fits(where, "vec2"));
    CHECK_FALSE(fits(where, "lessThan"));
    const Completions gradient = at("at(|");
    CHECK(fits(gradient, "dusk"));
    CHECK_FALSE(fits(gradient, "scene"));
    const Completions sigma = at("gaussian_blur(scene, |");
    CHECK(sigma.inside == std::vector<std::string>{"gaussian_blur(picture, sigma)"});
    CHECK(fits(sigma, "radius"));
    CHECK_FALSE(fits(sigma, "scene"));
}

TEST_CASE("the innermost open bracket counts, and every form of a function is told") {
    CHECK(at("sin(clamp(1, |").argument == 1);
    CHECK(at("sin(clamp(1, 2, 3) + |").inside == std::vector<std::string>{"sin(angle)"});
    CHECK(at("(1 + |").inside.empty());
    CHECK(at("atan(|").inside == std::vector<std::string>{"atan(y_over_x)", "atan(y, x)"});
}

TEST_CASE("nothing is offered within numbers, comments and text that isn't a formula") {
    CHECK(at("12|").choices.empty());
    CHECK(at("1 /* ri|").choices.empty());
    CHECK(at("1 @ ri|").choices.empty());
    CHECK_FALSE(at("ri|m * 2").choices.empty());
}

TEST_CASE("code is completed by what it has declared before the place") {
    const Completions here = at("float wide = 1.0; vec3 wider(float much, vec2 where) { return vec3(wi|");
    REQUIRE(find(here, "wide") != nullptr);
    CHECK(find(here, "wide")->kind == CompletionKind::variable);
    CHECK(find(here, "wide")->signature == "float wide");
    REQUIRE(find(here, "wider") != nullptr);
    CHECK(find(here, "wider")->signature == "wider(float much, vec2 where)");
    CHECK(find(here, "wider")->kind == CompletionKind::function);
    CHECK(find(at("float a = wi|; float wide = 1.0;"), "wide") == nullptr);
    CHECK(find(at("wide + wi|"), "wide") == nullptr);
}
