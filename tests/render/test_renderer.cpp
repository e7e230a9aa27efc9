#include <catch2/catch.hpp>

#include "core/picture/files.h"
#include "core/render/view.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::checked;
using test::finish_of;

namespace {

Result<Frame> render(const Finish& finish, const std::string& path, int width, int height) {
    WorkerPool pool(2);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = checked(finish);
    request.finish_path = path;
    request.frame_width = width;
    request.frame_height = height;
    request.steps = {""};
    return renderer.render(request, Cancel());
}

}  // namespace

TEST_CASE("a missing picture shows as black, with a notice that names it") {
    Finish finish = finish_of({{"a", "scene + texture(scene, uv * 0.5)"}});
    finish.grounds.push_back(test::picture_ground("scene", "nowhere.png"));
    const Result<Frame> frame = render(finish, "/tmp/x.lacquer", 8, 8);
    REQUIRE(frame);
    REQUIRE(frame->notices.size() == 1);
    CHECK(frame->notices[0].id == "picture.missing");
    CHECK(frame->notices[0].message.find("scene") != std::string::npos);
    CHECK(frame->notices[0].message.find("/tmp/nowhere.png") != std::string::npos);
    CHECK(frame->steps[0].picture.data[0] == 0);
    CHECK(frame->steps[0].picture.data[3] == 2);
}

TEST_CASE("a picture that is changed on disk is read again") {
    const test::TemporaryFolder folder;
    Finish finish = finish_of({{"a", "scene"}});
    finish.grounds.push_back(test::picture_ground("scene", folder.file("p.png")));
    WorkerPool pool(1);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = checked(finish);
    request.width = request.height = 1;
    request.steps = {""};
    const auto red = [&] { return renderer.render(request, Cancel())->steps[0].picture.data[0]; };
    CHECK(red() == 0);
    REQUIRE(write_png(folder.file("p.png"), Image8{1, 1, {255, 0, 0, 255}}));
    CHECK(red() == 1);
    REQUIRE(write_png(folder.file("p.png"), Image8{1, 1, {0, 0, 0, 255}}));
    std::filesystem::last_write_time(folder.file("p.png"),
                                     std::filesystem::file_time_type::clock::now() + std::chrono::seconds(5));
    CHECK(red() == 0);
}

TEST_CASE("sizes that cannot be drawn are faults") {
    const Finish finish = finish_of({{"a", "uv.x"}});
    CHECK(render(finish, "", 32768, 32768).fault().id == "render.size");
    CHECK(render(finish, "", 1, 1));
    CHECK(render(finish, "", 32768, 1));
}

TEST_CASE("a drawing that is called off isn't a frame") {
    WorkerPool pool(1);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = checked(finish_of({{"a", "uv.x"}}));
    request.steps = {""};
    const Cancel cancel;
    cancel.request();
    CHECK(renderer.render(request, cancel).fault().id == "render.cancelled");
}

TEST_CASE("a finish without steps shows its first picture; one without anything shows nothing") {
    const test::TemporaryFolder folder;
    REQUIRE(write_png(folder.file("p.png"), Image8{1, 1, {255, 0, 0, 255}}));
    Finish finish;
    CHECK(render(finish, "", 2, 2)->steps.empty());
    finish.grounds.push_back(test::picture_ground("scene", folder.file("p.png")));
    const Result<Frame> frame = render(finish, "", 2, 2);
    REQUIRE(frame->steps.size() == 1);
    CHECK(frame->steps[0].picture.data[0] == 1);
}

TEST_CASE("values that are not finite are counted, and crash nothing") {
    const DrawnStep drawn = test::draw(finish_of({{"a", "vec3(1 / (uv.x - uv.x), sqrt(-1), uv.y)"}}), "a", 4, 4);
    const ValueRange range = value_range(drawn.picture);
    CHECK(range.not_finite == 32);
    CHECK(range.least == 0.125F);
    CHECK(range.most == 0.875F);
    WorkerPool pool(1);
    CHECK(to_image(drawn.picture, drawn.type, pool).data[0] == 255);
}

TEST_CASE("a formula that is hard to compute is still a picture") {
    std::string formula = "uv.x";
    for (int i = 0; i < 120; ++i) formula = "sin(" + formula + " * 1.1)";
    CHECK(value_range(test::draw(finish_of({{"a", formula}}), "a", 64, 64).picture).not_finite == 0);
    std::string sum = "uv.x";
    for (int i = 0; i < 200; ++i) sum += " + gradient_noise(uv * " + std::to_string(i) + ")";
    CHECK(value_range(test::draw(finish_of({{"a", sum}}), "a", 64, 64).picture).not_finite == 0);
}

TEST_CASE("images are halved by the mean of four") {
    const Image8 half = halved(Image8{2, 2, {0, 10, 0, 255, 4, 10, 0, 255, 8, 10, 0, 255, 12, 10, 2, 255}});
    CHECK(half.width == 1);
    CHECK(half.data == PlainVector<std::uint8_t>{6, 10, 1, 255});
}
