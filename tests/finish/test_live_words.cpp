// What of a formula can be taken hold of.
#include <catch2/catch.hpp>

#include "core/finish/live_words.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

std::vector<LiveWord> words_in(const std::string& formula) {
    Finish finish = test::finish_of({{"reach", "uv.x"}, {"rim", formula}});
    Dial dial;
    dial.name = "softness";
    finish.dials.push_back(dial);
    finish.grounds.push_back(test::picture_ground("scene", "none.png"));
    return live_words(*test::checked(finish), formula);
}

const LiveWord& word(const std::vector<LiveWord>& words, const std::string& text) {
    for (const LiveWord& w : words) {
        if (w.text == text) return w;
    }
    FAIL("no word " + text);
    return words.front();
}

}  // namespace

TEST_CASE("a number that picks a part stays whole") {
    const auto words = words_in("uv[1] * 0.5");
    CHECK(word(words, "1").whole);
    CHECK(word(words, "1").increment == 1);
    CHECK_FALSE(word(words, "0.5").whole);
}

TEST_CASE("words of a formula stand in order, each with what it is") {
    const auto words = words_in("mix(scene, vec4(reach), softness * 0.35 + time)");
    std::vector<std::pair<std::string, LiveKind>> found;
    for (const LiveWord& w : words) found.emplace_back(w.text, w.kind);
    using Found = std::vector<std::pair<std::string, LiveKind>>;
    CHECK(found == Found{{"mix", LiveKind::function},
                         {"scene", LiveKind::ground},
                         {"vec4", LiveKind::function},
                         {"reach", LiveKind::step},
                         {"softness", LiveKind::dial},
                         {"0.35", LiveKind::number},
                         {"time", LiveKind::known}});
    CHECK(word(words, "0.35").span == Span{35, 39});
    CHECK(word(words, "0.35").increment == Approx(0.001));
}

TEST_CASE("a sign belongs to its number, parts after a point are no words") {
    const auto words = words_in("reach.x * -0.5 - 0.25");
    REQUIRE(words.size() == 3);
    CHECK(words[1].value == -0.5);
    CHECK(words[1].text == "-0.5");
    CHECK(words[2].value == 0.25);
}

TEST_CASE("an operation says what its numbers are: range, unit, choices") {
    const auto words = words_in("bleed(scene, 40, 1)");
    CHECK(word(words, "40").unit == "px");
    CHECK(word(words, "40").range == std::pair(1.0, 64.0));
    CHECK(word(words, "40").increment == Approx(0.1));
    CHECK(word(words, "1").kind == LiveKind::choice);
    CHECK(word(words, "1").choices == std::vector<std::string>{"clear", "opaque"});
}

TEST_CASE("three numbers in a vec3 are a colour as well") {
    const auto words = words_in("vec3(1.5, 0.2, 0)");
    REQUIRE(words.front().kind == LiveKind::colour);
    CHECK(words.front().colour == DialValue{1.5, 0.2, 0});
    CHECK(colour_formula(words.front().colour) == "vec3(1.5, 0.2, 0)");
    CHECK(words_in("vec4(1, 0, 0, 0.5)").front().opacity == 0.5);
    CHECK(words_in("vec3(uv, 0)").front().kind == LiveKind::function);
}

TEST_CASE("a vec3 that is a place, a direction or a weight isn't a colour") {
    const auto is_colour = [](const std::string& formula) {
        const auto words = words_in(formula);
        return std::any_of(words.begin(), words.end(), [](const LiveWord& w) { return w.kind == LiveKind::colour; });
    };
    CHECK(is_colour("mix(vec3(0.6, 0, 0), scene.rgb, 0.5) * 2"));
    CHECK(is_colour("tint(scene, vec3(0.6, 0, 0), 1)"));
    CHECK_FALSE(is_colour("value_noise(vec3(0.6, 0, 0))"));
    CHECK_FALSE(is_colour("length(vec3(0.6, 0, 0))"));
    CHECK_FALSE(is_colour("dot(scene.rgb, vec3(0.2126, 0.7152, 0.0722))"));
    CHECK_FALSE(is_colour("hash3(vec3(1, 2, 3) * 0.5).x"));
}

TEST_CASE("whole numbers of code stay whole") {
    const auto words = words_in("float s = 0.0; for (int i = 0; i < 8; i++) s += 0.5; return s;");
    CHECK(word(words, "8").whole);
    CHECK(word(words, "8").increment == 1);
    CHECK_FALSE(word(words, "0.5").whole);
}

TEST_CASE("numbers are written in whole increments") {
    CHECK(number_text(0.3500001, 0.001) == "0.35");
    CHECK(number_text(12.04, 0.1) == "12");
    CHECK(number_text(-0.0004, 0.001) == "0");
    CHECK(live_words(*test::checked(test::finish_of({})), "\"").empty());
}

TEST_CASE("a number that turns negative behind a minus does not become another sign") {
    const std::string formula = "reach-0.5";
    CHECK(apart_from_sign(formula, {6, 9}, "-0.1") == " -0.1");
    CHECK(apart_from_sign(formula, {6, 9}, "0.4") == "0.4");
    CHECK(apart_from_sign("-0.5", {0, 4}, "-0.7") == "-0.7");
}
