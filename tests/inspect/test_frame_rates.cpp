// The frame-rate check: what goes by time is the same, what goes by frames is found and said so.
#include "core/inspect/frame_rates.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

const RateRow& row_of(const std::vector<RateRow>& rows, const std::string& name) {
    for (const RateRow& row : rows) {
        if (row.name == name) return row;
    }
    FAIL(name);
    return rows.front();
}

}  // namespace

TEST_CASE("frames follow one another as their pace says") {
    for (const FramePace& pace : frame_paces()) {
        const std::vector<double> times = pace.times(3);
        INFO(pace.words);
        CHECK(times.front() == 0);
        CHECK(std::is_sorted(times.begin(), times.end()));
        CHECK(times.back() <= 3);
        CHECK(times.back() > 2.9);
    }
    CHECK(frame_paces()[0].times(1).size() == 25);
    CHECK(frame_paces()[3].times(1).size() == 145);
}

TEST_CASE("mixing a share in every frame is found out, following by seconds is not") {
    // What is often done: a tenth of the way in each frame, whatever time has passed.
    const auto aim = [](double time) { return time < 1 ? 0.0 : 1.0; };
    const FramePlayer exact = [&](double time) {
        return NamedValues{{"chased", time < 1 ? 0 : 1 - std::exp(-6 * (time - 1))}, {"still", 5}};
    };
    const auto by_frames = [&]() -> FramePlayer {
        return [&, value = 0.0](double time) mutable {
            value += (aim(time) - value) * 0.1;
            return NamedValues{{"chased", value}, {"still", 5}};
        };
    };
    const std::vector<RateRow> rows = compare_paces(3, exact, by_frames);
    CHECK(row_of(rows, "chased").largest > 0.1);
    CHECK(row_of(rows, "chased").why.find("goes by frames, not by seconds") != std::string::npos);
    CHECK(row_of(rows, "still").largest == 0);
    const std::vector<RateRow> same = compare_paces(3, exact, [&] { return exact; });
    CHECK(row_of(same, "chased").largest == 0);
    CHECK(row_of(same, "chased").why.empty());
    RateReport report;
    report.rows = same;
    CHECK(report.same());
    report.rows = rows;
    CHECK_FALSE(report.same());
}

TEST_CASE("a peak that falls between two frames is told, with what to do") {
    Finish finish = test::demo_finish();
    finish.responses[0].settings["rise"] = 0.004;
    finish.responses[0].settings["stay"] = 0.0;
    finish.responses[0].settings["fall"] = 0.02;
    finish.tape.cues = {{"hit", 1.011, 1}};
    WorkerPool pool(2);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = test::checked(finish);
    request.finish_path = test::demo_path();
    const RateReport report = check_frame_rates(request, renderer, Cancel());
    CHECK(report.same());
    CHECK(report.pictures > 0);
    CHECK(report.picture_largest == 0);
    const RateRow& radius = row_of(report.rows, "radius");
    CHECK(radius.missed > 0.25);
    CHECK(radius.why.find("no frame falls on its peak") != std::string::npos);
    CHECK(report.words.find("may fall between two frames") != std::string::npos);
}

TEST_CASE("every demo that plays is the same at every frame rate, from its own tape") {
    WorkerPool pool(2);
    Renderer renderer(pool);
    for (const char* name : {"moving-wall", "two-places", "touched-chart", "squall-strike", "camera-shake",
                             "brightness-burn", "ailing-crab", "blink-and-pulse", "everyday-fade", "everyday-flash"}) {
        INFO(name);
        RenderRequest request;
        request.checked = test::checked(test::demo_named(name));
        request.finish_path = test::demo_path(name);
        CHECK_FALSE(request.checked->finish->tape.empty());
        const RateReport report = check_frame_rates(request, renderer, Cancel());
        CHECK(report.same());
        CHECK(report.picture_largest == 0);
        CHECK(report.pictures >= 5);
        // And none of them has a peak that some players would never see.
        for (const RateRow& row : report.rows) CHECK(row.why.empty());
    }
}

TEST_CASE("the check is on the command line, too, and passes for the demo") {
    const auto result =
        test::run_command(test::program_folder() + "/lacquer-cli rates " + test::demo_path("squall-strike"));
    INFO(result.output);
    CHECK(result.code == 0);
    CHECK(result.output.find("radius") != std::string::npos);
    CHECK(result.output.find("The same at every frame rate") != std::string::npos);
    CHECK(test::run_command(test::program_folder() + "/lacquer-cli rates nowhere.lacquer").code == 1);
}

TEST_CASE("a very long tape is checked over its beginning") {
    Finish finish = test::demo_finish();
    finish.length = 600;
    finish.tape.cues.clear();
    for (int i = 0; i < 3000; ++i) finish.tape.cues.push_back({"hit", i * 0.2, 0.5});
    WorkerPool pool(2);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = test::checked(finish);
    request.finish_path = test::demo_path();
    Cancel cancel;
    cancel.request();  // pictures are left out
    const RateReport report = check_frame_rates(request, renderer, cancel);
    CHECK(report.seconds <= 60);
    CHECK(report.same());
}
