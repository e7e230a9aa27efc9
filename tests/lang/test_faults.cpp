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

Scope scope() {
    Scope known = step_scope();
    known.symbols["spray"] = {SymbolKind::step, Type::vec2};
    known.symbols["rim"] = {SymbolKind::step, Type::number};
    known.symbols["on_edge"] = {SymbolKind::step, Type::boolean};
    known.symbols["radius"] = {SymbolKind::dial, Type::number};
    known.symbols["blow"] = {SymbolKind::response, Type::number};
    known.out_of_reach["later"] = "'later' stands further down";
    return known;
}

}  // namespace

TEST_CASE("each fault marks its words and offers a mend") {
    const std::vector<Case> cases = {
        {"rim + $", "lang.character", "$", "take it out"},
        {"rim = 2", "lang.character", "=", "=="},
        {"uv[0]", "lang.character", "[", ".x"},
        {"rim; 2", "lang.character", ";", "more steps"},
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
        {"texture(rim * 2, uv)", "lang.picture", "rim * 2", "step of its own"},
        {"texture(on_edge, uv)", "lang.picture", "on_edge", "number"},
    };
    for (const Case& c : cases) {
        INFO(c.formula);
        const Result<Typed> typed = compile_formula(c.formula, scope());
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
        const Result<Typed> typed = compile_formula(formula, scope());
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
        const Result<Typed> typed = compile_formula(formula, scope());
        if (!typed) REQUIRE(typed.fault().place.span.end <= formula.size());
    }
}
