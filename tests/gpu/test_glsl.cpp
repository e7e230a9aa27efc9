// Emitted shaders: how they read, that a validator takes them, that they draw what the strips draw.
#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <cstdlib>
#include <fstream>
#include <map>

#include "core/cpu/lower.h"
#include "core/cpu/program.h"
#include "core/gpu/glsl.h"
#include "core/gpu/runner.h"
#include "core/render/renderer.h"
#include "tests/parity/builtin_calls.h"
#include "tests/parity/random_programs.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

constexpr int width = 38;
constexpr int height = 22;

std::vector<PictureView> views_of(const std::vector<Picture>& pictures) {
    std::vector<PictureView> views;
    for (const Picture& picture : pictures) views.push_back(view_of(picture));
    return views;
}

// Everything that the formulas name, for both back ends.
struct World {
    std::map<std::string, Picture, std::less<>> pictures = {{"scene", test::test_picture(16, 12)},
                                                            {"mask", test::test_picture(width, height)},
                                                            {"ramp", test::test_picture(16, 1)}};
    std::vector<Picture> copies = smaller_copies(pictures.at("scene"));
    std::vector<PictureView> levels = views_of(copies);
    std::map<std::string, Value, std::less<>> uniforms = {{"a", make_number(0.3F)},
                                                          {"b", make_number(-1.7F)},
                                                          {"tint", make_vec3(1.3F, 0.2F, 0.05F)},
                                                          {"wet", make_boolean(true)},
                                                          {"time", make_number(0.37F)},
                                                          {"lq_drawn_size", make_vec2(width, height)},
                                                          {"frame_size", make_vec2(width, height)}};

    Scope scope() const {
        Scope known = step_scope();
        for (const char* name : {"a", "b", "tint", "wet"})
            known.symbols[name] = {SymbolKind::dial, uniforms.at(std::string(name)).type};
        known.symbols["scene"] = {SymbolKind::ground, Type::vec4};
        known.symbols["mask"] = {SymbolKind::step, Type::number};
        known.symbols["ramp"] = {SymbolKind::gradient, Type::vec4};
        return known;
    }
    PictureView view(const std::string& name) const {
        PictureView seen = view_of(pictures.at(name));
        if (name == "scene") seen.smaller = levels;
        return seen;
    }
    Pass pass_of(const std::string& text) const {
        Pass pass = test::pass_of(text, scope());
        pass.stored = {"mask"};
        return pass;
    }
    Picture by_strips(const Pass& pass) const {
        WorkerPool pool(2);
        const Program program = lay_out(optimised(lower(pass)), best_kernels());
        std::vector<float> bits;
        for (const UniformSlot& slot : program.uniform_slots) {
            const Value& value = uniforms.at(slot.name);
            bits.push_back(value.type == Type::boolean ? std::bit_cast<float>(0xFFFFFFFFU)
                                                       : value.parts[static_cast<std::size_t>(slot.part)]);
        }
        std::vector<PictureView> views;
        for (const PictureUse& use : program.pictures) views.push_back(view(use.name));
        RunInputs inputs;
        inputs.width = width;
        inputs.height = height;
        inputs.frame_width = width;
        inputs.frame_height = height;
        inputs.uniforms = bits;
        inputs.pictures = views;
        std::vector<Picture> outputs = {Picture(width, height, static_cast<int>(program.outputs[0].size()))};
        REQUIRE(run(program, inputs, outputs, pool, Cancel()));
        return outputs[0];
    }
    Picture by_shader(const Pass& pass, ShaderRunner& runner, int channels) const {
        const Shader shader = emit_glsl(pass, Dialect::desktop_330);
        INFO(shader.text);
        ShaderInputs inputs;
        inputs.width = width;
        inputs.height = height;
        for (const ShaderUniform& uniform : shader.uniforms) inputs.uniforms.push_back(uniforms.at(uniform.source));
        for (const ShaderPicture& picture : shader.pictures) inputs.pictures.push_back(view(picture.source));
        std::vector<Picture> outputs = {Picture(width, height, channels)};
        const Result<Done> done = runner.draw(shader, inputs, outputs);
        if (!done) FAIL(to_text(done.fault()));
        return outputs[0];
    }
};

// GL leaves NaN and infinity open, and elementary functions some last places.
bool near(float a, float b, float tolerance) {
    if (!std::isfinite(a) || !std::isfinite(b)) return true;
    return std::fabs(a - b) <= tolerance * std::max({1.0F, std::fabs(a), std::fabs(b)});
}

struct Comparison {
    std::size_t values = 0;
    std::size_t off = 0;
    void add(const World& world, const std::string& text, ShaderRunner& runner, float tolerance = 2e-4F) {
        INFO(text);
        const Pass pass = world.pass_of(text);
        const Picture strips = world.by_strips(pass);
        const Picture shader = world.by_shader(pass, runner, strips.channels);
        // One side that is no number everywhere agrees with nothing.
        const auto finite = [](const Picture& picture) {
            return std::count_if(picture.data.begin(), picture.data.end(), [](float x) { return std::isfinite(x); });
        };
        CHECK((finite(strips) == 0) == (finite(shader) == 0));
        for (std::size_t i = 0; i < strips.data.size(); ++i)
            off += near(strips.data[i], shader.data[i], tolerance) ? 0 : 1;
        values += strips.data.size();
    }
    double share_off() const { return static_cast<double>(off) / static_cast<double>(values); }
};

std::unique_ptr<ShaderRunner> runner_or_fail() {
    Result<std::unique_ptr<ShaderRunner>> runner = ShaderRunner::open();
    if (!runner) FAIL(to_text(runner.fault()));
    return std::move(*runner);
}

// glslangValidator's words about a shader; empty if it has nothing to say.
std::string validator_words(const std::string& shader) {
    const test::TemporaryFolder folder;
    const std::string file = folder.file("shader.frag");
    const std::string words = folder.file("words.txt");
    std::ofstream(file) << shader;
    const int status = std::system(("glslangValidator " + file + " > " + words + " 2>&1").c_str());
    if (status == 0) return {};
    std::ifstream in(words);
    return "status " + std::to_string(status) + ": " + std::string(std::istreambuf_iterator<char>(in), {});
}

}  // namespace

TEST_CASE("the demo's shader is what a person would write") {
    const auto checked = check_finish(std::make_shared<const Finish>(test::demo_finish()));
    const Plan plan = plan_for(checked, {""});
    for (const Pass& pass : plan.passes) {
        for (const Dialect dialect : {Dialect::desktop_330, Dialect::es_300}) {
            const Shader shader = emit_glsl(pass, dialect);
            INFO(shader.text);
            CHECK(validator_words(shader.text).empty());
        }
    }
    const std::string text = emit_glsl(plan.passes.back(), Dialect::es_300).text;
    CHECK(text.find("float reach = length(centred);") != std::string::npos);
    CHECK(text.find("vec4 stained = mix(soft_view,") != std::string::npos);
    CHECK(text.find("uniform float radius;") != std::string::npos);
}

TEST_CASE("names that GLSL keeps for itself are given others") {
    Pass pass;
    pass.name = "draws";
    const Typed one{Literal{1}};
    const Typed sample{NameHere{"sample", SymbolKind::step}};
    const Typed dotted{NameHere{"blow.presence", SymbolKind::response}};
    pass.steps = {{"sample", std::make_shared<const Typed>(one)},
                  {"blow_presence", std::make_shared<const Typed>(dotted)},
                  {"out", std::make_shared<const Typed>(sample)}};
    pass.outputs = {"out", "blow_presence"};
    const Shader shader = emit_glsl(pass, Dialect::es_300);
    INFO(shader.text);
    CHECK(shader.text.find("float the_sample = 1.0;") != std::string::npos);
    CHECK(validator_words(shader.text).empty());
}

TEST_CASE("every built-in draws the same by shader") {
    const World world;
    const auto runner = runner_or_fail();
    for (const BuiltinRow& row : builtin_rows()) {
        if (row.id == Builtin::previous) continue;
        const std::string formula = test::formula_of(row);
        Comparison comparison;
        // The driver's arc sine is a short polynomial.
        const bool rough = row.id == Builtin::asin || row.id == Builtin::acos;
        comparison.add(world, formula, *runner, rough ? 1e-3F : 2e-4F);
        INFO(formula);
        CHECK(comparison.off == 0);
        CHECK(validator_words(emit_glsl(world.pass_of(formula), Dialect::es_300).text).empty());
    }
}

TEST_CASE("one runner ends and the other goes on drawing") {
    const World world;
    auto first = runner_or_fail();
    const auto second = runner_or_fail();
    const Pass pass = world.pass_of("uv.x * 2");
    const Picture before = world.by_shader(pass, *second, 1);
    first.reset();
    const Picture after = world.by_shader(world.pass_of("uv.x * 2 + 0"), *second, 1);
    CHECK(after.data == before.data);
    CHECK(after.at(width - 1, 0)[0] > 1.9F);
}

TEST_CASE("seeded random formulas and code draw the same by shader") {
    const World world;
    const auto runner = runner_or_fail();
    test::RandomFormulas formulas(99);
    test::RandomPrograms programs(100);
    constexpr std::array types = {Type::number, Type::vec2, Type::vec3, Type::vec4};
    Comparison comparison;
    for (std::uint32_t n = 0; n < 160; ++n) {
        const Type type = types[n % types.size()];
        comparison.add(world, n % 4 == 0 ? programs.make(type) : formulas.make(type, 1 + static_cast<int>(n % 3)),
                       *runner);
    }
    INFO(comparison.off << " of " << comparison.values << " values are off");
    CHECK(comparison.values > 200000);
    CHECK(comparison.share_off() < 0.02);
}
