// GLSL ES 3.00 as code: each line of docs/language.md's table of what is accepted, compared with the software GL driver
// (Khronos, The OpenGL ES Shading Language, version 3.00, document revision 6).
#include <catch2/catch.hpp>
#include <string>
#include <vector>

#include "core/shader/compile.h"
#include "tests/shader/driven.h"

using namespace lacquer;

namespace {

struct LanguageLine {
    const char* chapter;
    const char* before;  // outside of main
    const char* main;    // sets `c`
};

std::string shader_of(const LanguageLine& line) {
    return "out vec4 c;\n" + std::string(line.before) +
           "\nvoid main() {\n    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);\n" + line.main + "\n}\n";
}

const std::vector<LanguageLine> lines = {
    {"3.4 macros", "#define TWICE(x) ((x) * 2.0)\n#define N 3\n#define SUM(a, b) \\\n ((a) + (b))",
     "c = vec4(TWICE(p.x), SUM(p.y, TWICE(p.x)), float(N), 1.0);"},
    {"3.4 conditions",
     "#ifdef GL_ES\n#define A 1\n#else\n#error no\n#endif\n#if A == 1 && defined(GL_ES) && !defined(B)\n#define C 0.5\n"
     "#elif 1\n#define C 0.1\n#endif\n#undef A\n#ifndef A\n#define D 0.25\n#endif\n#if 0\nnonsense here @ $ 'x\n#endif",
     "c = vec4(C, D, float(__VERSION__) / 1000.0, 1.0);"},
    {"4.1.3 whole literals", "",
     "c = vec4(float(0x1F) / 64.0, float(017) / 64.0, float(5u) / 8.0, float(1 / 2) + 0.5);"},
    {"4.1.4 numbers", "", "c = vec4(.5, 1., 1e-1, 2.5E-1f);"},
    {"4.1.6 matrices", "",
     "mat3 m = mat3(p.x, 0.2, 0.3, 0.4, p.y, 0.6, 0.7, 0.8, 0.9); vec3 v = m * vec3(p, 1.0); v += vec3(p, 0.5) * m;"
     "mat2x3 n = mat2x3(p.x, 1.0, 2.0, 3.0, p.y, 5.0); vec3 w = n * p; vec2 q = w * n;"
     "mat4 k = mat4(2.0); k[1] = vec4(p, p); k[3][2] = p.x; vec4 r = k * vec4(p, 0.0, 1.0);"
     "c = vec4(v.xy * 0.1, q * 0.01) + r * 0.1 + vec4((mat3(k) * m)[1], mat2(m)[1].x);"},
    {"4.1.8 structs", "struct Light { vec3 colour; float size; }; struct Pair { Light a; Light b; int n[2]; };",
     "Pair s; s.a = Light(vec3(p, 0.5), 2.0); s.b = s.a; s.b.size *= p.x; s.n[1] = 3; Pair t = s; t.a.colour.x += 1.0;"
     "c = vec4(t.a.colour * t.b.size, float(t.n[1]) * (s.a == t.b ? 1.0 : 0.5) + s.a.colour.x);"},
    {"4.1.9 arrays", "const float weights[3] = float[3](0.2, 0.5, 0.3);",
     "float a[4]; for (int i = 0; i < 4; i++) a[i] = p.x * float(i); int at = int(p.y * 4.0); a[at] += 1.0;"
     "vec2[] v = vec2[](p, p.yx); float sum = 0.0; for (int i = 0; i < weights.length(); ++i) sum += weights[i] * a[i];"
     "c = vec4(sum, a[at], v[at / 2].x, float(a.length()));"},
    {"4.3 const, in, out, precision",
     "precision mediump float; const highp float k = 2.0 * 3.14; const ivec2 n = ivec2(3, 4);",
     "const float half_k = k / 2.0; lowp float x = p.x; c = vec4(half_k * x, float(n.x), p);"},
    {"5.5 swizzles", "",
     "vec4 v = vec4(p, 0.5, 1.0); v.zx = v.yy; v.rg += v.ba; vec3 w = v.stp; w.yz *= 2.0; c = vec4(w, v.w);"},
    {"5.6 brackets", "", "vec3 v = vec3(p, 0.5); int i = int(p.x * 3.0); v[i] = 0.9; v[2] += 0.1; c = vec4(v, v[i]);"},
    {"5.8 assignments", "",
     "float a, b = p.x; a = b += 0.5; int i = 3; i <<= 2; i |= 1; i %= 7; c = vec4(a, b, float(i), 1.0);"},
    {"5.9 ++ and --", "",
     "int i = 2; int a = i++; int b = ++i; float f = p.x; float g = f--; c = vec4(float(a + 10 * b), float(i), f, g);"},
    {"5.9 the comma", "",
     "float a, b; a = 1.0, b = p.x; for (int i = 0, j = 5; i < j; i++, j--) a += float(i * j); c = vec4(a, b, (a, b), "
     "1.0);"},
    {"5.9 choices with effects", "",
     "int n = 0; bool t = p.x > 0.5 && n++ == 0; float v = p.y > 0.5 ? (n += 10, 0.25) : float(n -= 3); c = "
     "vec4(float(n), v, t, 1.0);"},
    {"6.1 functions",
     "float f(float x) { return x * 2.0; } vec2 f(vec2 x) { return x * 3.0; } float g(float x); float g(float x) { x "
     "+= 1.0; return f(x); }",
     "c = vec4(f(p.x), f(p), g(p.y));"},
    {"6.1.1 out and inout",
     "void split(in float x, out float whole, inout float rest) { whole = floor(x); rest += x - whole; if (rest > 1.5) "
     "return; rest *= 0.5; }",
     "float w, r = 0.75; split(p.x * 5.0, w, r); vec3 v = vec3(0.0); split(p.y * 3.0, v.y, v.z); c = vec4(w, r, "
     "v.yz);"},
    {"6.1 early returns",
     "mat2 turn(float a) { for (int i = 0; i < 5; i++) { for (int j = 0; j < 3; j++) if (float(i * j) > a * 9.0) "
     "return mat2(float(i), 0.0, float(j), 1.0); } return mat2(1.0); }",
     "mat2 m = turn(p.x); c = vec4(m[0], m[1]);"},
    {"6.2 switch",
     "int pick(int i) { switch (i) { case 0: return 7; case 1: case 2: i += 10; break; default: i = 50; case 4: i++; } "
     "return i; }",
     "float s = 0.0; for (int i = 0; i < 6; i++) { switch (i) { case 3: continue; case 4: s += 0.5; break; default: s "
     "+= 1.0; } s += 0.1; }"
     "c = vec4(float(pick(int(p.x * 6.0))), float(pick(2)), s, 1.0);"},
    {"6.3 while and do", "",
     "int n = 0; float x = p.x; while (x < 3.0) { x *= 1.5; x += 0.1; if (n++ > 4) break; } int k = 0; do { k++; if (k "
     "== 3) continue; x += 0.01; } while (k < 5);"
     "float y = p.y; while ((y += 0.3) < 2.0) { if (y > 1.5) continue; n++; } c = vec4(x, float(n), y, float(k));"},
    {"6.3 variables that are conditions", "",
     "int n = 0; float x = p.x; while (bool small = x < 3.0) { x = x * 1.5 + 0.1; if (n++ > 4) continue; x += small ? "
     "0.01 : 9.0; } float y = 0.0; for (int i = 0; bool more = float(i) < p.y * 6.0; i++) { if (i == 2) continue; y += "
     "more ? 0.1 : 5.0; } c = vec4(x, float(n), y, 1.0);"},
    {"6.1.1 places that are found by changing something",
     "void give(out float a, inout int j) { j += 2; a = float(j) * 0.1; } void both(inout int j, out float a) { j = 2; "
     "a = 0.7; } float twice(inout float x) { x *= 2.0; return x; }",
     "float a[4]; a[0] = a[1] = a[2] = a[3] = p.x; int i = 0; give(a[i++], i); int k = 1; both(k, a[k]); int m = 3; "
     "give(a[m], m); float t = twice(a[i - 3 + int(p.y)]); vec3 v = vec3(0.25); int q = 0; v[q++] += 0.25; v[++q] = "
     "p.y; c = vec4(a[0] + t, a[1] + v.x, a[2] + v.y, a[3] + v.z);"},
    {"6.4 discard", "float f(float x) { if (x > 0.8) discard; return x; }",
     "if (p.y < 0.2) discard; c = vec4(f(p.x), p.y, 0.5, 1.0);"},
    {"4.3 globals", "float total = 0.5; int calls = 0; float add(float x) { total += x; calls++; return total; }",
     "float a = add(p.x); a += add(p.y); c = vec4(a, total, float(calls), 1.0);"},
    {"8.3 common", "",
     "float w; float f = modf(p.x * 5.0, w); c = vec4(f, w, mod(p.y * 7.0, 3.0), mix(p.x, p.y, 0.25)) + "
     "vec4(min(vec3(p, 0.5), 0.4), step(0.5, p.x)) * clamp(vec4(p, p) * 2.0, 0.2, 0.9);"},
    {"8.4 packing", "",
     "vec2 a = unpackHalf2x16(packHalf2x16(p * 3.0)); vec2 b = unpackSnorm2x16(packSnorm2x16(p - 0.5)); vec2 d = "
     "unpackUnorm2x16(packUnorm2x16(p)); c = vec4(a, b + d);"},
    {"8.6 matrices", "",
     "mat3 m = mat3(2.0 + p.x, 0.2, 0.3, 0.4, 1.0 + p.y, 0.6, 0.7, 0.8, 3.0); mat4 k = mat4(m); k[3] = vec4(0.1, 0.2, "
     "p.x, 2.0); mat4 i = inverse(k);"
     "mat3x2 o = outerProduct(p, vec3(p, 1.0)); c = vec4(determinant(m), determinant(k), (inverse(m) * vec3(p, "
     "1.0)).x, (transpose(o) * p).z) + i * vec4(p, 0.5, 1.0) + vec4(matrixCompMult(m, m)[1], 0.0);"},
    {"8.7 vectors", "",
     "vec3 v = vec3(p, 0.5); bvec3 b = lessThan(v, vec3(0.4)); c = vec4(any(b), all(not(b)), float(equal(ivec2(p * "
     "4.0), ivec2(1)).x), mix(v, vec3(1.0), b).x);"},
    {"8.9 derivatives", "", "float f = p.x * p.x + p.y; c = vec4(dFdx(f), dFdy(f), fwidth(f), 1.0);"},
};

}  // namespace

TEST_CASE("every line of what GLSL has draws what the GL driver draws") {
    for (const LanguageLine& line : lines) {
        DYNAMIC_SECTION(line.chapter) {
            const std::string shader = shader_of(line);
            INFO(shader);
            REQUIRE(test::by_glslang(shader).accepted);
            const Picture wanted = test::driven(shader, 32, 18);
            const Picture found = test::by_lacquer(shader, 32, 18);
            CHECK(test::share_off(found, test::by_lacquer(shader, 32, 18, Backend::gpu), 2e-3) == 0);
            for (const auto& [x, y] : {std::pair(0, 0), {31, 17}, {13, 6}, {20, 11}, {7, 16}}) {
                const Value one = test::by_oracle(shader, x, y, 32, 18);
                for (int c = 0; c < 4; ++c)
                    CHECK(static_cast<double>(found.at(x, y)[c]) == Approx(as_float(one, c)).margin(1e-3));
            }
            // A discarded pixel is clear here; the driver leaves what was there before, which is not looked at.
            const bool discards = std::string(line.chapter).find("discard") != std::string::npos;
            if (!discards) CHECK(test::share_off(found, wanted, 2e-3) == 0);
        }
    }
}
