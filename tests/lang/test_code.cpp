// Code in a step: what it comes to, by the oracle.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/lang/checker.h"
#include "core/lang/code.h"
#include "core/lang/fitting.h"
#include "core/lang/oracle.h"

using namespace lacquer;

namespace {

Scope scope() {
    Scope known = step_scope();
    known.symbols["x"] = {SymbolKind::dial, Type::number};
    known.symbols["wet"] = {SymbolKind::dial, Type::boolean};
    known.symbols["tint"] = {SymbolKind::dial, Type::vec3};
    return known;
}

Value value_of(const std::string& code, float x = 0) {
    const Result<Typed> typed = compile_step(code, scope());
    INFO(code);
    if (!typed) FAIL(to_text(typed.fault()));
    OracleInputs inputs;
    inputs.name = [&](const std::string& name, Type type, int dx, int dy) {
        if (name == "pixel") return make_vec2(4.0F + static_cast<float>(dx), 6.0F + static_cast<float>(dy));
        if (name == "tint") return make_vec3(1, 2, 3);
        return type == Type::boolean ? make_boolean(x > 0) : make_number(x);
    };
    return evaluate(*typed, inputs);
}

float number(const std::string& code, float x = 0) { return value_of(code, x).parts[0]; }

std::string id_of(const std::string& code) {
    const Result<Typed> typed = compile_step(code, scope());
    return typed ? std::string("fine") : typed.fault().id;
}

}  // namespace

TEST_CASE("a text is code by a semicolon, a bracket or a return, but not within remarks") {
    CHECK(is_code("return x;"));
    CHECK(is_code("return x"));
    CHECK(is_code("{}"));
    CHECK_FALSE(is_code("x + 1"));
    CHECK_FALSE(is_code("x // ; { return"));
    CHECK_FALSE(is_code("x /* return 1; */ + 1"));
}

TEST_CASE("variables are set, changed whole or in parts, and hide what is outside") {
    CHECK(number("float a = 2; a += 3; a *= 2; a -= 1; a /= 3; return a;") == 3);
    CHECK(number("float a; return a;") == 0);
    CHECK(value_of("vec3 c; c.zx = vec2(1, 2); c.y += 5; return c;") == make_vec3(2, 5, 1));
    CHECK(value_of("vec4 c = vec4(1); c.rgb *= 0.5; return c;") == make_vec4(0.5F, 0.5F, 0.5F, 1));
    CHECK(number("float x = 7; { float x = 9; } return x;", 1) == 7);
    CHECK(number("float a = x; { float x = 9; a += x; } return a + x;", 1) == 11);
    CHECK(number("float sin = 3; return sin + sin(0);") == 3);
    CHECK(number("int n = 5; n %= 3; n <<= 2; return float(n);") == 8);
    CHECK(number("float a = 1; a++; a--; a++; return a;") == 2);
}

TEST_CASE("branches go one way, also nested and without brackets") {
    const std::string signs = "if (x < 0) return -1; else if (x > 0) return 1; return 0;";
    CHECK(number(signs, -3) == -1);
    CHECK(number(signs, 3) == 1);
    CHECK(number(signs, 0) == 0);
    const std::string nested = "float a = 1; if (x > 1) { if (x > 2) a = 5; else a = 4; a += 0.5; } return a;";
    CHECK(number(nested, 0) == 1);
    CHECK(number(nested, 1.5F) == 4.5F);
    CHECK(number(nested, 3) == 5.5F);
    CHECK(number("if (wet) { return 2; } else { return 3; }", 1) == 2);
}

TEST_CASE("loops turn, are cut short and left") {
    CHECK(number("float s = 0; for (int i = 0; i < 5; i++) s += float(i); return s;") == 10);
    CHECK(number("float s = 0; for (float i = 4; i > 0; i -= 0.5) s++; return s;") == 8);
    CHECK(number("float s = 0; for (int i = 0; i < 9; i++) { if (i == 2) continue; if (i == 5) break; s += float(i); } "
                 "return s;") == 8);
    CHECK(number("for (int i = 0; i < 9; i++) { if (float(i) > x) return float(i); } return -1;", 3) == 4);
    CHECK(number("for (int i = 0; i < 9; i++) { if (float(i) > x) return float(i); } return -1;", 30) == -1);
    CHECK(number("float s = 0; for (int i = 0; i < 3; i++) for (int k = i; k < 3; k++) s += 1; return s;") == 6);
    CHECK(number("int n = 7; for (; n > 2;) n--; return float(n);") == 2);
    CHECK(number("float s = 0; for (int i = 0; i < 3; i++) { float t; t += 1; s += t; } return s;") == 3);
}

TEST_CASE("a loop that would never end turns 65,536 times, counted over all loops") {
    CHECK(number("float s = 0; for (; true;) s++; return s;") == 65536);
    CHECK(number("float s = 0; for (int i = 0; i < int(x); i++) s++; for (; true;) s++; return s;", 100) == 65536);
    CHECK(number("float s = 0; for (int i = 0; i < 65536; i++) s++; return s;") == 65536);
    CHECK(id_of("float s = 0; for (int i = 0; i < 65537; i++) s++; return s;") == "lang.turns");
    CHECK(id_of("float f(float y) { for (int i = 0; i < 300; i++) y++; return y; } "
                "for (int i = 0; i < 300; i++) { if (f(x) > 2) break; } return 1;") == "lang.turns");
}

TEST_CASE("functions take values, call those above them and give back what fits their type") {
    CHECK(
        number("float twice(float y) { return y * 2; } float four(float y) { return twice(twice(y)); } return four(x);",
               3) == 12);
    CHECK(value_of("vec3 spread(float y) { return y; } return spread(2);") == make_vec3(2, 2, 2));
    CHECK(number("float f(vec2 p) { p.x = 9; return p.x; } vec2 q = vec2(1, 2); float a = f(q); return q.x + a;") ==
          10);
    CHECK(number("float one() { return 1; } return one() + one();") == 2);
    CHECK(number("float f(float y) { if (y > 2) return 7; return y; } return f(x) + f(1);", 3) == 8);
    CHECK(id_of("float f(float y) { return g(y); } float g(float y) { return y; } return f(1);") ==
          "lang.unknown-function");
    CHECK(id_of("float f(float y) { return y; } return f(1, 2);") == "lang.count");
    CHECK(id_of("float f(sampler2D p) { return 1; } return 1;") == "lang.left-out");
    CHECK(id_of("return 1; float f() { return 1; }") == "lang.statement");
}

TEST_CASE("several returns are brought to the widest type") {
    CHECK(value_of("if (wet) return 1; return tint;", 1) == make_vec3(1, 1, 1));
    CHECK(value_of("if (wet) return 1; return tint;", -1) == make_vec3(1, 2, 3));
    CHECK(value_of("if (wet) return tint; return vec4(0);", 1) == make_vec4(1, 2, 3, 1));
    CHECK(id_of("if (wet) return pixel; return tint;") == "lang.width");
    CHECK(id_of("if (wet) return true; return 1;") == "lang.kind");
}

TEST_CASE("literals without a point are floats unless a whole number is wanted") {
    CHECK(number("return 1 / 2;") == 0.5F);
    CHECK(number("int n = 7; return float(n / 2);") == 3);
    CHECK(number("uint n = 7u; return float(n / 2);") == 3);
    CHECK(number("vec2 p = vec2(1, 2) / 4; return p.y;") == 0.5F);
    CHECK(id_of("int n = 1.5; return 1;") == "lang.kind");
    CHECK(id_of("uint n = -1; return 1;") == "lang.kind");
}

TEST_CASE("whole numbers without sign wrap, divide and shift as such") {
    CHECK(number("uint n = 0u; n -= 1u; return n > 4000000000u ? 1 : 0;") == 1);
    CHECK(number("return float(uint(-3.5));") == 0);
    CHECK(number("return float((4294967295u / 2u) >> 30);") == 1);
    CHECK(number("return float(7u % 0u) + float(7u / 0u);") == 0);
    CHECK(value_of("return vec2(uvec2(3, 4) << uvec2(1, 2));") == make_vec2(6, 16));
    CHECK(value_of("return vec2(ivec2(7, -7) / 2);") == make_vec2(3, -3));
    CHECK(value_of("return vec2(~ivec2(0, 1));") == make_vec2(-1, -2));
}

TEST_CASE("yes and no part by part") {
    CHECK(number("return any(lessThan(tint, vec3(0))) ? 1 : 0;") == 0);
    CHECK(number("return all(greaterThan(tint, vec3(0))) ? 1 : 0;") == 1);
    CHECK(value_of("return mix(vec3(0), tint, bvec3(true, false, true));") == make_vec3(1, 0, 3));
    CHECK(value_of("return vec3(not(bvec3(true, false, true)));") == make_vec3(0, 1, 0));
    CHECK(value_of("return vec2(equal(ivec2(1, 2), ivec2(1, 3)));") == make_vec2(1, 0));
    CHECK(number("bvec2 b = bvec2(true); return b.x && b.y ? 1 : 0;") == 1);
}

TEST_CASE("matrices go by columns") {
    // Source: GLSL ES 3.00 (Khronos), sections 5.4.2 and 5.9, from memory: columns first, m * v sums over columns.
    CHECK(value_of("return mat2(1, 2, 3, 4) * vec2(1, 10);") == make_vec2(31, 42));
    CHECK(value_of("return vec2(1, 10) * mat2(1, 2, 3, 4);") == make_vec2(21, 43));
    CHECK(value_of("return mat2(2) * vec2(3, 4);") == make_vec2(6, 8));
    CHECK(value_of("return (mat2(1, 2, 3, 4) * mat2(0, 1, 1, 0)) * vec2(1, 0);") == make_vec2(3, 4));
    CHECK(value_of("return mat3(mat2(1, 2, 3, 4)) * vec3(1, 1, 5);") == make_vec3(4, 6, 5));
    CHECK(value_of("return mat2(mat3(7)) * vec2(1, 2);") == make_vec2(7, 14));
    CHECK(number("return determinant(mat2(1, 2, 3, 4));") == -2);
    CHECK(value_of("mat2 m = mat2(1, 2, 3, 4); return inverse(m) * (m * vec2(5, 6));") == make_vec2(5, 6));
    CHECK(value_of("return transpose(mat2(1, 2, 3, 4)) * vec2(1, 0);") == make_vec2(1, 3));
    CHECK(value_of("return outerProduct(vec2(1, 2), vec2(3, 4)) * vec2(1, 0);") == make_vec2(3, 6));
    CHECK(value_of("mat2 m = mat2(1); m *= 2; m = m + mat2(1); return m * vec2(1, 2);") == make_vec2(3, 6));
    CHECK(number("return mat2(1) == mat2(1, 0, 0, 1) ? 1 : 0;") == 1);
    CHECK(id_of("return tint * mat2(1);") == "lang.matrix");
    CHECK(id_of("return mat2(1).x;") == "lang.parts");
    CHECK(id_of("return mat2(mat3(1), 1) * pixel;") == "lang.matrix");
}

TEST_CASE("parts and columns by a number in brackets") {
    // Source: GLSL ES 3.00 (Khronos), sections 5.5 and 5.6: m[i] is column i of a matrix, v[i] part i of a vector.
    CHECK(number("vec3(5, 6, 7)[1]") == 6);
    CHECK(number("mat2(1, 2, 3, 4)[1].x") == 3);
    CHECK(number("mat2(1, 2, 3, 4)[1][1]") == 4);
    CHECK(number("mat3 m = mat3(1); m[2] = vec3(4, 5, 6); m[0][1] = 0.0; return m[2].y + m[1].y;") == 6);
    CHECK(number("vec4 v = vec4(1); v[3] += 2.0; return v.w;") == 3);
    // By a number that is computed: a fraction counts for the whole number below, what lies outside for the nearest.
    CHECK(number("vec3(5, 6, 7)[1 + 1]") == 7);
    CHECK(number("vec3(5, 6, 7)[1.9 * 1]") == 6);
    CHECK(number("vec3(5, 6, 7)[-3]") == 5);
    CHECK(number("vec3(5, 6, 7)[4 * 2]") == 7);
    CHECK(number("vec3(5, 6, 7)[int(2)]") == 7);
    CHECK(number("mat2(1, 2, 3, 4)[0 + 1].x") == 3);
    CHECK(number("float s = 0; for (int i = 0; i < 4; i++) s += vec4(1, 2, 4, 8)[i]; return s;") == 15);
    CHECK(id_of("return uv[uv.x < 0.5];") == "lang.kind");
    CHECK(id_of("return dFdx(uv)[int(pixel.x)];") == "lang.derivative");
    CHECK(id_of("return vec4(1)[vec4(1)[vec4(1)[vec4(1)[vec4(1)[vec4(1)[vec4(1)[vec4(1)[int(pixel.x)]]]]]]]];") ==
          "lang.too-big");
}

TEST_CASE("++ and -- stand before a variable as well as behind it") {
    CHECK(number("int i = 3; ++i; i++; --i; return float(i);") == 4);
    CHECK(number("float s = 0; for (int i = 0; i < 3; ++i) ++s; return s;") == 3);
    CHECK(number("vec2 v = vec2(1); --v.y; ++v; return v.y;") == 1);
    CHECK(id_of("++uv; return 1.0;") == "lang.assignment");
    CHECK_FALSE(id_of("++; return 1.0;").empty());
}

TEST_CASE("derivatives are differences within a block of two by two") {
    CHECK(number("return dFdx(pixel.x * 3);") == 3);
    CHECK(number("return dFdy(pixel.x * 3);") == 0);
    CHECK(number("float a = pixel.x * pixel.y; return dFdy(a);") == 4);
    CHECK(number("float f(float y) { return y * y; } return dFdx(f(pixel.x));") == 9);
    CHECK(number("return fwidth(pixel.x - 2 * pixel.y);") == 3);
    CHECK(number("float a = dFdx(pixel.x); return dFdx(pixel.y * a + pixel.x * 5);") == 5);
}

TEST_CASE("what fits where") {
    const auto of = [](Type type) { return Typed{NameHere(), type}; };
    CHECK(fits(of(Type::number), Type::vec3));
    CHECK(fits(of(Type::vec4), Type::vec3));
    CHECK(fits(of(Type::vec3), Type::vec4));
    CHECK_FALSE(fits(of(Type::vec2), Type::vec3));
    CHECK(fits(of(Type::integer), Type::ivec3));
    CHECK_FALSE(fits(of(Type::integer), Type::number));
    CHECK_FALSE(fits(of(Type::natural), Type::integer));
    CHECK(fits(of(Type::boolean), Type::bvec2));
    CHECK_FALSE(fits(of(Type::number), Type::mat2));
    CHECK_FALSE(fits(of(Type::mat2), Type::vec4));
    for (int t = 0; t <= static_cast<int>(Type::mat3); ++t) {
        const Type type = static_cast<Type>(t);
        CHECK(type_named(glsl_name(type)) == type);
        CHECK(fits(of(type), type));
        CHECK_FALSE(said(type).empty());
    }
}
