#include <catch2/catch.hpp>

#include "core/cpu/cost.h"
#include "core/cpu/lower.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

PassCost cost(const std::string& formula) {
    Finish finish = test::finish_of({{"a", formula}});
    finish.grounds.push_back(test::picture_ground("scene", "x.png"));
    const auto checked = test::checked(finish);
    REQUIRE(checked->steps[0].typed);
    return cost_of(optimised(lower(plan_for(*checked, {"a"}).passes.at(0))));
}

}  // namespace

TEST_CASE("cost counts what runs for each pixel, column, row and once") {
    // uv.x and uv.y are one instruction each; the sum of both is the pixel's.
    const PassCost sum = cost("uv.x * 2 + uv.y");
    CHECK(sum.pixel == 1);
    CHECK(sum.column == 2);
    CHECK(sum.row == 1);
    CHECK(sum.once == 0);
    CHECK(sum.reads == 0);
    CHECK(cost("sin(time) * 3").once == 2);
    const PassCost reading = cost("texture(scene, uv + 0.1) + scene");
    CHECK(reading.reads == 2);
    CHECK(reading.pixel == 4);
    CHECK_FALSE(reading.loops);
    CHECK(cost("float s = 0; for (float i = 0.0; i < uv.x * 9; i++) s += texture(scene, uv * i).r; return s;").loops);
    CHECK(to_text(sum) == "per pixel 1 instructions and 0 readings, per column 2, per row 1, once 0");
}
