#include "tests/shader/driven.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "core/gpu/runner.h"
#include "core/lang/oracle.h"
#include "core/picture/write_picture.h"
#include "core/shader/compile.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

namespace lacquer::test {

namespace {

ShaderRunner& runner() {
    static const Result<std::unique_ptr<ShaderRunner>> opened = ShaderRunner::open();
    if (!opened) FAIL(to_text(opened.fault()));
    return **opened;
}

Picture upside_down(const Picture& picture) {
    Picture turned(picture.width, picture.height, picture.channels);
    const auto row = static_cast<std::size_t>(picture.width) * static_cast<std::size_t>(picture.channels);
    for (std::size_t y = 0; y < static_cast<std::size_t>(picture.height); ++y) {
        const std::size_t from = (static_cast<std::size_t>(picture.height) - 1 - y) * row;
        std::copy_n(picture.data.begin() + static_cast<std::ptrdiff_t>(from), row,
                    turned.data.begin() + static_cast<std::ptrdiff_t>(y * row));
    }
    return turned;
}

std::string with_head(const std::string& shader) {
    if (shader.find("#version") != std::string::npos) return shader;
    return "#version 300 es\nprecision highp float;\nprecision highp int;\nprecision highp sampler2D;\n" + shader;
}

}  // namespace

Picture driven(const std::string& text, int width, int height, const Picture* scene) {
    Shader shader;
    shader.text = with_head(text);
    shader.outputs = {"colour"};
    ShaderInputs inputs;
    inputs.width = width;
    inputs.height = height;
    Picture turned;
    if (scene != nullptr) {
        turned = upside_down(*scene);
        shader.pictures.push_back({"scene", "scene", -1});
        inputs.pictures.push_back(view_of(turned, Sampling{}));
        inputs.filters = true;
    }
    std::vector<Picture> outputs = {Picture(width, height, 4)};
    const Result<Done> done = runner().draw(shader, inputs, outputs);
    if (!done) FAIL(to_text(done.fault()) << "\n" << shader.text);
    return upside_down(outputs[0]);
}

Picture by_lacquer(const std::string& shader, int width, int height, Backend backend, const Picture* scene) {
    const TemporaryFolder folder;
    Finish finish = finish_of({{"shown", shader}});
    finish.coats[0].steps.own()[0].rules = CodeRules::glsl;
    if (scene != nullptr) {
        const std::vector<WrittenLayer> layers = {{"", scene, false}};
        REQUIRE(write_picture(folder.file("scene.exr"), layers, {32, false}));
        finish.grounds.push_back(picture_ground("scene", folder.file("scene.exr")));
    }
    RenderRequest request;
    request.checked = checked(finish);
    const CheckedStep* step = find_step(*request.checked, "shown");
    if (step->fault) FAIL(to_text(*step->fault));
    request.frame_width = width;
    request.frame_height = height;
    request.steps = {"shown"};
    WorkerPool pool(2);
    Renderer renderer(pool, std::nullopt, shared_stores());
    if (const std::optional<Fault> fault = renderer.use(backend)) FAIL(to_text(*fault));
    Result<Frame> frame = renderer.render(request, Cancel());
    if (!frame) FAIL(to_text(frame.fault()));
    return std::move(frame->steps.front().picture);
}

Value by_oracle(const std::string& shader, int x, int y, int width, int height) {
    const Result<CompiledShader> compiled = compile_shader(shader, step_scope());
    if (!compiled) FAIL(to_text(compiled.fault()));
    OracleInputs inputs;
    inputs.right = x % 2 == 1;
    inputs.lower = y % 2 == 1;
    inputs.name = [&](const std::string& name, Type type, int dx, int dy) {
        const auto across = static_cast<float>(x + dx);
        const auto down = static_cast<float>(y + dy);
        const auto wide = static_cast<float>(width);
        const auto high = static_cast<float>(height);
        if (name == "pixel") return make_vec2(across, down);
        if (name == "uv") return make_vec2((across + 0.5F) / wide, (down + 0.5F) / high);
        if (name == "frame_size") return make_vec2(wide, high);
        return Value{type, {}, {}};
    };
    inputs.picture = [](const PictureReading&, Type type, const std::vector<Value>&) { return Value{type, {}, {}}; };
    return evaluate(compiled->typed, inputs);
}

double share_off(const Picture& a, const Picture& b, double within) {
    REQUIRE(a.data.size() == b.data.size());
    std::size_t off = 0;
    for (std::size_t i = 0; i < a.data.size(); ++i) {
        const double x = static_cast<double>(a.data[i]);
        const double y = static_cast<double>(b.data[i]);
        if (!std::isfinite(x) || !std::isfinite(y)) continue;
        const double scale = std::max({1.0, std::fabs(x), std::fabs(y)});
        if (std::fabs(x - y) > within * scale) ++off;
    }
    return static_cast<double>(off) / static_cast<double>(a.data.size());
}

Verdict by_glslang(const std::string& shader) {
    const TemporaryFolder folder;
    write_file(folder.file("a.frag"), with_head(shader));
    const CommandResult result = run_command("glslangValidator -l " + folder.file("a.frag"));
    return {result.code == 0, result.output};
}

}  // namespace lacquer::test
