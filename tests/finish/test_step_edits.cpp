// Changes to what steps say and where they stand.
#include <catch2/catch.hpp>

#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/play_edits.h"
#include "core/finish/step_edits.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::finish_of;

namespace {

using Pairs = std::vector<std::pair<std::string, std::string>>;

Pairs steps(const Finish& finish) {
    Pairs all;
    for_each_step(finish, [&](const Coat&, const Step& s) { all.emplace_back(s.name, s.formula); });
    return all;
}

Span span_of(const std::string& formula, const std::string& words) {
    const auto at = formula.find(words);
    REQUIRE(at != std::string::npos);
    return {static_cast<std::uint32_t>(at), static_cast<std::uint32_t>(at + words.size())};
}

template <class T>
T good(Result<T> result) {
    if (!result) FAIL(to_text(result.fault()));
    return std::move(*result);
}

std::string extracted(const std::string& formula, const std::string& words) {
    const StepEdit edit = good(extract_step(finish_of({{"a", "uv.x"}, {"b", formula}}), "b", span_of(formula, words)));
    std::string text;
    for (const auto& [name, f] : steps(edit.finish)) text += name + " = " + f + "; ";
    return text;
}

std::string inverted(const std::string& formula) {
    return find_step(good(invert_step(*test::checked(finish_of({{"a", "uv.x"}, {"b", formula}})), "b")), "b")->formula;
}

std::string swapped(const std::string& formula, const std::string& words) {
    return find_step(good(swap_arguments(finish_of({{"b", formula}}), "b", span_of(formula, words))), "b")->formula;
}

}  // namespace

TEST_CASE("words of a formula are replaced where they stand") {
    const Finish finish = finish_of({{"a", "uv.x * 0.5"}});
    CHECK(steps(good(replace_words(finish, "a", {7, 10}, "0.75")))[0].second == "uv.x * 0.75");
    CHECK(replace_words(finish, "a", {7, 11}, "x").fault().id == "edit.span");
    CHECK(replace_words(finish, "none", {0, 1}, "x").fault().id == "edit.unknown");
}

TEST_CASE("a part becomes a step of its own, also where the same words stand again") {
    CHECK(extracted("smoothstep(0.1, 0.9, a) + smoothstep(0.1, 0.9, a)", "0.9") ==
          "a = uv.x; b_part = 0.9; b = smoothstep(0.1, b_part, a) + smoothstep(0.1, b_part, a); ");
    CHECK(extracted("1 + length(uv)", "length") == "a = uv.x; length_1 = length(uv); b = 1 + length_1; ");
    CHECK(extracted("(a + 1) * 2", "+") == "a = uv.x; b_part = a + 1; b = b_part * 2; ");
    CHECK(extracted("uv.y * 2", "uv.y") == "a = uv.x; uv_y = uv.y; b = uv_y * 2; ");
    const Finish finish = finish_of({{"a", "uv.x"}, {"b", "a * 2"}, {"c", "return a;"}});
    CHECK(extract_step(finish, "b", {0, 5}).fault().id == "edit.extract");
    CHECK(extract_step(finish, "b", {0, 1}).fault().id == "edit.extract");
    CHECK(extract_step(finish, "c", {7, 8}).fault().id == "edit.extract");
    CHECK(extract_step(finish, "d", {0, 1}).fault().id == "edit.unknown");
}

TEST_CASE("a step is written into those that use it, in brackets where it needs them") {
    const Finish finish = finish_of({{"a", "uv.x + 1"}, {"b", "a * 2 + length(vec2(a))"}, {"c", "b"}});
    const Finish done = good(inline_step(*test::checked(finish), "a"));
    CHECK(steps(done) == Pairs{{"b", "(uv.x + 1) * 2 + length(vec2((uv.x + 1)))"}, {"c", "b"}});
    // The value is the same.
    CHECK(test::draw(done, "c", 4, 1).picture.data == test::draw(finish, "c", 4, 1).picture.data);
    const Finish read = finish_of({{"a", "uv.x + 1"}, {"b", "texture(a, uv * 2)"}});
    CHECK(inline_step(*test::checked(read), "b").fault().id == "edit.inline");
    const Finish code = finish_of({{"a", "return 1.0;"}, {"b", "a"}});
    CHECK(inline_step(*test::checked(code), "a").fault().id == "edit.inline");
    const Finish whole = finish_of({{"p", "vec4(uv, 0, 1)"}, {"a", "gaussian_blur(p, 2)"}, {"b", "a * 0.5"}});
    const auto refused = inline_step(*test::checked(whole), "a");
    REQUIRE_FALSE(refused);
    CHECK(refused.fault().id == "edit.inline");
    CHECK(refused.fault().message.find("b") != std::string::npos);
}

TEST_CASE("turning round twice gives back the text; a colour keeps its opacity") {
    CHECK(inverted("a") == "1.0 - a");
    CHECK(inverted("1.0 - a") == "a");
    CHECK(inverted("a * 2 + 1") == "1.0 - (a * 2 + 1)");
    CHECK(inverted("1.0 - (a * 2 + 1)") == "a * 2 + 1");
    CHECK(inverted("1.0 - (a) * (a)") == "1.0 - (1.0 - (a) * (a))");
    CHECK(inverted("vec4(a, a, a, 0.5)") == "vec3(1) - vec4(a, a, a, 0.5)");
    CHECK(inverted("float f(float x) { return x; } if (a < 0.5) { return f(a); } return 0.25;") ==
          "float f(float x) { return x; } if (a < 0.5) { return 1.0 - (f(a)); } return 1.0 - (0.25);");
    const DrawnStep drawn = test::draw(finish_of({{"b", inverted("vec4(0.25, 0.5, 1, 0.5)")}}), "b", 1, 1);
    CHECK(drawn.picture.data == PlainVector<float>{0.75F, 0.5F, 0.0F, 0.5F});
    CHECK(invert_step(*test::checked(finish_of({{"b", "nothing"}})), "b").fault().id == "edit.invert");
    CHECK(invert_step(*test::checked(finish_of({{"p", "vec4(uv, 0, 1)"}, {"b", "gaussian_blur(p, 2)"}})), "b")
              .fault()
              .id == "edit.invert");
}

TEST_CASE("the two sides of what is pointed at are swapped, and brackets keep the sense") {
    CHECK(swapped("a - b", "-") == "b - a");
    CHECK(swapped("a - b * c", "-") == "b * c - a");
    CHECK(swapped("(a - b) - c", "- c") == "c - (a - b)");
    CHECK(swapped("a - b - c", "- c") == "c - (a - b)");
    CHECK(swapped("mix(a, b, c)", "mix") == "mix(b, a, c)");
    CHECK(swapped("x + mix(a, b, c)", "b") == "x + mix(b, a, c)");
    CHECK(swapped("uv.x > 0.5 ? a : b", "?") == "uv.x > 0.5 ? b : a");
    CHECK(swap_arguments(finish_of({{"b", "length(uv)"}}), "b", {0, 3}).fault().id == "edit.swap");
}

TEST_CASE("steps are put before, copied, moved below others; what order breaks is known") {
    const Finish finish = finish_of({{"a", "uv.x"}, {"b", "a"}, {"c", "b + a"}});
    Step step;
    step.name = "n";
    step.formula = "0.5";
    CHECK(steps(good(add_step_before(finish, "a", step)))[0].first == "n");
    CHECK(steps(good(add_step_before(finish, "c", step)))[2].first == "n");
    const StepEdit copy = good(duplicate_step(finish, "b"));
    CHECK(copy.step == "b_2");
    CHECK(steps(copy.finish)[2] == std::pair<std::string, std::string>{"b_2", "a"});
    const Finish moved = good(move_step_below(finish, "a", "c"));
    CHECK(steps(moved)[2].first == "a");
    CHECK(out_of_order(moved) == std::vector<OutOfOrder>{{"b", "a"}, {"c", "a"}});
    CHECK(out_of_order(finish).empty());
    CHECK(steps(good(move_step_below(moved, "a", "")))[0].first == "a");
    CHECK(steps(good(use_instead(finish, "a", "b")))[2].second == "b + b");
}

TEST_CASE("coats move as one; stand-ins are listed") {
    Finish finish = add_coat(finish_of({{"a", "uv.x"}}), 0, "Second");
    finish.coats[0].steps[0].stand_in = true;
    CHECK(stand_ins(finish) == std::vector<std::string>{"a"});
    const Finish moved = good(move_coat(finish, 0, 1));
    CHECK(moved.coats[0].name == "Second");
    CHECK(move_coat(finish, 0, -1).fault().id == "edit.end");
    const Finish read = good(finish_from_text(finish_to_text(finish), "here")).finish;
    CHECK(read.coats[0].steps[0].stand_in);
}

TEST_CASE("several steps become a coat of their own, or go to the end of another, in the ladder's order") {
    Finish finish = test::finish_of({{"a", "uv.x"}, {"b", "a"}, {"c", "b"}, {"d", "c"}});
    finish = add_coat(std::move(finish), 0, "Second");
    const auto names = [](const Coat& coat) {
        std::string all;
        for (const Step& step : coat.steps) all += step.name;
        return all;
    };
    const auto grouped = group_steps(finish, {"c", "a"}, "Own");
    REQUIRE(grouped);
    REQUIRE(grouped->coats.size() == 3);
    CHECK(names(grouped->coats[0]) == "bd");
    CHECK(grouped->coats[1].name == "Own");
    CHECK(names(grouped->coats[1]) == "ac");
    const auto moved = move_steps_to_coat(*grouped, {"d", "b"}, 1);
    REQUIRE(moved);
    CHECK(names(moved->coats[1]) == "acbd");
    CHECK(moved->coats[0].steps.empty());
    CHECK(group_steps(finish, {"a", "nobody"}, "Own").fault().id == "edit.unknown");
    CHECK(group_steps(finish, {}, "Own").fault().id == "edit.unknown");
    CHECK(move_steps_to_coat(finish, {"a"}, 9).fault().id == "edit.unknown");
}

TEST_CASE("what is played is taken apart with its events") {
    Finish finish = test::finish_of({{"a", "uv.x"}});
    finish.cues = {{"gust", 1}, {"wave", 1}};
    finish.signals = {Signal{.name = "boat", .kind = SignalKind::place},
                      Signal{.name = "near", .kind = SignalKind::toggle}};
    finish.signals[1].zone.of = "boat";
    finish.responses = {Response{.name = "shake", .kind = "jolt", .cue = "gust"}};
    finish.tape.cues = {{"gust", 0.1}, {"wave", 0.2}};
    finish.tape.changes = {{"boat", 0.1, {0.5, 0.5, 0}}, {"near", 0.2, {1, 0, 0}}};
    const Finish calm = without_cue(finish, "gust");
    CHECK(calm.cues.size() == 1);
    CHECK(calm.tape.cues == Cues{{"wave", 0.2}});
    CHECK(calm.responses == finish.responses);
    const Finish gone = without_signal(finish, "boat");
    CHECK(gone.signals.size() == 1);
    CHECK(gone.signals[0].zone.of.empty());
    CHECK(gone.tape.changes.size() == 1);
    CHECK(without_response(finish, "shake").responses.empty());
}
