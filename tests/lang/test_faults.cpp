// Every fault of the language, provoked: its id, the words that it marks, and its mend.
#include <catch2/catch.hpp>

#include "core/lang/checker.h"

using namespace lacquer;

namespace {

struct Case {
    std::string formula;
    std::string id;
    std::string words;
    std::string mend;  ///< a part of it
};

Scope faulty_scope() {
    Scope known = step_scope();
    known.symbols["spray"] = {SymbolKind::step, Type::vec2};
    known.symbols["rim"] = {SymbolKind::step, Type::number};
    known.symbols["on_edge"] = {SymbolKind::step, Type::boolean};
    known.symbols["radius"] = {SymbolKind::dial, Type::number};
    known.symbols["blow"] = {SymbolKind::response, Type::number};
    known.symbols["blow.presence"] = {SymbolKind::response, Type::number};
    known.symbols["glow_colours"] = {SymbolKind::gradient, Type::vec4};
    known.out_of_reach["later"] = "'later' stands further down";
    return known;
}

}  // namespace

TEST_CASE("each fault marks its words and offers a mend") {
    const std::vector<Case> cases = {
        {"rim + $", "lang.character", "$", "take it out"},
        {"uv[2]", "lang.parts", "2", "one of these"},
        {"uv[uv.yx]", "lang.kind", "uv.yx", "one part"},
        {"rim[0]", "lang.parts", "[0]", "leave the brackets out"},
        {"uv[0", "lang.expected", "", "']'"},
        {"rim = 2", "lang.assignment", "=", "=="},
        {"rim; 2", "lang.statement", "rim", "return"},
        {"return rim", "lang.expected", "", "';'"},
        {"float lobe(vec2 p) { return p.x }", "lang.expected", "}", "';'"},
        {"float lobe(vec2 p) { return lobe(p); } return 1;", "lang.unknown-function", "lobe", ""},
        {"float lobe(vec2 p) { return p; } return lobe(uv);", "lang.width", "p", "p.x"},
        {"float sin(float x) { return x; } return 1;", "lang.duplicate", "sin", "another name"},
        {"float rim(float x) { return x; } return 1;", "lang.duplicate", "rim", "another name"},
        {"float a = 1; float a = 2; return a;", "lang.duplicate", "a", "another name"},
        {"rim = 2; return rim;", "lang.assignment", "rim", "variable"},
        {"vec2 a; a.xx = uv; return a;", "lang.assignment", "a.xx", "once"},
        {"while (true) {} return 1;", "lang.left-out", "while", "for"},
        {"const float a = 1; return a;", "lang.left-out", "const", "leave"},
        {"float a, b; return a;", "lang.left-out", ",", "two lines"},
        {"break; return 1;", "lang.statement", "break", "take it out"},
        {"for (;;) {} return 1;", "lang.expected", ";", "another turn"},
        {"for (int i = 0; i < 9; i++) { }", "lang.no-result", "for (int i = 0; i < 9; i++) { }", "return"},
        {"if (on_edge) return 1;", "lang.no-result", "if (on_edge) return 1;", "return"},
        {"for (int i = 0; i < 300; i++) for (int k = 0; k < 300; k++) {} return 1;", "lang.turns",
         "for (int i = 0; i < 300; i++) for (int k = 0; k < 300; k++) {} return 1;", "fewer"},
        {"float a; if (on_edge) { a = dFdx(rim); } return a;", "lang.derivative", "dFdx", "before"},
        {"float w(float x) { return fwidth(x); } if (on_edge) return w(rim); return 0;", "lang.derivative", "w",
         "before"},
        {"if (on_edge) return 0; return dFdx(rim);", "lang.derivative", "dFdx", "before"},
        {"mat2(1) * vec3(1)", "lang.matrix", "mat2(1) * vec3(1)", "vec2"},
        {"mat2(1, 2)", "lang.count", "mat2(1, 2)", "missing"},
        {"mat2(1)", "lang.step-type", "mat2(1)", "vector"},
        {"ivec2(1, 2)", "lang.step-type", "ivec2(1, 2)", "vec2"},
        {"int(rim) + uint(rim)", "lang.kind", "uint(rim)", "int(uint(rim))"},
        {"lessThan(uv, spray) ? 1 : 0", "lang.kind", "lessThan(uv, spray)", "any"},
        {"uv < spray", "lang.width", "uv", "lessThan"},
        {"rim /* edge", "lang.comment", "/* edge", "*/"},
        {"2rim", "lang.number", "2rim", "starts with a letter"},
        {"", "lang.empty", "", "write"},
        {"mix(rim, 1", "lang.expected", "", "','"},
        {"rim + ) * 2", "lang.expected", ")", "a number"},
        {"rim 2", "lang.expected", "2", "an operator"},
        {"rim += 2", "lang.assignment", "+=", "new step"},
        {"rdius + 1", "lang.unknown-name", "rdius", "radius"},
        {"sin + 1", "lang.unknown-name", "sin", "sin(...)"},
        {"smothstep(0, 1, rim)", "lang.unknown-function", "smothstep", "smoothstep"},
        {"rim(2)", "lang.unknown-function", "rim", "texture(rim, where)"},
        {"later * 2", "lang.out-of-reach", "later", "move"},
        {"cross(spray, vec3(1))", "lang.width", "spray", "vec3(spray, 0)"},
        {"spray + vec3(1)", "lang.width", "spray + vec3(1)", ".xy"},
        {"step(0.5, spray) > 1", "lang.width", "step(0.5, spray)", ".x"},
        {"on_edge * 2", "lang.kind", "on_edge", "? 1 : 0"},
        {"rim ? 1 : 0", "lang.kind", "rim", "rim > 0.5"},
        {"rim % 2", "lang.kind", "rim", "mod(rim, 2)"},
        {"int(rim) + rim", "lang.kind", "int(rim)", "float"},
        {"clamp(rim, 0)", "lang.count", "clamp(rim, 0)", "clamp(x, least, most)"},
        {"vec3(1, 2)", "lang.count", "vec3(1, 2)", "add"},
        {"vec2(1, 2, 3)", "lang.count", "3", "take this out"},
        {"vec2()", "lang.count", "vec2()", "vec2(0)"},
        {"spray.z", "lang.parts", "z", "xy"},
        {"rim.x", "lang.parts", "x", "without"},
        {"blow.presents", "lang.parts", "presents", "presence"},
        {"texture(radius, uv)", "lang.picture", "radius", "step"},
        {"texture(radius * 2, uv)", "lang.picture", "radius * 2", "step"},
        {"float a = rim; return texture(a * 2, uv);", "lang.picture", "a * 2", "step of its own"},
        {"at(rim, 0.5)", "lang.picture", "rim", "gradient"},
        {"glow_colours * 2", "lang.picture", "glow_colours", "at(glow_colours, t)"},
        {"texture(on_edge, uv)", "lang.picture", "on_edge", "number"},
    };
    for (const Case& c : cases) {
        INFO(c.formula);
        const Result<Typed> typed = compile_step(c.formula, faulty_scope());
        REQUIRE_FALSE(typed);
        const Fault& fault = typed.fault();
        INFO(to_text(fault));
        CHECK(fault.id == c.id);
        CHECK(c.formula.substr(fault.place.span.begin, fault.place.span.end - fault.place.span.begin) == c.words);
        CHECK(fault.mend.find(c.mend) != std::string::npos);
        CHECK_FALSE(fault.message.empty());
    }
}

TEST_CASE("formulas without end are faults, not crashes") {
    const auto id = [](const std::string& formula) {
        const Result<Typed> typed = compile_formula(formula, faulty_scope());
        return typed ? std::string("fine") : typed.fault().id;
    };
    CHECK(id(std::string(10000, '(') + "1" + std::string(10000, ')')) == "lang.nesting");
    CHECK(id(std::string(10000, '!') + "true") == "lang.nesting");
    std::string sum = "1";
    for (int i = 0; i < 10000; ++i) sum += "+1";
    CHECK(id(sum) == "lang.nesting");
    std::string choice = "1";
    for (int i = 0; i < 5000; ++i) choice += "<1?1:1";
    CHECK(id(choice) == "lang.nesting");
    std::string calls;
    for (int i = 0; i < 5000; ++i) calls += "abs(";
    CHECK(id(calls) == "lang.nesting");
    std::string parts = "uv";
    for (int i = 0; i < 5000; ++i) parts += ".xy";
    CHECK(id(parts) == "lang.nesting");
    CHECK(id(std::string(70000, ' ')) == "lang.too-long");
}

TEST_CASE("code without end is a fault, not a crash") {
    const auto id = [](const std::string& code) {
        const Result<Typed> typed = compile_step(code, faulty_scope());
        return typed ? std::string("fine") : typed.fault().id;
    };
    std::string doubling = "float f0(float x) { return x; }\n";
    for (int i = 1; i < 40; ++i) {
        const std::string before = "f" + std::to_string(i - 1);
        doubling += "float f" + std::to_string(i) + "(float x) { return " + before + "(x) + " + before + "(x); }\n";
    }
    CHECK(id(doubling + "return f39(rim);") == "lang.too-big");
    std::string blocks;
    for (int i = 0; i < 5000; ++i) blocks += "{";
    CHECK(id(blocks) == "lang.nesting");
    std::string ifs;
    for (int i = 0; i < 5000; ++i) ifs += "if (on_edge) ";
    CHECK(id(ifs + "return 1;") == "lang.nesting");
    std::string long_code;
    for (int i = 0; i < 5000; ++i) long_code += "{}";
    CHECK(id(long_code + "return 1;") == "lang.too-long");
}

TEST_CASE("any bytes give a value or a fault") {
    std::uint32_t state = 7;
    const std::string letters = "uvrimspay.xy()+-*/%<>=!&|^~?:,0123456789ef \n\t$\"\\[]{};\x80\xff";
    for (int n = 0; n < 20000; ++n) {
        std::string formula;
        const int length = n % 24;
        for (int i = 0; i < length; ++i) {
            state = state * 1664525U + 1013904223U;
            formula += letters[(state >> 16U) % letters.size()];
        }
        const Result<Typed> typed = compile_step(formula, faulty_scope());
        if (!typed) REQUIRE(typed.fault().place.span.end <= formula.size());
    }
}
