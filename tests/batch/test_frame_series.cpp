// Many frames at once: the same bits as each alone, and nothing half.
#include "core/batch/frame_series.h"

#include <atomic>
#include <catch2/catch.hpp>
#include <filesystem>
#include <set>

#include "core/picture/files.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

std::vector<SeriesFrame> frames_in(const test::TemporaryFolder& folder, const std::string& name, int count) {
    std::vector<SeriesFrame> frames;
    for (int i = 0; i < count; ++i) frames.push_back({i, i / 10.0, numbered_path(folder.file(name), i)});
    return frames;
}

RenderRequest request_of(const std::string& demo) {
    RenderRequest request;
    request.checked = test::checked(test::demo_named(demo));
    request.finish_path = test::demo_path(demo);
    request.frame_width = 64;
    request.frame_height = 36;
    request.steps = {""};
    return request;
}

}  // namespace

TEST_CASE("names of frames carry their number and what tells series apart") {
    CHECK(numbered_path("a/storm.png", 7) == "a/storm-0007.png");
    CHECK(numbered_path("storm", 12345) == "storm-12345.png");
    CHECK(numbered_path("a.b/storm", 0) == "a.b/storm-0000.png");
    CHECK(labelled_path("storm.exr", "night") == "storm-night.exr");
}

TEST_CASE("a series has the bits of frames that are drawn alone, by any number of threads, with ticks and without") {
    for (const char* demo : {"squall-strike", "chimney-smoke", "rain-on-the-pane"}) {
        INFO(demo);
        const test::TemporaryFolder folder;
        const RenderRequest request = request_of(demo);
        constexpr int count = 9;
        WorkerPool pool(2);
        Renderer renderer(pool);
        for (const SeriesFrame& frame : frames_in(folder, "alone.png", count)) {
            RenderRequest one = request;
            one.time = frame.time;
            const Result<Frame> drawn = renderer.render(one, Cancel());
            REQUIRE(drawn);
            REQUIRE(write_frame(frame.path, *drawn, *request.checked->finish, {}));
        }
        for (const int threads : {1, 2, 5}) {
            SeriesOptions options;
            options.threads = threads;
            std::set<int> told;
            const auto watch = [&](const SeriesFrame& frame, const Frame&, const std::string&) {
                told.insert(frame.number);
            };
            const Result<Done> done =
                draw_series(request, frames_in(folder, "series.png", count), options, watch, Cancel());
            if (!done) FAIL(to_text(done.fault()));
            CHECK(told.size() == count);
            for (int i = 0; i < count; ++i) {
                INFO(threads << " threads, frame " << i);
                CHECK(test::read_file(numbered_path(folder.file("series.png"), i)) ==
                      test::read_file(numbered_path(folder.file("alone.png"), i)));
            }
        }
    }
}

TEST_CASE("a series that is called off leaves whole files only, and says so") {
    const test::TemporaryFolder folder;
    const Cancel cancel;
    int written = 0;
    const auto watch = [&](const SeriesFrame&, const Frame&, const std::string&) {
        if (++written == 3) cancel.request();
    };
    SeriesOptions options;
    options.threads = 3;
    const Result<Done> done =
        draw_series(request_of("squall-strike"), frames_in(folder, "a.png", 60), options, watch, cancel);
    REQUIRE_FALSE(done);
    CHECK(done.fault().id == "render.cancelled");
    int there = 0;
    for (const auto& entry : std::filesystem::directory_iterator(folder.path())) {
        ++there;
        CHECK(read_picture(entry.path().string(), PictureMeaning::colour));
    }
    CHECK(there >= 3);
    CHECK(there < 20);
}

TEST_CASE("what cannot be written ends a series with its first fault") {
    const test::TemporaryFolder folder;
    for (const char* demo : {"squall-strike", "chimney-smoke"}) {
        std::vector<SeriesFrame> frames = frames_in(folder, "a.png", 8);
        for (std::size_t i = 4; i < frames.size(); ++i) frames[i].path = folder.file("nowhere/x.png");
        SeriesOptions options;
        options.threads = 2;
        const Result<Done> done = draw_series(request_of(demo), frames, options, nullptr, Cancel());
        REQUIRE_FALSE(done);
        CHECK(done.fault().id == "file.unwritable");
    }
    RenderRequest nothing = request_of("squall-strike");
    nothing.checked = test::checked(Finish());
    const Result<Done> empty = draw_series(nothing, frames_in(folder, "b.png", 2), {}, nullptr, Cancel());
    REQUIRE_FALSE(empty);
    CHECK(empty.fault().id == "batch.empty");
}

TEST_CASE("with little memory fewer frames are under way, and all are drawn") {
    const test::TemporaryFolder folder;
    SeriesOptions options;
    options.threads = 8;
    options.memory = 1;
    std::atomic<int> under_way = 0;
    std::atomic<int> most = 0;
    options.before_writing = [&](const SeriesFrame&) { most = std::max(most.load(), ++under_way); };
    options.after_writing = [&](const SeriesFrame&) { --under_way; };
    REQUIRE(draw_series(request_of("squall-strike"), frames_in(folder, "a.png", 6), options, nullptr, Cancel()));
    CHECK(most == 1);
    CHECK(std::filesystem::exists(numbered_path(folder.file("a.png"), 5)));
}
