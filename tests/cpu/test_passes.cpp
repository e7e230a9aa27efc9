#include <catch2/catch.hpp>

#include "core/cpu/lower.h"
#include "core/cpu/program.h"
#include "core/render/renderer.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::checked;
using test::finish_of;

namespace {

Ir lowered(const std::string& formula) {
    return lower(plan_for(*checked(finish_of({{"a", formula}})), {"a"}).passes.back());
}

std::size_t count_of(const Ir& ir, Op op) {
    return static_cast<std::size_t>(
        std::count_if(ir.code.begin(), ir.code.end(), [&](const Instruction& i) { return i.op == op; }));
}

}  // namespace

TEST_CASE("constants are folded by the kernels themselves") {
    const Ir ir = optimised(lowered("sin(1) * 2 + uv.x"));
    CHECK(count_of(ir, Op::sin) == 0);
    CHECK(count_of(ir, Op::multiply) == 0);
    CHECK(count_of(ir, Op::constant) == 1);
}

TEST_CASE("what stands twice is computed once") {
    const Ir ir = optimised(lowered("sin(uv.x * 3) + sin(uv.x * 3)"));
    CHECK(count_of(ir, Op::sin) == 1);
    CHECK(count_of(lowered("sin(uv.x * 3) + sin(uv.x * 3)"), Op::sin) == 2);
}

TEST_CASE("a picture that is read at uv is read where the pixel is, whatever its size and however it goes on") {
    const Finish plain = test::with_scene(finish_of({{"a", "texture(scene, uv)"}}));
    const auto lowered_of = [](const Finish& finish) { return lower(plan_for(*checked(finish), {"a"}).passes.back()); };
    const Ir read = optimised(lowered_of(plain));
    CHECK(count_of(read, Op::sample) == 0);
    CHECK(count_of(read, Op::read_here) == 1);
    for (const char* elsewhere : {"texture(scene, uv.yx)", "texture(scene, uv + 0.25)", "texture(scene, uv.xx)"}) {
        INFO(elsewhere);
        CHECK(count_of(optimised(lowered_of(test::with_scene(finish_of({{"a", elsewhere}})))), Op::read_here) == 0);
    }
    // As when the optimizer cannot tell that it is uv: the picture is larger than some of these frames and smaller than
    // others.
    for (const Wrap wrap : {Wrap::clamp, Wrap::repeat, Wrap::mirror}) {
        for (const Filter filter : {Filter::linear, Filter::nearest}) {
            const auto drawn = [&](const char* formula, int width, int height) {
                Finish finish = test::with_scene(finish_of({{"a", formula}}));
                PictureGround ground = *finish.grounds.back().as<PictureGround>();
                ground.sampling.wrap = wrap;
                ground.sampling.filter = filter;
                finish.grounds.back() = {"scene", ground};
                return test::draw(finish, "a", width, height).picture.data;
            };
            for (const auto& [width, height] : {std::pair(7, 5), {1, 1}, {1280, 720}, {1601, 33}})
                CHECK(drawn("texture(scene, uv)", width, height) ==
                      drawn("texture(scene, vec2(pixel.x + 0.5, pixel.y + 0.5) / frame_size)", width, height));
        }
    }
}

TEST_CASE("what no output needs is dropped") {
    const Ir ir = optimised(lowered("vec3(uv.x, sin(uv.y), cos(uv.x)).x"));
    CHECK(count_of(ir, Op::sin) == 0);
    CHECK(count_of(ir, Op::cos) == 0);
}

TEST_CASE("each value is computed as rarely as it can change") {
    const Ir ir = optimised(lowered("sin(time) + cos(uv.x) + tan(uv.y) + sqrt(uv.x * uv.y)"));
    const auto rate = [&](Op op) {
        return std::find_if(ir.code.begin(), ir.code.end(), [&](const Instruction& i) { return i.op == op; })->rate;
    };
    CHECK(rate(Op::sin) == Rate::uniform);
    CHECK(rate(Op::cos) == Rate::column);
    CHECK(rate(Op::tan) == Rate::row);
    CHECK(rate(Op::sqrt) == Rate::pixel);
}

TEST_CASE("the layout reuses strips and says what it does") {
    std::string formula = "uv.x * uv.y";
    for (int i = 0; i < 40; ++i) formula = "sin(" + formula + ")";
    const Program program = lay_out(optimised(lowered(formula)), best_kernels());
    CHECK(program.stores[static_cast<std::size_t>(Rate::pixel)] <= 2);
    const std::string text = to_text(program);
    CHECK(text.find("each pixel") != std::string::npos);
    CHECK(text.find("sin") != std::string::npos);
}

TEST_CASE("the text of a program names values, rates and outputs") {
    const std::string text = to_text(lowered("uv.x + 0.5"));
    CHECK(text.find("column = uv_x") != std::string::npos);
    CHECK(text.find("constant 0.5") != std::string::npos);
    CHECK(text.find("output a = v") != std::string::npos);
}
