// What shipped shaders cost beside ones that were written by hand for the same effect with the same reads.
#include <fmt/core.h>

#include <catch2/catch.hpp>
#include <chrono>

#include "core/gpu/runner.h"
#include "tests/ship/played_tapes.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

constexpr int wide = 1280;
constexpr int high = 720;

// A zoom blur of 24 reads towards the middle, darkened to the border: common practice, no source.
constexpr const char* by_hand = R"glsl(#version 300 es
precision highp float;
uniform float strength;
uniform vec2 lq_drawn_size;
uniform sampler2D scene;
layout(location = 0) out vec4 colour;
void main() {
    vec2 uv = gl_FragCoord.xy / lq_drawn_size;
    vec2 away = uv - 0.5;
    vec4 sum = vec4(0.0);
    for (int i = 0; i < 24; i++) {
        sum += texture(scene, uv - away * strength * float(i) / 24.0);
    }
    float dark = 1.0 - smoothstep(0.3, 0.8, length(away));
    colour = vec4(sum.rgb / 24.0 * dark, 1.0);
}
)glsl";

double seconds_of(ShaderRunner& runner, const Shader& shader, const ShaderInputs& inputs) {
    const auto begun = std::chrono::steady_clock::now();
    const Result<std::vector<GpuPicturePtr>> drawn = runner.draw_and_keep(shader, inputs, {4});
    if (!drawn) FAIL(to_text(drawn.fault()));
    // Nothing is drawn before somebody asks for it.
    REQUIRE(runner.fetch(*drawn->front()));
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
}

}  // namespace

TEST_CASE("a shipped ES shader draws no slower than one by hand with the same reads", "[.everything]") {
    Finish finish =
        test::finish_of({{"blurred",
                          "vec4 sum = vec4(0.0);\n"
                          "for (int i = 0; i < 24; i++) {\n"
                          "    sum += texture(scene, uv - (uv - 0.5) * strength * float(i) / 24.0);\n"
                          "}\n"
                          "return vec4(sum.rgb / 24.0, 1.0);"},
                         {"dark", "blurred * vec4(vec3(1.0 - smoothstep(0.3, 0.8, length(uv - 0.5))), 1.0)"}});
    finish = test::with_dial(test::with_scene(finish), "strength", 0.2, 1);
    const std::shared_ptr<const CheckedFinish> checked = test::checked(finish);
    const Result<ShipMaterial> asked = ship_material({checked, test::demo_path(), PictureAccess::native});
    REQUIRE(asked);
    const ShipMaterial& material = *asked;
    REQUIRE(material.passes.size() == 1);
    const Shader shipped = shipped_shader(material, material.passes[0], Dialect::es_300);
    INFO(shipped.text);
    Shader written = shipped;
    written.text = by_hand;

    Result<std::unique_ptr<ShaderRunner>> runner = ShaderRunner::open();
    REQUIRE(runner);
    const auto scene = std::make_shared<const Picture>(test::test_picture(wide, high));
    ShaderInputs inputs;
    inputs.width = wide;
    inputs.height = high;
    inputs.filters = true;
    for (const ShaderUniform& uniform : shipped.uniforms)
        inputs.uniforms.push_back(uniform.source == "strength"
                                      ? make_number(0.2F)
                                      : make_vec2(static_cast<float>(wide), static_cast<float>(high)));
    REQUIRE(shipped.pictures.size() == 1);
    inputs.pictures = {view_of(*scene, Sampling{})};
    inputs.lasting = {scene};
    double least_shipped = 1e9;
    double least_written = 1e9;
    for (int turn = 0; turn < 12; ++turn) {
        least_shipped = std::min(least_shipped, seconds_of(**runner, shipped, inputs));
        least_written = std::min(least_written, seconds_of(**runner, written, inputs));
    }
    WARN(fmt::format("shipped takes {:.3f} of the time by hand", least_shipped / least_written));
    CHECK(least_shipped < 1.05 * least_written);
}
