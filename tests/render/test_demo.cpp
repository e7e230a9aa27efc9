// What must hold for the demo: untouched at rest at every frame shape, the same bits every time.
#include <catch2/catch.hpp>

#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/picture/files.h"
#include "core/render/view.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

RenderRequest request_for(const Finish& finish, int width, int height, double time, Cues cues) {
    RenderRequest request;
    request.checked = test::checked(finish);
    request.finish_path = test::demo_path();
    request.frame_width = width;
    request.frame_height = height;
    request.time = time;
    request.tape = std::make_shared<const Tape>(Tape{std::move(cues), {}});
    request.steps = {""};
    return request;
}

Picture drawn(const RenderRequest& request, int threads = 2, const std::optional<KernelSet>& kernels = std::nullopt) {
    WorkerPool pool(threads);
    Renderer renderer(pool, kernels);
    Result<Frame> frame = renderer.render(request, Cancel());
    REQUIRE(frame);
    REQUIRE(frame->notices.empty());
    return std::move(frame->steps.at(0).picture);
}

// The ground alone, at the same frame.
Finish ground_only(Finish finish) {
    finish.coats.clear();
    return finish;
}

}  // namespace

TEST_CASE("the demo opens without a complaint") {
    const auto checked = test::checked(test::demo_finish());
    CHECK(checked->faults.empty());
    for (const CheckedStep& step : checked->steps) {
        INFO(step.name);
        CHECK_FALSE(step.fault);
    }
}

TEST_CASE("at rest the finished picture is the input, every pixel, at every frame shape") {
    const Finish finish = test::demo_finish();
    struct Shape {
        int width, height;
    };
    for (const Shape shape : {Shape{1280, 720}, Shape{840, 360}, Shape{480, 480}, Shape{360, 640}}) {
        for (const double time : {0.0, 5.9}) {
            const Cues long_ago = {{"hit", 0.1, 1.0}};
            const Picture picture =
                drawn(request_for(finish, shape.width, shape.height, time, time > 0 ? long_ago : Cues()));
            const Picture input = drawn(request_for(ground_only(finish), shape.width, shape.height, time, {}));
            INFO(shape.width << " x " << shape.height << " at " << time);
            CHECK(picture.data == input.data);
        }
    }
}

TEST_CASE("a blow reddens the edge more than the middle, and a harder one reaches further") {
    const Finish finish = test::demo_finish();
    const auto redness = [&](double strength, int x, int y) {
        const Picture picture = drawn(request_for(finish, 320, 180, 0.3, {{"hit", 0.1, strength}}));
        const Picture input = drawn(request_for(ground_only(finish), 320, 180, 0.3, {}));
        return picture.at(x, y)[0] - input.at(x, y)[0];
    };
    CHECK(redness(0.5, 2, 2) > 0.1F);
    CHECK(redness(0.5, 160, 90) < 0.02F);
    CHECK(redness(1, 90, 60) > redness(0.3, 90, 60));
}

TEST_CASE("two draws, any number of threads and any instruction set: the same bits") {
    const RenderRequest request = request_for(test::demo_finish(), 640, 360, 0.4, {{"hit", 0.1, 0.8}});
    const Picture first = drawn(request);
    for (const int threads : {1, 2, 4}) CHECK(drawn(request, threads).data == first.data);
    for (const KernelSet& set : kernel_sets()) {
        INFO(set.name);
        CHECK(drawn(request, 2, set).data == first.data);
    }
}

TEST_CASE("a second hit in the middle takes over without a jump in any pixel") {
    const Finish finish = test::demo_finish();
    const Cues one = {{"hit", 0.1, 0.8}};
    const Cues two = {{"hit", 0.1, 0.8}, {"hit", 0.6, 1.0}};
    const Picture before = drawn(request_for(finish, 160, 90, 0.6, one));
    const Picture after = drawn(request_for(finish, 160, 90, 0.6, two));
    CHECK(before.data == after.data);
}

TEST_CASE("the demo's own picture is drawn by its own finish") {
    const std::string folder = std::string(LACQUER_SOURCE) + "/demo/pictures/";
    Result<OpenedFinish> opened = load_finish(folder + "lighthouse-storm.lacquer");
    REQUIRE(opened);
    WorkerPool pool(2);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = test::checked(opened->finish);
    request.steps = {""};
    Result<Frame> frame = renderer.render(request, Cancel());
    REQUIRE(frame);
    Image8 image = to_image(frame->steps[0].picture, frame->steps[0].type, pool);
    const Result<Picture> stored = read_picture(folder + "lighthouse-storm.png", PictureMeaning::colour);
    REQUIRE(stored);
    CHECK(to_image(*stored, Type::vec4, pool).data == image.data);
}
