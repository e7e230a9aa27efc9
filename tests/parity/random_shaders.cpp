#include "tests/parity/random_shaders.h"

#include <array>

#include "core/base/hash.h"

namespace lacquer::test {

namespace {

constexpr const char* head = R"glsl(#version 300 es
precision highp float;
out vec4 colour;
#define COUNT 5
#define HALVED(x) ((x) * 0.5)
#define BLEND(a, b) mix((a), (b), 0.25)
#if COUNT > 4
const float steps[COUNT] = float[](0.1, 0.35, 0.5, 0.8, 1.2);
#else
const float steps[1] = float[](0.0);
#endif
struct Lamp { float height; vec2 at; };
struct Pair { Lamp first; Lamp second; };
float held(float x) { return clamp(x, -4.0, 4.0); }
vec2 held(vec2 x) { return clamp(x, vec2(-4.0), vec2(4.0)); }
void swap(inout float a, inout float b) { float c = a; a = b; b = c; }
void divide(float whole, out float part, out float rest) { part = floor(whole); rest = whole - part; }
Lamp lamp(float height, vec2 at) { Lamp made; made.height = height; made.at = at; return made; }
float brightest(const float all[COUNT]) {
    float most = all[0];
    for (int k = 1; k < all.length(); ++k) most = max(most, all[k]);
    return most;
}
void main() {
    vec2 p = gl_FragCoord.xy / vec2(24.0, 16.0);
    float a = p.x, b = p.y, part, rest;
    vec2 q = p.yx;
    mat2 m = mat2(0.6, 0.8, -0.8, 0.6);
    mat3x2 wide = mat3x2(p, q, vec2(0.25, -0.5));
    float line[COUNT] = steps;
    Pair pair = Pair(lamp(a, q), Lamp(0.5, vec2(b, a)));
    int n = int(p.x * 6.0);
    uint u = uint(p.y * 4.0);
    bool t = a < b;
)glsl";

}  // namespace

std::uint32_t RandomShaders::below(std::uint32_t count) {
    state_ = pcg(state_ + 0x9E3779B9U);
    return state_ % count;
}

std::string RandomShaders::number(int depth) {
    static const std::array<const char*, 14> leaves = {
        "a",       "b",         "q.x",  "p.t",      "line[2]",  "steps[3]", "pair.first.height", "pair.second.at.y",
        "m[1][0]", "wide[2].y", "0.75", "float(n)", "float(u)", "part"};
    if (depth <= 0) return leaves[below(leaves.size() - 1)];
    switch (below(14)) {
        case 0:
            return "line[" + whole(depth - 1) + "]";
        case 1:
            return "wide[" + whole(depth - 1) + " % 3][n & 1]";
        case 2:
            return "HALVED(" + number(depth - 1) + ")";
        case 3:
            return "BLEND(" + number(depth - 1) + ", " + number(depth - 1) + ")";
        case 4:
            return "held(" + number(depth - 1) + " * " + number(depth - 1) + ")";
        case 5:
            return "(" + truth(depth - 1) + " ? " + number(depth - 1) + " : " + number(depth - 1) + ")";
        case 6:
            return "brightest(line)";
        case 7:
            return "dot(" + vector(depth - 1) + ", " + vector(depth - 1) + ")";
        case 8:
            return "lamp(" + number(depth - 1) + ", " + vector(depth - 1) + ").height";
        case 9:
            return "determinant(m)";
        case 10:
            return "(a += 0.125, a)";
        case 11:
            return "float(n++ - 1)";
        default: {
            static const std::array<const char*, 3> marks = {" + ", " - ", " * "};
            return "(" + number(depth - 1) + marks[below(marks.size())] + number(depth - 1) + ")";
        }
    }
}

std::string RandomShaders::vector(int depth) {
    static const std::array<const char*, 6> leaves = {"q", "p", "m[0]", "wide[1]", "pair.first.at", "vec2(a, 0.25)"};
    if (depth <= 0) return leaves[below(leaves.size())];
    switch (below(7)) {
        case 0:
            return "held(m * " + vector(depth - 1) + ")";
        case 1:
            return "held(" + vector(depth - 1) + " * transpose(m))";
        case 2:
            return "held(wide * vec3(" + vector(depth - 1) + ", " + number(depth - 1) + "))";
        case 3:
            return "vec2(" + number(depth - 1) + ", " + number(depth - 1) + ").ts";
        case 4:
            return "matrixCompMult(m, m)[" + whole(depth - 1) + " & 1]";
        case 5:
            return "lamp(" + number(depth - 1) + ", " + vector(depth - 1) + ").at";
        default:
            return "held(" + vector(depth - 1) + " - " + vector(depth - 1) + ")";
    }
}

// From 0 to 4, so that every place it names is there.
std::string RandomShaders::whole(int depth) {
    if (depth <= 0) return below(2) == 0 ? std::to_string(below(5)) : "(abs(n) % COUNT)";
    switch (below(4)) {
        case 0:
            return "int(u & 3u)";
        case 1:
            return "((" + whole(depth - 1) + " + 2) % 5)";
        case 2:
            return "(" + whole(depth - 1) + " ^ 1) % 5";
        default:
            return "min(" + whole(depth - 1) + ", 4)";
    }
}

std::string RandomShaders::truth(int depth) {
    switch (below(5)) {
        case 0:
            return "t";
        case 1:
            return "(n > " + whole(0) + " || " + truth(0) + ")";
        case 2:
            return "pair.first == pair.second";
        case 3:
            return "any(lessThan(" + vector(depth - 1) + ", vec2(0.4321)))";
        default:
            return "(" + number(depth - 1) + " < 0.51234)";
    }
}

std::string RandomShaders::change() {
    switch (below(16)) {
        case 0:
            return "a = held(" + number(2) + ");\n";
        case 1:
            return "q = " + vector(2) + ";\n";
        case 2:
            return "line[" + whole(1) + "] = held(" + number(2) + ");\n";
        case 3:
            return "pair.second = lamp(held(" + number(1) + "), q);\n";
        case 4:
            return "pair.first.at.x -= " + number(0) + ";\n";
        case 5:
            return "wide[" + whole(1) + " % 3] = " + vector(1) + ";\n";
        case 6:
            return "m[n & 1] = normalize(" + vector(1) + " + vec2(1.5));\n";
        case 7:
            return "swap(a, line[1]);\n";
        case 8:
            return "divide(held(" + number(1) + ") + 0.013, part, rest);\n";
        case 9:
            return "swap(q.x, q.y);\n";
        case 10:
            return "n = clamp(n + " + whole(1) + " - 2, -3, 8);\n";
        case 11:
            return "u = (u * 3u + 1u) & 7u;\n";
        case 12:
            return "t = " + truth(2) + ";\n";
        case 13:
            return "b = a = held(b - 0.25 * a);\n";
        case 14:
            return "line[n & 3] *= 0.75;\n";
        default:
            return "pair = Pair(pair.second, pair.first);\n";
    }
}

std::string RandomShaders::loop(int depth) {
    const std::string i = "i" + std::to_string(counters_++);
    const std::string body = statements(depth, 2, true);
    switch (below(4)) {
        case 0:
            return "for (int " + i + " = 0; " + i + " < 3; ++" + i + ") {\n" + body + "}\n";
        case 1:
            return "int " + i + " = 0;\nwhile (" + i + "++ < 3) {\n" + body + "}\n";
        case 2:
            return "int " + i + " = 4;\ndo {\n" + body + "} while (--" + i + " > 1);\n";
        default:
            return "for (int " + i + " = 0, k = 3; " + i + " < k; " + i + "++, k -= 1) {\n" + body + "}\n";
    }
}

std::string RandomShaders::statement(int depth, bool in_loop) {
    if (depth <= 0) return change();
    switch (below(9)) {
        case 0:
            return "if (" + truth(1) + ") {\n" + statements(depth - 1, 2, in_loop) + "}\n";
        case 1:
            return "if (" + truth(1) + ") " + change() + "else " + change();
        case 2:
            return loop(depth - 1);
        case 3:
            return in_loop ? "if (" + truth(1) + ") " + (below(2) == 0 ? "break;\n" : "continue;\n") : change();
        case 4:
            return "switch (" + whole(1) + ") {\ncase 0:\n" + change() + "case 3:\n" + change() + "break;\ndefault:\n" +
                   change() + "}\n";
        default:
            return change();
    }
}

std::string RandomShaders::statements(int depth, int count, bool in_loop) {
    std::string text;
    for (int k = 0; k < count; ++k) text += statement(depth, in_loop);
    return text;
}

std::string RandomShaders::make() {
    counters_ = 0;
    // `part` is set before anybody reads it.
    std::string text = std::string(head) + "divide(a * 3.0 + 0.01, part, rest);\n" + statements(3, 5, false);
    if (below(3) == 0) text += "if (" + truth(1) + ") { colour = vec4(" + vector(1) + ", a, b); return; }\n";
    return text + "colour = vec4(held(" + number(2) + "), " + vector(1) + ", held(part + rest + line[n & 3]));\n}\n";
}

}  // namespace lacquer::test
