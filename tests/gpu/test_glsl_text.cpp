// How single formulas read as GLSL.
#include <catch2/catch.hpp>

#include "core/gpu/glsl.h"
#include "core/gpu/glsl_names.h"
#include "core/gpu/glsl_prelude.h"
#include "core/lang/checker.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

std::string text_of(const std::string& code, Dialect dialect = Dialect::es_300) {
    Scope scope = step_scope();
    scope.symbols["rim"] = {SymbolKind::step, Type::number};
    scope.symbols["scene"] = {SymbolKind::ground, Type::vec4};
    scope.symbols["tint"] = {SymbolKind::dial, Type::vec3};
    scope.symbols["radius"] = {SymbolKind::dial, Type::number};
    scope.symbols["half"] = {SymbolKind::dial, Type::number};
    Pass pass = test::pass_of(code, scope);
    pass.stored = {"rim"};
    return emit_glsl(pass, dialect).text;
}

// What stands behind "value = ".
std::string line_of(const std::string& code) {
    const std::string text = text_of(code);
    const std::size_t at = text.find(" value = ");
    REQUIRE(at != std::string::npos);
    return text.substr(at + 9, text.find(";\n", at) - at - 9);
}

}  // namespace

TEST_CASE("brackets stand only where they are needed") {
    CHECK(line_of("radius + radius * 2") == "radius + radius * 2.0");
    CHECK(line_of("(radius + 1) * 2") == "(radius + 1.0) * 2.0");
    CHECK(line_of("radius - (radius - 1)") == "radius - (radius - 1.0)");
    CHECK(line_of("radius / (radius * 2)") == "radius / (radius * 2.0)");
    CHECK(line_of("-(-radius)") == "-(-radius)");
    CHECK(line_of("radius > 1 && radius < 2 ? 1 : 0") == "radius > 1.0 && radius < 2.0 ? 1.0 : 0.0");
    CHECK(line_of("(radius > 1 ? 2 : 3) * 2") == "(radius > 1.0 ? 2.0 : 3.0) * 2.0");
    CHECK(line_of("(tint * 2).x") == "(tint * 2.0).r");
}

TEST_CASE("every change of width is spelled out, where GLSL does not do it by itself") {
    CHECK(line_of("tint * radius") == "tint * radius");
    CHECK(line_of("mix(tint, radius, 0.5)") == "mix(tint, vec3(radius), 0.5)");
    CHECK(line_of("vec4(tint, 1) * tint") == "vec4(tint, 1.0) * vec4(tint, 1.0)");
    CHECK(line_of("vec4(tint, 1) + tint") == "vec4(tint, 1.0) + vec4(tint, 0.0)");
    CHECK(line_of("tint - vec4(tint, 1)") == "lq_minus(tint, vec4(tint, 1.0))");
    CHECK(line_of("tint / vec4(tint, 1)") == "lq_over(tint, vec4(tint, 1.0))");
}

TEST_CASE("what GLSL leaves open is guarded, unless it cannot happen") {
    CHECK(line_of("smoothstep(0.2, 0.4, radius)") == "smoothstep(0.2, 0.4, radius)");
    CHECK(line_of("smoothstep(radius, 0.4, radius)") == "lq_smoothstep(radius, 0.4, radius)");
    CHECK(line_of("smoothstep(0.4, 0.2, radius)") == "lq_smoothstep(0.4, 0.2, radius)");
    CHECK(line_of("pow(2, radius)") == "pow(2.0, radius)");
    CHECK(line_of("pow(radius, 2)") == "lq_pow(radius, 2.0)");
    CHECK(line_of("asin(radius)") == "asin(clamp(radius, -1.0, 1.0))");
    CHECK(line_of("round(radius)") == "roundEven(radius)");
    CHECK(line_of("float(int(radius) / 3)") == "float(lq_int(radius) / 3)");
    CHECK(line_of("float(int(radius) / int(radius))") == "float(lq_divide(lq_int(radius), lq_int(radius)))");
    CHECK(line_of("float(int(radius) << int(radius))") == "float(lq_int(radius) << (lq_int(radius) & 31))");
    CHECK(line_of("isinf(1e40) ? 1 : 0") == "isinf((1.0 / 0.0)) ? 1.0 : 0.0");
}

TEST_CASE("pictures are read through one helper, here and elsewhere") {
    CHECK(line_of("texture(scene, uv)") == "lq_read(scene, uv)");
    CHECK(line_of("texture(rim, uv * 2)") == "lq_read(rim, uv * 2.0).r");
    CHECK(line_of("scene.rgb") == "lq_read(scene, uv).rgb");
    CHECK(line_of("rim") == "lq_read(rim, uv).r");
    CHECK(text_of("rim").find("uniform sampler2D rim;") != std::string::npos);
}

TEST_CASE("names that GLSL keeps are changed, whole lines of code are kept") {
    CHECK(line_of("half * 2") == "the_half * 2.0");
    const std::string text = text_of(
        "float length = radius; for (int i = 0; i < 3; i++) { if (length > 2) break; length += 1; } return length;");
    CHECK(text.find("float value_here() {") != std::string::npos);
    CHECK(text.find("for (int i = 0; i < 3; i = i + 1) {") != std::string::npos);
    CHECK(text.find("the_length = the_length + 1.0;") != std::string::npos);
    CHECK(text.find("lq_turns") == std::string::npos);
    CHECK(text_of("float s = 0; for (; s < radius;) s += 1; return s;").find("&& lq_turns++ < 65536") !=
          std::string::npos);
    GlslNames names;
    CHECK(names.name("a", "input") == "the_input");
    CHECK(names.name("b", "a__b") == "a_b");
    CHECK(names.name("c", "a_b") == "a_b_2");
    CHECK(names.name("a", "input") == "the_input");
    CHECK(is_glsl_reserved("sampler2D"));
    CHECK(is_glsl_reserved("gl_colour"));
    CHECK_FALSE(is_glsl_reserved("lamp"));
}

TEST_CASE("helpers bring those that they need, each once, in order") {
    CHECK(helper_definitions({}).empty());
    const std::string text = helper_definitions({"lq_gradient_noise", "lq_read"});
    CHECK(text.find("uint lq_pcg(uint v)") < text.find("float lq_gradient_noise(vec2 where)"));
    CHECK(text.find("vec4 lq_read_level(") < text.find("vec4 lq_read(sampler2D"));
    CHECK(text.find("lq_hash3") == std::string::npos);
    CHECK(text.find("uint lq_pcg(uint v)") == text.rfind("uint lq_pcg(uint v)"));
}

TEST_CASE("the two dialects differ in their heads only") {
    const std::string es = text_of("radius");
    const std::string desktop = text_of("radius", Dialect::desktop_330);
    CHECK(es.starts_with("#version 300 es\nprecision highp float;"));
    CHECK(desktop.starts_with("#version 330 core\n"));
    CHECK(es.substr(es.find("uniform")) == desktop.substr(desktop.find("uniform")));
}
