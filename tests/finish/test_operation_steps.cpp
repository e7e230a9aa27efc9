// Operations that fill a step: what becomes of their stages.
#include <catch2/catch.hpp>

#include "core/plan/plan.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::finish_of;

namespace {

const std::string head = "//! title T\n//! group G\n//! about A.\n//! says s\n";

CheckedFinish checked_with(const std::string& operation, const std::string& formula) {
    const auto catalogue = make_catalogue({{"own", head + operation, "own.glsl"}});
    for (const Fault& fault : catalogue->faults) FAIL(to_text(fault));
    return check_finish(std::make_shared<const Finish>(finish_of({{"a", "uv.x"}, {"b", formula}})), catalogue);
}

std::vector<std::string> names(const CheckedFinish& checked) {
    std::vector<std::string> all;
    for (const CheckedStep& step : checked.steps) {
        INFO(step.name);
        if (step.fault) FAIL(to_text(*step.fault));
        all.push_back(step.name);
    }
    return all;
}

using Names = std::vector<std::string>;

}  // namespace

TEST_CASE("each stage but the last is a stored step, called after the step and the stage") {
    const CheckedFinish checked = checked_with(
        "//! picture picture same colour : p\n//! value far 1 number = 0.1 : f\n//! stage across size 1/2\n//! stage "
        "own\n"
        "same across(sampler2D picture, float far) { return texture(picture, uv + vec2(far, 0)); }\n"
        "same own(float far) { return texture(across, uv - vec2(far, 0)); }\n",
        "own(a)");
    CHECK(names(checked) == Names{"a", "b.across", "b"});
    CHECK(checked.steps[1].scale == 0.5);
    CHECK(checked.steps[2].scale == 1);
    CHECK(checked.steps[2].typed->type == Type::number);
    const Plan plan = plan_passes(checked, {"b"});
    REQUIRE(plan.passes.size() == 3);
    CHECK(plan.passes[1].scale == 0.5);
    CHECK(plan.passes[1].outputs == Names{"b.across"});
    CHECK(to_text(plan).find("at 0.5 of the size") != std::string::npos);
}

TEST_CASE("rounds read the one before by their own name, the first what stands before") {
    const CheckedFinish checked = checked_with(
        "//! picture picture 1 mask : p\n//! stage spread repeat 3\n//! stage own\n"
        "float spread(int turn) { return texture(spread, uv) + float(turn); }\n"
        "float own() { return texture(spread, uv); }\n",
        "own(a)");
    CHECK(names(checked) == Names{"a", "b.spread.1", "b.spread.2", "b.spread.3", "b"});
    CHECK(names_used(*checked.steps[1].typed) == Names{"a", "uv"});
    CHECK(names_used(*checked.steps[3].typed) == Names{"b.spread.2", "uv"});
    const DrawnStep drawn = test::draw(finish_of({{"a", "uv.x"}}), "a", 4, 1);
    CHECK(drawn.picture.at(0, 0)[0] == 0.125F);
}

TEST_CASE("as many rounds as the frame can be halved") {
    const CheckedFinish checked = checked_with(
        "//! picture picture 1 mask : p\n//! stage spread repeat levels\n//! stage own\n"
        "float spread() { return texture(spread, uv); }\nfloat own() { return texture(spread, uv); }\n",
        "own(a)");
    CHECK(checked.steps.size() == 2 + 11);  // 1280 pixels
}

TEST_CASE("a last stage that is smaller is read in between its pixels") {
    const CheckedFinish checked = checked_with(
        "//! picture picture same colour : p\n//! stage own size 1/4\nsame own(sampler2D picture) { return "
        "texture(picture, uv); }\n",
        "own(vec4(a, uv, 1))");
    CHECK(names(checked) == Names{"a", "b.1", "b.own", "b"});
    CHECK(checked.steps[3].typed->is<NameHere>());
    CHECK(checked.steps[3].typed->type == Type::vec4);
}

TEST_CASE("a mistake in the file shows at the step, with the file's words") {
    const auto fault_of = [](const std::string& operation, const std::string& formula) {
        const CheckedFinish checked = checked_with(operation, formula);
        REQUIRE(checked.steps.back().fault);
        return *checked.steps.back().fault;
    };
    const std::string picture = "//! picture picture same colour : p\n";
    CHECK(fault_of(picture + "same own(sampler2D picture) { return texture(picure, uv); }\n", "own(a)")
              .message.find("picure") != std::string::npos);
    CHECK(
        fault_of(picture + "same own(sampler2D picture, float far) { return texture(picture, uv * far); }\n", "own(a)")
            .id == "finish.operation");
    CHECK(fault_of(picture + "//! value far 1 number : f\nsame own(sampler2D picture, float far) { return "
                             "texture(picture, uv * far); }\n",
                   "own(a)")
              .id == "lang.count");
}

TEST_CASE("an operation that replaces another does not change or break those that were read before") {
    std::vector<OperationFile> files = built_in_operation_files();
    // Other arguments than the one that comes along has, which the stages of `glow` call.
    files.push_back({"luminance", head + "//! value a 1 number : a\nfloat luminance(float a) { return a * 2.0; }\n",
                     "luminance.glsl"});
    const auto catalogue = make_catalogue(files);
    const Finish finish = finish_of({{"a", "vec4(uv, 0, 1)"}, {"b", "glow(a)"}, {"c", "luminance(uv.x)"}});
    const CheckedFinish own = check_finish(std::make_shared<const Finish>(finish), catalogue);
    CHECK_FALSE(find_step(own, "b")->fault);
    CHECK_FALSE(find_step(own, "c")->fault);
    Finish without = finish;
    without.coats[0].steps.pop_back();
    const CheckedFinish plain = check_finish(std::make_shared<const Finish>(without));
    CHECK(find_step(own, "b")->hash == find_step(plain, "b")->hash);
}
