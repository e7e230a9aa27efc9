// The value of any variable within code, as an artist sees it who puts the mark on its name.
#include "core/finish/seen_variable.h"

#include <catch2/catch.hpp>

#include "core/finish/edits.h"
#include "core/finish/step_edits.h"
#include "tests/shader/driven.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

// Code with an @ before the name that is marked.
struct Marked {
    std::string code;
    std::uint32_t place = 0;

    explicit Marked(std::string text) : code(std::move(text)) {
        place = static_cast<std::uint32_t>(code.find('@'));
        code.erase(place, 1);
    }
};

SeenVariable seen(const Marked& marked) {
    Result<SeenVariable> made = seen_variable(marked.code, marked.place);
    if (!made) FAIL(to_text(made.fault()) << "\n" << marked.code);
    return *made;
}

std::vector<double> value_of(const Marked& marked) {
    const SeenVariable variable = seen(marked);
    INFO(variable.code);
    Finish finish = test::finish_of({{"shown", variable.code}});
    finish.coats[0].steps.own()[0].rules = CodeRules::glsl;
    const auto checked = test::checked(finish);
    const CheckedStep* step = find_step(*checked, "shown");
    if (step->fault) FAIL(to_text(*step->fault));
    const Picture drawn = test::draw(finish, "shown", 1, 1).picture;
    std::vector<double> numbers;
    for (int k = 0; k < drawn.channels; ++k) numbers.push_back(static_cast<double>(drawn.at(0, 0)[k]));
    return numbers;
}

}  // namespace

// Expected values worked out by hand.
TEST_CASE("a variable has the value that it has after its statement") {
    struct Row {
        const char* code;
        std::vector<double> worth;
    };
    const std::vector<Row> rows{
        // Where it is declared, set and read.
        {"float @a = 2.0;\na += 1.0;\nreturn a;", {2}},
        {"float a = 2.0;\n@a += 1.0;\na *= 4.0;\nreturn a;", {3}},
        {"float a = 2.0;\nfloat b = @a * 5.0; a = 9.0; return b;", {2}},
        {"float a = 2.0, @b = a * 3.0;\nreturn a;", {6}},
        {"float a = 2.0;a = 3.0;@a = 4.0;a = 5.0;return a;", {4}},
        {"vec3 @v = vec3(1.0, 2.0, 3.0);\nreturn v.x;", {1, 2, 3}},
        {"int @n = 7 / 2;\nreturn float(n);", {3}},
        {"bool @b = 1.0 < 2.0;\nreturn b ? 5.0 : 6.0;", {1}},
        {"ivec2 @n = ivec2(3, 4);\nreturn float(n.x);", {3, 4}},
        {"return 1.0; float @a = 3.0; return a;", {0}},
        // What leaves is looked at before it does.
        {"float a = 2.0;\nreturn @a * 7.0;", {2}},
        {"float a = 2.0;\nif (@a > 1.0) a = 8.0;\nreturn a;", {2}},
        {"float a = 2.0;\nif (a > 1.0) return @a;\nreturn 0.0;", {2}},
        // Without brackets.
        {"float a = 2.0;\nif (a > 1.0) @a = 8.0; else a = 9.0;\na = 1.0; return a;", {8}},
        {"float a = 2.0;\nif (a > 3.0) a = 8.0; else @a = 9.0;\na = 1.0; return a;", {9}},
        {"float a = 2.0;\nif (a > 3.0) @a = 8.0;\nreturn a;", {0}},
        // Loops: the last turn.
        {"float s = 0.0;\nfor (int @i = 0; i < 4; ++i) s += 1.0;\nreturn s;", {3}},
        {"float s = 0.0;\nfor (int i = 0; i < 4; ++i) @s += 2.0;\nreturn 1.0;", {8}},
        {"float s = 0.0;\nfor (int i = 0; i < 4; ++i) { float @t = float(i * i); s += t; }\nreturn s;", {9}},
        {"int i = 0;\nwhile (@i < 5) { i++; }\nreturn 0.5;", {4}},
        {"int i = 0;\ndo { i++; } while (@i < 5);\nreturn 0.5;", {5}},
        {"int n = 2; float r = 0.0;\nswitch (n) { case 1: r = 1.0; break; case 2: @r = 6.0; break; }\nreturn 0.0;",
         {6}},
        // Functions: the last call.
        {"float f(float @x) { float y = x * 2.0; return y; }\nreturn f(3.0) + f(4.0);", {4}},
        {"float f(float x) { float @y = x * 2.0; return y; }\nreturn f(3.0) + f(4.0);", {8}},
        {"float f(float x) { return @x * 2.0; }\nreturn f(3.0);", {3}},
        {"void g(inout float x) { @x += 1.0; }\nfloat v = 1.0; g(v); g(v);\nreturn v;", {3}},
        // Names that are hidden, and used already.
        {"float a = 1.0;\n{ float a = 5.0; @a += 1.0; }\nreturn a;", {6}},
        {"float seen_a = 4.0;\nfloat @a = seen_a;\nreturn a;", {4}},
        // Parts: what stands behind the name, else the first; up to the mark, if that is on one.
        {"mat2 @m = mat2(1.0, 2.0, 3.0, 4.0);\nreturn m[0].x;", {1, 2}},
        {"mat3x2 m = mat3x2(1.0, 2.0, 3.0, 4.0, 5.0, 6.0);\nfloat x = @m[2].x;\nreturn x;", {5, 6}},
        {"float @a[2] = float[2](1.0, 2.0);\nreturn a[0];", {1}},
        {"float[3] a = float[3](1.0, 2.0, 3.0); int i = 1;\n@a[i + 1] = 7.0;\nreturn a[0];", {7}},
        {"int i = 0; float a[2] = float[2](1.0, 2.0);\nfloat b = @a[i++];\nreturn b;", {1}},
        {"struct S { float x; vec2 y; };\nS @s = S(1.0, vec2(2.0, 3.0));\nreturn s.x;", {1}},
        {"struct S { float x; vec2 y; };\nS s = S(1.0, vec2(2.0, 3.0));\nreturn s.@y.x;", {2, 3}},
        {"struct S { float x; vec2 y; };\nS s = S(1.0, vec2(2.0, 3.0));\nreturn s.y.@y;", {3}},
        {"struct T { ivec3 n[2]; }; struct S { T t; };\nS s; s.t.n[1] = ivec3(4, 5, 6);\n@s.t.n[1].x = 7;\nreturn 0.0;",
         {7, 5, 6}},
        {"struct T { ivec3 n[2]; }; struct S { T t; };\nS s; s.t.n[0] = ivec3(4, 5, 6);\ns.@t.n[1].x = 7;\nreturn 0.0;",
         {4, 5, 6}},
        {"vec4 v = vec4(1.0, 2.0, 3.0, 4.0);\nfloat x = v.@zw.x;\nreturn x;", {3, 4}},
        {"struct { bool b; } @s; s.b = true;\nreturn 1.0;", {0}},
        // Macros.
        {"#define TWICE(x) ((x) * 2.0)\nfloat @a = TWICE(3.0);\nreturn a;", {6}},
        {"#define UP a += 1.0;\nfloat a = 1.0;\nUP @a += 1.0;\nreturn a;", {3}},
        // Remarks round it.
        {"float a = 1.0; /* } ; */ @a /* ; */ = 2.0; // end ;\nreturn a;", {2}},
    };
    for (const Row& row : rows) {
        INFO(row.code);
        CHECK(value_of(Marked(row.code)) == row.worth);
    }
}

TEST_CASE("within a whole shader a variable takes the place of its output") {
    const std::string head = "#version 300 es\nprecision highp float;\n";
    const std::vector<std::pair<std::string, std::vector<double>>> rows{
        {head + "out vec4 c;\nvoid main() { vec2 @p = vec2(1.0, 2.0); c = vec4(p, 0.0, 1.0); }", {1, 2}},
        {head + "layout(location = 0) out highp vec4 c;\nconst float g = 4.0;\nvoid main() { c = vec4(@g); }", {4}},
        {head + "out vec4 c;\nconst float @g = 4.0;\nvoid main() { c = vec4(g); }", {4}},
        {head + "out vec4 c;\nfloat f(float x) { float @y = x + 0.5; return y; }\nvoid main() { c = vec4(f(2.0)); }",
         {2.5}},
        {head + "out vec4 c;\nvoid main() { float a = 3.0; c = vec4(@a); if (a > 2.0) return; c = vec4(0.0); }", {3}},
        {head + "out vec4 c;\nvoid main() { @c = vec4(0.25, 0.5, 0.75, 1.0); }", {0.25, 0.5, 0.75, 1}},
        {head + "out vec4 c;\nint main_before;\nvoid main() { bool @b = true; c = vec4(b); }", {1}},
    };
    for (const auto& [code, worth] : rows) {
        INFO(code);
        const Marked marked(code);
        CHECK(value_of(marked) == worth);
        // By another compiler it is a shader, too.
        const test::Verdict verdict = test::by_glslang(seen(marked).code);
        INFO(verdict.words);
        CHECK(verdict.accepted);
    }
    CHECK(value_of(Marked("void main() { float @a = 2.0; gl_FragColor = vec4(a); }")) == std::vector<double>{2});
}

TEST_CASE("what has no value to be seen is told") {
    for (const char* code :
         {"float a = 1.0;\nreturn @uv.x;", "float a = 1.0;\nreturn vec2(a).@x;", "float a = @1.0;\nreturn a;",
          "float @a = ;\nreturn a;", "float f(float @x) { }\nreturn 1.0;", "@",
          "float f(sampler2D @s) { return 1.0; }\nreturn f(rim);"}) {
        INFO(code);
        const Marked marked(code);
        const Result<SeenVariable> made = seen_variable(marked.code, marked.place);
        REQUIRE_FALSE(made);
        CHECK(made.fault().id == "edit.extract");
        CHECK_FALSE(made.fault().mend.empty());
    }
}

TEST_CASE("a variable of a loop or of a function becomes a step beside its code") {
    const Marked marked(
        "float f(float x) { float @y = x * 2.0; return y; }\n"
        "float s = 0.0;\n"
        "for (int i = 0; i < 3; ++i) s += f(float(i));\n"
        "return s;\n");
    Finish finish = test::finish_of({{"shown", marked.code}});
    finish.coats[0].steps.own()[0].rules = CodeRules::glsl;
    const Result<StepEdit> made = extract_step(finish, "shown", {marked.place, marked.place});
    if (!made) FAIL(to_text(made.fault()));
    CHECK(find_step(made->finish, "shown")->formula == marked.code);
    CHECK(test::draw(made->finish, made->step, 1, 1).picture.at(0, 0)[0] == 4);
    CHECK(test::draw(made->finish, "shown", 1, 1).picture.at(0, 0)[0] == 6);
}
