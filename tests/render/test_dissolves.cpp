// Dissolves are whole at 0 and gone at 1, whatever the width of their rim.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/lang/checker.h"
#include "core/lang/oracle.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

constexpr int widths = 501;

// How many pixels of the finished picture are seen, of a dissolve held at an amount.
std::size_t seen_at(Renderer& renderer, const std::shared_ptr<const CheckedFinish>& checked, const std::string& path,
                    double amount, double rim) {
    RenderRequest request;
    request.checked = checked;
    request.finish_path = path;
    request.frame_width = 96;
    request.frame_height = 64;
    request.steps = {"lost", "rim"};
    request.held = {{"amount", {amount, 0, 0}}, {"rim_width", {rim, 0, 0}}};
    const Result<Frame> frame = renderer.render(request, Cancel());
    REQUIRE(frame);
    REQUIRE(frame->steps.size() == 2);
    std::size_t changed = 0;
    const Picture& lost = frame->steps[0].picture;
    const Picture& burning = frame->steps[1].picture;
    for (std::size_t i = 0; i < lost.data.size(); ++i) {
        const bool whole = lost.data[i] == 0 && burning.data[i] == 0;
        const bool gone = lost.data[i] == 1 && burning.data[i] == 0;
        changed += amount == 0 ? (whole ? 0 : 1) : (gone ? 0 : 1);
    }
    return changed;
}

}  // namespace

TEST_CASE("every dissolve demo is exactly whole at 0 and exactly gone at 1, for 501 widths of its rim") {
    WorkerPool pool(2);
    for (const char* demo : {"dissolve", "dissolve:cells", "dissolve:swirl", "dissolve:wipe", "dissolve:torn_wipe"}) {
        const auto checked = test::checked(test::demo_named(demo));
        Renderer renderer(pool);
        INFO(demo);
        for (int i = 0; i < widths; ++i) {
            const double rim = static_cast<double>(i) / (widths - 1);
            REQUIRE(seen_at(renderer, checked, test::demo_path(demo), 0, rim) == 0);
            REQUIRE(seen_at(renderer, checked, test::demo_path(demo), 1, rim) == 0);
        }
    }
}

TEST_CASE("the outline dissolve keeps its outline at 0 and is exactly gone at 1") {
    WorkerPool pool(2);
    Renderer renderer(pool);
    const auto checked = test::checked(test::demo_named("dissolve-outline"));
    for (int i = 0; i < widths; ++i)
        REQUIRE(seen_at(renderer, checked, test::demo_path("dissolve-outline"), 1, static_cast<double>(i) / 500) == 0);
}

TEST_CASE("an even pace keeps its promise for masks whose values lie close together") {
    for (const char* mask : {"value_noise(uv * 9)", "0.45 + 0.01 * value_noise(uv * 9)", "0.9 + 0.1 * uv.x * uv.x",
                             "0.5 + 0.0001 * uv.y"}) {
        INFO(mask);
        const Picture even =
            test::draw(test::finish_of({{"mask", mask}, {"even", "even_pace(mask)"}}), "even", 320, 200).picture;
        for (const float share : {0.25F, 0.5F, 0.75F}) {
            std::size_t below = 0;
            for (const float value : even.data) {
                REQUIRE((value >= 0 && value < 1));
                below += value < share ? 1 : 0;
            }
            CHECK(static_cast<double>(below) / static_cast<double>(even.data.size()) ==
                  Approx(static_cast<double>(share)).margin(0.02));
        }
    }
}
