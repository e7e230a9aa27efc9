// What GLSL does not have is refused here as glslang refuses it (Khronos' own reference compiler).
#include <catch2/catch.hpp>
#include <string>
#include <vector>

#include "core/lang/checker.h"
#include "core/shader/compile.h"
#include "tests/shader/driven.h"

using namespace lacquer;

namespace {

std::string within_main(const std::string& before, const std::string& main) {
    return "out vec4 c;\n" + before + "\nvoid main() {\n    vec2 p = gl_FragCoord.xy;\n    int k = int(p.x);\n" + main +
           "\n    c = vec4(p, 0.0, 1.0);\n}\n";
}

struct WrongShader {
    const char* id;
    const char* before;
    const char* main;
};

const std::vector<WrongShader> wrong = {
    {"lang.kind", "", "float x = 1;"},
    {"lang.width", "", "vec3 x = p;"},
    {"lang.kind", "", "int x = 1.0;"},
    {"lang.kind", "", "float x = p.x * 2;"},
    {"lang.kind", "", "bool b = 1;"},
    {"lang.kind", "", "if (k) p.x = 1.0;"},
    {"lang.unknown-name", "", "p.x = nothing;"},
    {"lang.unknown-function", "", "p.x = nothing(1.0);"},
    {"lang.kind", "", "p.x = sin(1);"},
    {"lang.kind", "", "p.x = dot(p, vec3(1.0));"},
    {"lang.parts", "", "p.x = p.z;"},
    {"lang.parts", "", "p.x = p.xr.x;"},
    {"lang.parts", "", "p.x = k.x;"},
    {"lang.parts", "", "float a[3]; p.x = a[3];"},
    {"lang.parts", "", "p.x = p[2];"},
    {"lang.assignment", "", "1.0 = p.x;"},
    {"lang.assignment", "const float n = 1.0;", "n = 2.0;"},
    {"lang.assignment", "", "p.xx = p;"},
    {"lang.assignment", "", "gl_FragCoord.x = 1.0;"},
    {"lang.duplicate", "", "float p;"},
    {"lang.duplicate", "float f(float x) { return x; } float f(float y) { return y; }", ""},
    {"lang.duplicate", "float f(float x) { return x; } int f(float x) { return 1; }", ""},
    {"lang.duplicate", "float sin(float x) { return x; }", ""},
    {"lang.recursion", "float f(float x) { return f(x); }", "p.x = f(1.0);"},
    {"lang.statement", "", "break;"},
    {"lang.statement", "", "continue;"},
    {"lang.statement", "", "switch (k) { case 1: break; case 1: break; }"},
    {"lang.kind", "", "switch (p.x) { case 1: break; }"},
    {"lang.width", "void f() {}", "p.x = f();"},
    {"lang.kind", "void f() { return 1.0; }", ""},
    {"lang.no-result", "float f() { return; }", ""},
    {"lang.no-result", "float f() {}", ""},
    {"lang.duplicate", "float sin(int x) { return 1.0; }", ""},
    {"lang.count", "", "p = vec2();"},
    {"lang.count", "", "p = vec2(1.0, 2.0, 3.0);"},
    {"lang.count", "", "p = vec3(p).xy;"},
    {"lang.count", "struct A { float x; float y; };", "A a = A(1.0);"},
    {"lang.kind", "void f(out float x) { x = 1.0; }", "f(k);"},
    {"lang.assignment", "void f(out float x) { x = 1.0; }", "f(1.0);"},
    {"shader.constant", "", "const float x = p.x;"},
    {"shader.constant", "", "float a[k];"},
    {"shader.constant", "const float x;", ""},
    {"shader.array", "", "float a[0];"},
    {"shader.array", "", "float a[];"},
    {"shader.directive", "#if X\n#endif", ""},
    {"shader.directive", "#if 1", ""},
    {"shader.directive", "#endif", ""},
    {"shader.directive", "#error told", ""},
    {"shader.directive", "#nothing", ""},
    {"shader.macro", "#define F(a, b) a", "p.x = F(1.0);"},
    {"shader.macro", "#define A 1\n#define A 2", ""},
    {"shader.macro", "#define GL_A 1", ""},
    {"lang.expected", "", "p.x = 1.0"},
    {"lang.expected", "", "p.x = (1.0;"},
    {"lang.expected", "", "p.x = 1.0 +;"},
    {"lang.expected", "", "p.x = 1.0.0;"},
    {"lang.number", "", "k = 4294967296;"},
    {"lang.number", "", "k = 09;"},
    {"lang.character", "", "p.x = @;"},
    {"lang.comment", "", "p.x = 1.0; /* "},
    {"lang.width", "", "p = mat2(1.0) * vec3(1.0);"},
    {"lang.width", "", "mat3 m = mat3(1.0) * mat2(1.0);"},
    {"lang.left-out", "", "float a[2][3];"},
};

}  // namespace

TEST_CASE("what glslang refuses is refused, each with its fault") {
    for (const WrongShader& each : wrong) {
        const std::string shader = within_main(each.before, each.main);
        INFO(shader);
        CHECK_FALSE(test::by_glslang(shader).accepted);
        const Result<CompiledShader> made = compile_shader(shader, step_scope());
        if (made) {
            CHECK(std::string("refused") == each.id);
            continue;
        }
        INFO(to_text(made.fault()));
        CHECK(made.fault().id == each.id);
        const Span span = made.fault().place.span;
        CHECK(span.begin <= span.end);
        CHECK(span.end <= shader.size());
    }
}

TEST_CASE("bombs of macros, depths and sizes are refused in bounded time") {
    std::string macros = "#define A0 x x\n";
    for (int k = 1; k < 40; ++k)
        macros += "#define A" + std::to_string(k) + " A" + std::to_string(k - 1) + " A" + std::to_string(k - 1) + "\n";
    std::string deep(3000, '(');
    std::string nested;
    for (int k = 0; k < 500; ++k) nested += "if (true) {";
    std::string calls = "vec2 f0(vec2 p) { return p; }\n";
    for (int k = 1; k < 60; ++k)
        calls += "mat2 f" + std::to_string(k) + "(vec2 p) { return " +
                 (k == 1 ? std::string("mat2(f0(p), p)")
                         : "f" + std::to_string(k - 1) + "(p) + f" + std::to_string(k - 1) + "(p)") +
                 "; }\n";
    for (const std::string& text :
         {macros + "return A39;", "return " + deep + ";", nested, calls + "return f59(uv)[0];",
          std::string("float a[100000]; return a[0];"),
          std::string("struct S { float a[4096]; }; S s[4096]; return 0.0;"),
          std::string(
              "float a[4096]; for (int i = 0; i < 4096; i++) a[i] = 1.0; float s = 0.0; for (int i = 0; i < 4096; i++) "
              "for (int j = 0; j < 4096; j++) s += a[i] * a[j]; return s;"),
          std::string("#define F(x) G(x) G(x)\n#define G(x) F(x) F(x)\nreturn F(F(F(F(F(F(F(F(1))))))));")}) {
        const Result<CompiledShader> made = compile_shader(text, step_scope());
        CHECK_FALSE(made);
    }
    // An endless loop ends after so many turns, and its value is what it was then.
    CHECK(compile_shader("float x = 0.0; while (true) { x += 1.0; } return x;", step_scope()));
}
