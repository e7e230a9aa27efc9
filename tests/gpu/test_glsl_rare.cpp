// What was drawn otherwise by shaders, or not at all: rare loops, odd names, places that are no number.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/gpu/glsl.h"
#include "core/render/renderer.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

// The last step, drawn by either back end; notices fail the test.
Picture drawn_by(Backend backend, const Finish& finish) {
    WorkerPool pool(2);
    Renderer renderer(pool);
    if (const auto fault = renderer.use(backend)) FAIL(to_text(*fault));
    RenderRequest request;
    request.checked = test::checked(finish);
    for (const CheckedStep& step : request.checked->steps) {
        if (step.fault) FAIL(to_text(*step.fault));
    }
    request.frame_width = 40;
    request.frame_height = 24;
    request.steps = {""};
    Result<Frame> frame = renderer.render(request, Cancel());
    if (!frame) FAIL(to_text(frame.fault()));
    for (const Fault& notice : frame->notices) FAIL(to_text(notice));
    return std::move(frame->steps[0].picture);
}

void both_draw(const std::vector<std::pair<std::string, std::string>>& steps, float at_first) {
    INFO(steps.back().second);
    const Finish finish = test::finish_of(steps);
    const Picture strips = drawn_by(Backend::cpu, finish);
    const Picture shader = drawn_by(Backend::gpu, finish);
    CHECK(strips.data[0] == Approx(at_first));
    REQUIRE(strips.data.size() == shader.data.size());
    for (std::size_t i = 0; i < strips.data.size(); ++i) REQUIRE(shader.data[i] == Approx(strips.data[i]).margin(1e-4));
}

}  // namespace

TEST_CASE("a loop whose counter is compared for being equal turns as often by either back end") {
    both_draw({{"a", "float n = 0; for (int i = 0; i == 0; i++) n += 1; return n;"}}, 1);
    both_draw({{"a", "float n = 0; for (int i = 3; i != 0; i--) n += 1; return n;"}}, 3);
    both_draw({{"a", "float n = 0; for (int i = 5; i == 0; i++) n += 1; return n;"}}, 0);
}

TEST_CASE("turns are counted for each step by itself") {
    const std::string endless = "float n = 0; for (float i = 0; i < 1; i += 0 * uv.x) n += 1; return n / 65536;";
    const Finish finish = test::finish_of({{"a", endless}, {"b", endless}, {"c", "a + b"}});
    CHECK(drawn_by(Backend::cpu, finish).data[0] == 2);
    // The software driver has a limit of its own, so the shader is only read.
    const Shader shader = emit_glsl(plan_for(*test::checked(finish), {"c"}).passes.back(), Dialect::desktop_330);
    const std::size_t first = shader.text.find("    lq_turns = 0;\n    float a");
    CHECK(first != std::string::npos);
    CHECK(shader.text.find("    lq_turns = 0;\n    float b", first) != std::string::npos);
    // One whose loops are known to be few is never cut short by what another has used up.
    both_draw({{"a", "float n = 0; for (float i = 0; i < 1; i += 0.01 + 0 * uv.x) n += 1; return n / 65536;"},
               {"b", "float n = 0; for (int i = 0; i < 100; i++) n += 1; return n;"},
               {"c", "a * 0 + b"}},
              100);
}

TEST_CASE("matrices times vectors, hidden names, and names that are GLSL's") {
    both_draw({{"a", "mat2(1, 2, 3, 4) * vec2(2)"}}, 8);
    both_draw({{"a", "vec2(2) * mat2(1, 2, 3, 4)"}}, 6);
    both_draw({{"a", "float time = 3; float uv_x = uv.x * 0; return time + uv_x;"}, {"b", "a + time"}}, 3);
    both_draw({{"a", "vec2 uv = vec2(0.25); return uv.x;"}, {"b", "a + uv.x * 0"}}, 0.25F);
    both_draw({{"a", "vec2 frame_size = vec2(7); return frame_size.x;"}, {"b", "a + pixel.x * 0 + frame_size.x * 0"}},
              7);
    both_draw({{"mat4", "uv.x * 0 + 2"}, {"dvec2", "mat4 + 1"}, {"mat2x3", "texture(dvec2, uv * 0.5) + 1"}}, 4);
}

TEST_CASE("a picture that is read at places that are not numbers isn't a number there, by either back end") {
    const Finish finish = test::finish_of(
        {{"a", "uv.x"}, {"b", "texture(a, vec2(pixel.x < 8 ? intBitsToFloat(2143289344) : uv.x, uv.y))"}});
    for (const Backend backend : {Backend::cpu, Backend::gpu}) {
        const Picture picture = drawn_by(backend, finish);
        for (int x = 0; x < picture.width; ++x) {
            INFO(x);
            CHECK(std::isnan(picture.at(x, 3)[0]) == (x < 8));
        }
    }
    for (const char* far : {"1.0 / (time * 0)", "-1.0 / (time * 0)"}) {
        const Picture picture = drawn_by(
            Backend::cpu, test::finish_of({{"a", "uv.x"}, {"b", std::string("texture(a, vec2(uv.x, ") + far + "))"}}));
        for (const float value : picture.data) CHECK(std::isnan(value));
    }
}
