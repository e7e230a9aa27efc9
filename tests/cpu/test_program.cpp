#include <catch2/catch.hpp>
#include <cmath>

#include "core/cpu/lower.h"
#include "core/cpu/program.h"
#include "core/picture/sample.h"
#include "core/render/renderer.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::checked;
using test::draw;
using test::finish_of;

TEST_CASE("uv, pixel and the frame are where design says") {
    const Finish finish =
        finish_of({{"a", "uv"}, {"b", "pixel"}, {"c", "vec4(frame_size, pixel_size)"}, {"d", "aspect"}});
    const DrawnStep uv = draw(finish, "a", 5, 4);
    const DrawnStep pixel = draw(finish, "b", 5, 4);
    CHECK(uv.picture.at(0, 0)[0] == 0.1F);
    CHECK(uv.picture.at(4, 3)[1] == 0.875F);
    CHECK(pixel.picture.at(3, 2)[0] == 3);
    CHECK(pixel.picture.at(3, 2)[1] == 2);
    const DrawnStep sizes = draw(finish, "c", 5, 4);
    CHECK(sizes.picture.at(2, 2)[0] == 5);
    CHECK(sizes.picture.at(2, 2)[3] == 0.25F);
    CHECK(draw(finish, "d", 5, 4).picture.at(0, 0)[0] == 1.25F);
}

TEST_CASE("drawn at another scale, pixel speaks of the frame's own pixels") {
    WorkerPool pool(1);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = checked(finish_of({{"a", "pixel"}}));
    request.frame_width = 100;
    request.frame_height = 50;
    request.width = 10;
    request.height = 5;
    request.steps = {""};
    const Result<Frame> frame = renderer.render(request, Cancel());
    REQUIRE(frame);
    CHECK(frame->steps[0].picture.at(3, 2)[0] == 35);
    CHECK(frame->steps[0].picture.at(3, 2)[1] == 25);
}

TEST_CASE("any tile size and any number of threads give the same bits") {
    const auto finish =
        checked(finish_of({{"a", "vec3(gradient_noise(vec3(uv * 9, 2)), sin(pixel.x * uv.y), hash(pixel))"}}));
    const Program program = lay_out(optimised(lower(plan_for(*finish, {"a"}).passes.back())), best_kernels());
    std::vector<Picture> first;
    for (const int threads : {1, 2, 3}) {
        for (const int rows : {1, 7, 16, 500}) {
            WorkerPool pool(threads);
            RunInputs inputs;
            inputs.width = 701;  // more than a strip, and no multiple of anything
            inputs.height = 37;
            inputs.frame_width = 701;
            inputs.frame_height = 37;
            inputs.tile_rows = rows;
            std::vector<Picture> outputs = {Picture(701, 37, 3)};
            REQUIRE(run(program, inputs, outputs, pool, Cancel()));
            if (first.empty()) first = outputs;
            REQUIRE(outputs[0].data == first[0].data);
        }
    }
}

TEST_CASE("a run that is called off says so") {
    const auto finish = checked(finish_of({{"a", "uv.x * uv.y"}}));
    const Program program = lay_out(optimised(lower(plan_for(*finish, {"a"}).passes.back())), best_kernels());
    WorkerPool pool(2);
    std::vector<Picture> outputs = {Picture(64, 64, 1)};
    RunInputs inputs;
    inputs.width = inputs.height = 64;
    const Cancel cancel;
    cancel.request();
    CHECK_FALSE(run(program, inputs, outputs, pool, cancel));
}

TEST_CASE("strips sample pictures as the definition does, on every instruction set") {
    const Picture picture = test::test_picture(13, 7);
    Ir ir;
    ir.pictures = {{"p"}};
    ir.uniforms = {{"u", 0}, {"v", 0}};
    const auto add = [&](Op op, std::array<int, max_inputs> in, std::uint32_t bits) {
        ir.code.push_back({op, Rate::uniform, false, in, bits, ir.value_count});
        ir.value_count += op_info(op).outputs;
    };
    add(Op::uniform, {}, 0);
    add(Op::uniform, {}, 1);
    add(Op::sample, {0, 1}, 0);
    ir.outputs = {{"a", {2, 3, 4, 5}}};
    WorkerPool pool(1);
    const PictureView view = view_of(picture);
    const float odd[] = {-3.0F, 0.0F, 0.5F / 13, 0.4999F, 0.73F, 1.0F, 1e30F, -1e30F, std::nanf(""), HUGE_VALF};
    for (const KernelSet& set : kernel_sets()) {
        const Program program = lay_out(ir, set);
        for (const float u : odd) {
            for (const float v : odd) {
                const std::array<float, 2> uniforms = {u, v};
                RunInputs inputs;
                inputs.uniforms = uniforms;
                inputs.pictures = {&view, 1};
                std::vector<Picture> outputs = {Picture(1, 1, 4)};
                REQUIRE(run(program, inputs, outputs, pool, Cancel()));
                const auto expected = sample_linear(picture, u, v);
                for (std::size_t c = 0; c < 4; ++c) {
                    const bool none = std::isnan(expected[c]) && std::isnan(outputs[0].data[c]);
                    REQUIRE((none || outputs[0].data[c] == expected[c]));
                }
            }
        }
    }
}
