// Every finish that comes along: found by folder, each opens and draws without a complaint and says how it is made.
#include <catch2/catch.hpp>
#include <cmath>
#include <filesystem>

#include "core/finish/file.h"
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
