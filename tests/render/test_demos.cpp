// Every finish that comes along: found by folder, each opens and draws without a complaint and says how it is made.
#include <catch2/catch.hpp>
#include <cmath>
#include <filesystem>

#include "core/finish/file.h"
#include "core/render/layer_view.h"
#include "core/render/view.h"
#include "tests/support/finishes.h"
#include "tests/support/operations.h"

using namespace lacquer;

namespace {

std::vector<std::string> demo_names() {
    std::vector<std::string> names;
    for (const auto& entry : std::filesystem::directory_iterator(std::string(LACQUER_SOURCE) + "/demo/finishes")) {
        if (entry.path().extension() == ".lacquer") names.push_back(entry.path().stem().string());
    }
    return names;
}

}  // namespace

TEST_CASE("every demo draws without a fault over its whole length") {
    const std::vector<std::string> names = demo_names();
    CHECK(names.size() >= 20);
    WorkerPool pool(2);
    Renderer renderer(pool);
    for (const std::string& name : names) {
        INFO(name);
        const Finish finish = test::demo_named(name);
        RenderRequest request;
        request.checked = test::checked(finish);
        CHECK(request.checked->faults.empty());
        for (const CheckedStep& step : request.checked->steps) {
            if (step.fault) FAIL(step.name << ": " << to_text(*step.fault));
        }
        request.finish_path = test::demo_path(name);
        request.width = finish.frame_width / 8;
        request.height = finish.frame_height / 8;
        for (int i = 0; i <= 6; ++i) {
            request.time = finish.length * i / 6;
            request.steps = {""};
            const Result<Frame> frame = renderer.render(request, Cancel());
            if (!frame) FAIL(to_text(frame.fault()));
            CHECK(frame->notices.empty());
            for (const float x : frame->steps[0].picture.data) REQUIRE(std::isfinite(x));
        }
    }
}

TEST_CASE("every demo says what it does, what its steps and dials are for, and in which ranges they work") {
    for (const std::string& name : demo_names()) {
        INFO(name);
        const Finish finish = test::demo_named(name);
        CHECK(finish.brief.size() > 40);
        CHECK(finish.name != "Untitled");
        bool told = false;
        for (const Coat& coat : finish.coats) {
            CHECK_FALSE(coat.name.empty());
            told = told || !coat.note.empty();
            for (const Step& step : coat.steps) told = told || !step.note.empty();
        }
        CHECK(told);
        for (const Dial& dial : finish.dials) {
            INFO(dial.name);
            CHECK_FALSE(dial.note.empty());
            CHECK(dial.least < dial.most);
            if (dial.kind == DialKind::colour) continue;
            CHECK(dial.value[0] >= dial.least);
            CHECK(dial.value[0] <= dial.most);
        }
    }
}

TEST_CASE("what is seen of every demo is the same whether its numbers are there or not") {
    WorkerPool pool(2);
    for (const std::string& name : demo_names()) {
        INFO(name);
        Result<OpenedFinish> opened = load_finish(test::demo_path(name));
        REQUIRE(opened);
        RenderRequest request;
        request.checked = test::checked(opened->finish);
        request.finish_path = test::demo_path(name);
        request.time = opened->finish.length * 0.4;
        // Odd sides: the last column and row of what is drawn in blocks of two.
        request.width = 157;
        request.height = 89;
        request.steps = {""};
        for (const Ground& ground : opened->finish.grounds) request.steps.push_back(ground.name);
        if (!opened->finish.coats.empty() && !opened->finish.coats[0].steps.empty())
            request.steps.push_back(opened->finish.coats[0].steps[0].name);
        Renderer renderer(pool);
        const Result<Frame> whole = renderer.render(request, Cancel());
        REQUIRE(whole);
        const ViewStyle style{0.5, true, true, true};
        request.seen = style;
        const Result<Frame> seen = renderer.render(request, Cancel());
        REQUIRE(seen);
        REQUIRE(seen->steps.size() == whole->steps.size());
        for (std::size_t i = 0; i < whole->steps.size(); ++i) {
            const DrawnStep& step = whole->steps[i];
            INFO(step.name);
            CHECK(seen->steps[i].picture.data.empty());
            const auto layer = layer_to_view(opened->finish, step.name);
            CHECK(seen->steps[i].image == (layer ? to_image(layer_view(step.picture, *layer), Type::vec3, pool)
                                                 : to_image(step.picture, step.type, pool, style)));
        }
    }
}
