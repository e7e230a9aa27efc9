// What goes wrong from tick to tick: told, healed, and gone after its mend. What is provoked is common practice of the
// trade, no source.
#include <catch2/catch.hpp>

#include "core/inspect/frame_rates.h"
#include "core/inspect/inspection.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

Finish loop_of(const std::vector<std::pair<std::string, std::string>>& steps, const std::string& loop, int width) {
    Finish finish = test::finish_of(steps);
    finish.frame_width = 96;
    finish.frame_height = 54;
    for (Step& step : finish.coats[0].steps.own()) {
        if (step.name == loop) step.ticking.width = width;
    }
    return finish;
}

Warnings told_by(const Finish& finish, const std::string& id) {
    WorkerPool pool(1);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = test::checked(finish);
    for (const CheckedStep& step : request.checked->steps) {
        if (step.fault) FAIL(to_text(*step.fault));
    }
    Warnings all = inspect(request, renderer, Cancel());
    std::erase_if(all, [&](const Warning& warning) { return warning.id != id; });
    return all;
}

Finish healed(const Finish& finish, const std::string& id, const std::string& where) {
    const Warnings before = told_by(finish, id);
    REQUIRE(before.size() == 1);
    CHECK(before[0].where == where);
    INFO(before[0].message);
    REQUIRE_FALSE(before[0].mends.empty());
    const Result<Finish> after = before[0].mends.front().apply(finish);
    REQUIRE(after);
    CHECK(told_by(*after, id).empty());
    return *after;
}

const std::string spot = "smoothstep(0.1, 0.0, length(uv - vec2(0.5, 0.7)))";

}  // namespace

TEST_CASE("a share that is left after each tick becomes one of each second") {
    const Finish finish =
        loop_of({{"flow", "max(previous(flow) * 0.98, " + spot + " * (time < 0.1 ? 1.0 : 0.0))"}}, "flow", 1);
    const Finish after = healed(finish, "inspect.tick-rate", "flow");
    CHECK(find_step(after, "flow")->formula.find("fade_by(previous(flow), 0.297553)") != std::string::npos);
    // What is the same at any rate is left alone.
    CHECK(told_by(loop_of({{"flow", "max(previous(flow) * 0.98, 1)"}}, "flow", 1), "inspect.tick-rate").empty());
}

TEST_CASE("a loop that gains more than it loses is told, with where, and fades after its mend") {
    const Finish finish = loop_of({{"flow", "previous(flow) + " + spot + " * tick_length"}}, "flow", 1);
    const Warnings told = told_by(finish, "inspect.grows");
    REQUIRE(told.size() == 1);
    CHECK(told[0].message.find(", 0.69 of the frame") != std::string::npos);
    healed(finish, "inspect.grows", "flow");
    CHECK(told_by(loop_of({{"flow", "previous(flow) * 1.2 + 1"}}, "flow", 1), "inspect.grows").size() == 1);
    CHECK(told_by(loop_of({{"flow", "max(previous(flow), " + spot + ")"}}, "flow", 1), "inspect.grows").empty());
}

TEST_CASE("vectors that stand still are offered a drift; an even wind and one that moves are not") {
    const auto flow = [](const std::string& wind) {
        return loop_of(
            {{"height", wind}, {"wind", "curl_of(height, 0.05)"}, {"flow", "flow_push(previous(flow), wind)"}}, "flow",
            1);
    };
    const Finish after = healed(flow("gradient_noise(uv * 4)"), "inspect.still-vectors", "flow");
    CHECK(find_step(after, "height")->formula == "gradient_noise((uv + vec2(0.03, 0.1) * time) * 4)");
    CHECK(told_by(flow("gradient_noise(vec3(uv * 4, time))"), "inspect.still-vectors").empty());
    CHECK(told_by(loop_of({{"wind", "vec2(0.1, 0)"}, {"flow", "flow_push(previous(flow), wind)"}}, "flow", 1),
                  "inspect.still-vectors")
              .empty());
}

TEST_CASE("a place that previous reads and that nobody centred drifts to one corner") {
    const Finish finish = loop_of(
        {{"noise", "value_noise(uv * 5)"}, {"flow", "previous(flow, uv - vec2(noise, noise) * 0.01) * 0.9 + 0.1"}},
        "flow", 1);
    healed(finish, "inspect.one-way-push", "flow");
}

TEST_CASE("demos that flow have nothing to mend in how they flow") {
    for (const char* demo : {"chimney-smoke", "lamp-flame", "wake", "phosphor-sea", "walked-clear"}) {
        Finish finish = test::demo_named(demo);
        for (const char* id : {"inspect.tick-rate", "inspect.grows", "inspect.still-vectors", "inspect.one-way-push"}) {
            INFO(demo << " " << id);
            CHECK(told_by(finish, id).empty());
        }
    }
}

TEST_CASE("a loop is the same at every frame rate, for it goes by its own ticks") {
    Finish finish = loop_of({{"flow", "previous(flow) * 0.97 + " + spot + " * hits"}}, "flow", 1);
    finish.length = 1.5;
    finish.cues.push_back({.name = "hit"});
    finish.responses.push_back({"blow", "strike", "hit", {{"rest", 0.0}, {"least", 0.0}, {"most", 1.0}}});
    Dial hits;
    hits.name = hits.code_name = "hits";
    hits.formula = "blow";
    finish.dials.push_back(hits);
    finish.tape.cues.push_back({"hit", 0.4, 1});
    finish.ticks.reset = "hit";
    WorkerPool pool(2);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = test::checked(finish);
    const RateReport report = check_frame_rates(request, renderer, Cancel());
    CHECK(report.pictures > 5);
    CHECK(report.picture_largest == 0);
    CHECK(report.same());
}
