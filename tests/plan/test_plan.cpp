#include <catch2/catch.hpp>

#include "core/plan/plan.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::checked;
using test::finish_of;

namespace {

std::vector<std::string> names(const Pass& pass) {
    std::vector<std::string> all;
    for (const PassStep& step : pass.steps) all.push_back(step.name);
    return all;
}

using Names = std::vector<std::string>;

}  // namespace

TEST_CASE("steps that nothing reads elsewhere go into one pass, and only what is needed") {
    const auto finish = checked(finish_of({{"a", "uv.x"}, {"b", "uv.y"}, {"c", "a * 2"}, {"d", "c + a"}}));
    const Plan plan = plan_passes(*finish, {"d"});
    REQUIRE(plan.passes.size() == 1);
    CHECK(names(plan.passes[0]) == Names{"a", "c", "d"});
    CHECK(plan.passes[0].outputs == Names{"d"});
}

TEST_CASE("a step that is read elsewhere is stored first, in order") {
    const auto finish = checked(
        finish_of({{"a", "uv.x"}, {"b", "texture(a, uv.yx) + a"}, {"c", "texture(b, uv * 0.5)"}, {"d", "c + b + a"}}));
    const Plan plan = plan_passes(*finish, {"d"});
    REQUIRE(plan.passes.size() == 3);
    CHECK(plan.passes[0].outputs == Names{"a"});
    CHECK(plan.passes[1].outputs == Names{"b"});
    CHECK(plan.passes[1].stored == Names{"a"});
    CHECK(names(plan.passes[2]) == Names{"c", "d"});
    CHECK(plan.passes[2].stored == Names{"a", "b"});
}

TEST_CASE("an expression that is read as a picture is stored without a name") {
    const auto finish = checked(finish_of({{"a", "uv.x"}, {"b", "texture(a * 2, uv.yx) + texture(a + 1, uv)"}}));
    const Plan plan = plan_passes(*finish, {"b"});
    REQUIRE(plan.passes.size() == 3);
    CHECK(plan.passes[0].outputs == Names{"b.1"});
    CHECK(plan.passes[1].outputs == Names{"b.2"});
    CHECK(plan.passes[2].stored == Names{"b.1", "b.2"});
}

TEST_CASE("smaller copies are asked for where they are read") {
    const auto finish = checked(finish_of({{"a", "uv.x"}, {"b", "textureLod(a, uv, 2)"}, {"c", "texture(b, uv)"}}));
    const Plan plan = plan_passes(*finish, {"c"});
    REQUIRE(plan.passes.size() == 3);
    CHECK(plan.passes[1].pyramids == Names{"a"});
    CHECK(plan.passes[2].pyramids.empty());
}

TEST_CASE("wanted steps with a fault are left out, others are drawn") {
    const auto finish = checked(finish_of({{"a", "uv.x"}, {"b", "oops"}, {"c", "b + 1"}}));
    const Plan plan = plan_passes(*finish, {"a", "b", "c"});
    REQUIRE(plan.passes.size() == 1);
    CHECK(plan.passes[0].outputs == Names{"a"});
}

TEST_CASE("storing a step never changes a value") {
    const Finish finish = finish_of({{"n", "gradient_noise(uv * 7) - 2"},
                                     {"v", "vec3(n, n * 1e10, -n)"},
                                     {"here", "v"},
                                     {"stored", "v + texture(v, uv) * 0"},
                                     {"read", "texture(v, uv)"}});
    const DrawnStep here = test::draw(finish, "here", 33, 17);
    CHECK(test::draw(finish, "stored", 33, 17).picture.data == here.picture.data);
    CHECK(test::draw(finish, "read", 33, 17).picture.data == here.picture.data);
}

TEST_CASE("a stored step that is wanted itself is handed out") {
    const Finish finish = finish_of({{"a", "uv"}, {"b", "texture(a, uv).x"}});
    WorkerPool pool(1);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = checked(finish);
    request.width = request.height = 4;
    request.steps = {"a", "b"};
    const Result<Frame> frame = renderer.render(request, Cancel());
    REQUIRE(frame);
    REQUIRE(frame->steps.size() == 2);
    CHECK(frame->steps[0].picture.channels == 2);
    CHECK(frame->steps[0].picture.at(3, 0)[0] == 0.875F);
    CHECK(frame->steps[1].picture.at(3, 0)[0] == 0.875F);
}

TEST_CASE("the plan as text names passes, steps and reads") {
    const auto finish = checked(finish_of({{"a", "uv.x"}, {"b", "texture(a, uv)"}}));
    const std::string text = to_text(plan_passes(*finish, {"b"}));
    CHECK(text.find("pass stores a") != std::string::npos);
    CHECK(text.find("b: float = texture(a, uv)") != std::string::npos);
}
