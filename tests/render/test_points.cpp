// Values at single pixels, and the pictures that only help to look.
#include <catch2/catch.hpp>

#include "core/picture/line_grid.h"
#include "core/render/renderer.h"
#include "tests/support/finishes.h"

using namespace lacquer;

TEST_CASE("values at points are those of the whole picture, stored steps and derivatives too") {
    const Finish finish = test::finish_of({{"a", "vec4(uv, gradient_noise(uv * 9), 1)"},
                                           {"b", "gaussian_blur(a, 3)"},
                                           {"c", "fwidth(b.x) + dFdy(a.z)"},
                                           {"d", "texture(b, uv.yx).xy + c"}});
    const auto checked = test::checked(finish);
    WorkerPool pool(2);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = checked;
    request.width = 67;
    request.height = 41;
    request.steps = {"a", "b", "c", "d"};
    const Result<Frame> whole = renderer.render(request, Cancel());
    request.points = {{0, 0}, {66, 40}, {16, 7}, {15, 8}, {33, 39}, {65, 1}};
    const Result<Frame> few = renderer.render(request, Cancel());
    REQUIRE(whole);
    REQUIRE(few);
    REQUIRE(few->steps.size() == 4);
    for (std::size_t s = 0; s < 4; ++s) {
        const DrawnStep& drawn = few->steps[s];
        CHECK(drawn.picture.width == 6);
        CHECK(drawn.picture.height == 1);
        for (int n = 0; n < 6; ++n) {
            const PixelPoint at = request.points[static_cast<std::size_t>(n)];
            for (int c = 0; c < width_of(drawn.type); ++c) {
                INFO(drawn.name << " at " << at.x << " " << at.y << " part " << c);
                CHECK(drawn.picture.at(n, 0)[c] == whole->steps[s].picture.at(at.x, at.y)[c]);
            }
        }
    }
}

TEST_CASE("a point beyond the frame is a fault") {
    WorkerPool pool(1);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = test::checked(test::finish_of({{"a", "uv.x"}}));
    request.width = request.height = 4;
    request.steps = {"a"};
    request.points = {{4, 0}};
    CHECK(renderer.render(request, Cancel()).fault().id == "render.point");
    request.points = {{0, -1}};
    CHECK(renderer.render(request, Cancel()).fault().id == "render.point");
}

TEST_CASE("a picture among the grounds can be wanted beside steps; the line grid stands in for it") {
    Finish finish = test::finish_of({{"a", "scene * 0.5"}});
    finish.grounds.push_back(test::picture_ground("scene", std::string(LACQUER_SOURCE) + "/demo/pictures/crab.png"));
    WorkerPool pool(1);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = test::checked(finish);
    request.width = request.height = 64;
    request.steps = {"scene", "a"};
    const Result<Frame> frame = renderer.render(request, Cancel());
    REQUIRE(frame);
    REQUIRE(frame->steps.size() == 2);
    CHECK(frame->steps[0].name == "a");
    CHECK(frame->steps[1].name == "scene");
    CHECK(frame->steps[0].picture.at(32, 32)[0] == frame->steps[1].picture.at(32, 32)[0] * 0.5F);
    CHECK(frame->pass_milliseconds.size() == frame->passes);
    request.line_grid = true;
    request.frame_width = request.frame_height = 64;
    const Result<Frame> lines = renderer.render(request, Cancel());
    REQUIRE(lines);
    CHECK(lines->steps[1].picture.data == line_grid(64, 64).data);
}

TEST_CASE("a picture and a broken step of the same name are a fault, and no more") {
    Finish finish = test::finish_of({{"scene", "nothing + 1"}, {"a", "0.5"}});
    finish.grounds.push_back(test::picture_ground("scene", "none.png"));
    WorkerPool pool(1);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = test::checked(finish);
    request.width = request.height = 8;
    request.steps = {"scene", "a"};
    const Result<Frame> frame = renderer.render(request, Cancel());
    REQUIRE(frame);
    REQUIRE(frame->steps.size() == 1);
    CHECK(frame->steps[0].name == "a");
}

TEST_CASE("of two steps of one name the broken one is a fault, the other is drawn") {
    WorkerPool pool(1);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = test::checked(test::finish_of({{"a", "nothing + 1"}, {"a", "vec3(0.5)"}}));
    request.width = request.height = 8;
    request.steps = {"a"};
    const Result<Frame> frame = renderer.render(request, Cancel());
    REQUIRE(frame);
    REQUIRE(frame->steps.size() == 1);
    CHECK(frame->steps[0].type == Type::vec3);
    CHECK(frame->steps[0].picture.at(4, 4)[1] == 0.5F);
}

TEST_CASE("the line grid is the same on both sides of its middle and has straight lines") {
    const Picture grid = line_grid(96, 54);
    for (int y = 0; y < 54; ++y) {
        CHECK(grid.at(48, y)[0] == 0.7F);
        if (y != 27) CHECK(grid.at(47, y)[0] != 0.7F);
    }
    for (const int far : {4, 8, 12}) {
        CHECK(grid.at(48 + far, 3)[1] == grid.at(48 - far, 3)[1]);
        CHECK(grid.at(48 + far, 3)[1] == 0.02F);
    }
    CHECK_FALSE(line_grid(1, 1).data.empty());
}
