// Checking a finish that was checked before: whatever was changed, the answer is that of a check from nothing.
#include <catch2/catch.hpp>

#include "core/base/hash.h"
#include "core/finish/edits.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::finish_of;

namespace {

Finish ladder() {
    Finish finish = finish_of({{"place", "uv * 2 - 1"},
                               {"reach", "length(place)"},
                               {"soft", "gaussian_blur(reach * vec4(1), 3)"},
                               {"view", "texture(soft + reach, uv * radius)"},
                               {"last", "view * reach"}});
    Dial radius;
    radius.name = "radius";
    finish.dials.push_back(radius);
    finish.grounds.push_back(test::stops_ground("dusk", StopValues::colours, {}));
    return finish;
}

CheckedFinish check_again(const Finish& finish, const CheckedFinish& before) {
    return check_finish(std::make_shared<const Finish>(finish), built_in_catalogue(), &before);
}

// Everything that others can see of a check.
std::string seen(const CheckedFinish& checked) {
    std::string text;
    for (const CheckedStep& step : checked.steps) {
        text += step.name + (step.on ? " on " : " off ") + std::to_string(step.scale) + " ";
        text += step.typed ? std::string(glsl_name(step.typed->type)) + " " + to_text(*step.typed) : std::string("-");
        if (step.fault) text += step.fault->id + " " + to_text(*step.fault);
        text += "\n";
    }
    for (const Fault& fault : checked.faults) text += to_text(fault) + "\n";
    return text;
}

void holds(const Finish& before, const Finish& after) {
    const CheckedFinish first = *test::checked(before);
    const CheckedFinish again = check_again(after, first);
    CHECK(seen(again) == seen(*test::checked(after)));
    // And from there back again.
    CHECK(seen(check_again(before, again)) == seen(first));
}

const CheckedStep& step(const CheckedFinish& checked, std::string_view name) {
    const CheckedStep* found = find_step(checked, name);
    REQUIRE(found != nullptr);
    return *found;
}

}  // namespace

TEST_CASE("steps that have not changed are taken as they are, with their stored parts") {
    const Finish before = ladder();
    Finish after = before;
    after.coats[0].steps[1].formula = "length(place) * 1.5";
    const CheckedFinish first = *test::checked(before);
    const CheckedFinish again = check_again(after, first);
    CHECK(step(again, "place").typed == step(first, "place").typed);
    CHECK(step(again, "last").typed == step(first, "last").typed);
    CHECK(step(again, "soft.copy").typed == step(first, "soft.copy").typed);
    CHECK(step(again, "reach").typed != step(first, "reach").typed);
    CHECK(again.steps.size() == first.steps.size());
    CHECK(seen(again) == seen(*test::checked(after)));
}

TEST_CASE("a step of another type changes those below it") {
    Finish after = ladder();
    after.coats[0].steps[1].formula = "place";
    holds(ladder(), after);
    const CheckedFinish again = check_again(after, *test::checked(ladder()));
    CHECK(step(again, "reach").typed->type == Type::vec2);
    CHECK(step(again, "last").fault);
}

TEST_CASE("a fault and its mending reach the steps below") {
    Finish after = ladder();
    after.coats[0].steps[0].formula = "uv * nonsense";
    holds(ladder(), after);
    CHECK(step(check_again(after, *test::checked(ladder())), "last").fault->id == "finish.broken-source");
}

TEST_CASE("dials, grounds, names, order, coats and the frame's size are looked at") {
    std::vector<Finish> others(9, ladder());
    others[0].dials[0].kind = DialKind::colour;
    others[1].dials.clear();
    others[2].grounds[0].kind = CurveGround{};
    others[3].grounds.push_back(test::picture_ground("scene", "x.png"));
    others[4] = *rename(ladder(), "reach", "far");
    std::swap(others[5].coats[0].steps[1], others[5].coats[0].steps[2]);
    others[6].coats[0].steps[2].on = false;
    others[7].coats[0].on = false;
    others[8].frame_width = 16;
    for (const Finish& other : others) holds(ladder(), other);
}

TEST_CASE("another catalogue starts all over") {
    const CheckedFinish first = *test::checked(ladder());
    const auto other = make_catalogue(built_in_operation_files());
    const CheckedFinish again = check_finish(first.finish, other, &first);
    CHECK(step(again, "place").typed != step(first, "place").typed);
    CHECK(seen(again) == seen(first));
}

TEST_CASE("any walk of edits is checked as if from nothing") {
    const std::vector<std::string> formulas = {"uv",
                                               "uv.x",
                                               "length(place)",
                                               "reach * 2",
                                               "view.rgb",
                                               "soft",
                                               "texture(reach, uv)",
                                               "nonsense",
                                               "at(dusk, reach)",
                                               "radius * uv",
                                               "mottle(uv)",
                                               "gaussian_blur(vec4(reach), 20)"};
    std::uint32_t random = 20;
    const auto pick = [&](std::size_t count) {
        random = pcg(random);
        return static_cast<std::size_t>(random >> 8U) % count;
    };
    Finish finish = ladder();
    CheckedFinish checked = *test::checked(finish);
    for (int n = 0; n < 300; ++n) {
        std::vector<Step>& steps = finish.coats[0].steps.own();
        const std::size_t at = pick(steps.size());
        switch (pick(5)) {
            case 0:
                steps[at].on = !steps[at].on;
                break;
            case 1:
                std::swap(steps[at], steps[pick(steps.size())]);
                break;
            case 2:
                steps[at].name = "s_" + std::to_string(pick(6));
                break;
            default:
                steps[at].formula = formulas[pick(formulas.size())];
                break;
        }
        checked = check_again(finish, checked);
        INFO("after " << n << " edits");
        REQUIRE(seen(checked) == seen(*test::checked(finish)));
    }
}
