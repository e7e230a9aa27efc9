// What a step passes on while it is off.
#include <catch2/catch.hpp>

#include "core/plan/plan.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

// What the last of these steps is, as text, when it is off.
std::string passed_on_by(std::vector<std::pair<std::string, std::string>> steps) {
    Finish finish = test::finish_of(steps);
    finish.coats[0].steps.back().on = false;
    const auto checked = test::checked(finish);
    for (const CheckedStep& step : checked->steps) {
        if (step.fault) FAIL(to_text(*step.fault));
    }
    return to_text(*checked->steps.back().typed);
}

}  // namespace

TEST_CASE("a step that is off passes on what it reads elsewhere, or what its operation was handed") {
    const std::string a = "vec4(uv, 0.5, 1)";
    CHECK(passed_on_by({{"a", a}, {"b", "texture(a, uv * 0.5)"}}) == "a");
    CHECK(passed_on_by({{"a", a}, {"b", "gaussian_blur(a, 3)"}}) == "a");
    CHECK(passed_on_by({{"a", a}, {"b", "texelFetch(a, ivec2(pixel))"}}) == "a");
    CHECK(passed_on_by({{"a", a}, {"b", "textureLod(a, uv, 2) * 0.5"}}) == "a");
    CHECK(passed_on_by({{"m", "uv.x"}, {"a", a}, {"b", "blur_by_mask(a, m, 9)"}}) == "a");
    // The size of a picture is no picture.
    CHECK(passed_on_by({{"a", a}, {"b", "vec2(textureSize(a))"}}) == "vec2(0.0)");
    // An expression that it was handed is passed on as it was stored.
    CHECK(passed_on_by({{"a", a}, {"b", "gaussian_blur(a * 2, 3)"}}) == "b.1");
}

TEST_CASE("a step that is off draws what it passes on, and its stages are not drawn") {
    Finish finish = test::finish_of({{"a", "vec4(uv, 0.5, 1)"}, {"b", "gaussian_blur(a, 9)"}});
    const Picture on = test::draw(finish, "b", 64, 36).picture;
    const Picture source = test::draw(finish, "a", 64, 36).picture;
    finish.coats[0].steps[1].on = false;
    const Picture off = test::draw(finish, "b", 64, 36).picture;
    CHECK(off.data == source.data);
    CHECK(on.data != source.data);
    CHECK(plan_passes(*test::checked(finish), {"b"}).passes.size() == 1);
}
