// Numbers as they are typed. Source: GLSL ES 3.00 (Khronos), sections 4.1.3 and 4.1.4.
#include <catch2/catch.hpp>

#include "core/lang/checker.h"
#include "core/lang/oracle.h"

using namespace lacquer;

namespace {

double typed_number(const std::string& text) {
    const Result<Typed> typed = compile_formula(text, step_scope());
    if (!typed) FAIL(to_text(typed.fault()));
    return typed->get<Literal>().number;
}

std::string fault_of_number(const std::string& text) {
    const Result<Typed> typed = compile_formula(text, step_scope());
    return typed ? "fine" : typed.fault().id;
}

}  // namespace

TEST_CASE("numbers are read as GLSL reads them") {
    CHECK(typed_number("1E-400") == 0);
    CHECK(typed_number("1e-400") == 0);
    CHECK(typed_number("1E400") > 1e38);
    CHECK(typed_number("0x1F") == 31);
    CHECK(typed_number("0xFFu") == 255);
    CHECK(typed_number("010") == 8);
    CHECK(typed_number("010.5") == 10.5);
    CHECK(typed_number("08.5") == 8.5);
    CHECK(typed_number("0") == 0);
    CHECK(typed_number("12u") == 12);
    CHECK(typed_number("1.5f") == 1.5);
    CHECK(typed_number("2e3f") == 2000);
    CHECK(typed_number(".5") == 0.5);
    CHECK(typed_number("5.") == 5);
}

TEST_CASE("what GLSL takes for no number is a fault") {
    for (const char* odd : {"0x", "0xu", "1.5u", "1e3u", "08", "019", "1f", "0xFFg", "1e", "1.5x"}) {
        INFO(odd);
        CHECK(fault_of_number(odd) == "lang.number");
    }
}

TEST_CASE("derivatives behind a question, and in what has no pixels, are faults") {
    Scope scope = step_scope();
    CHECK(compile_formula("uv.x > 0.5 ? dFdx(uv.x) : 0", scope).fault().id == "lang.derivative");
    CHECK(compile_formula("uv.x > 0.5 && fwidth(uv.x) > 0", scope).fault().id == "lang.derivative");
    CHECK(compile_formula("uv.x > 0.5 || dFdy(uv.x) > 0", scope).fault().id == "lang.derivative");
    CHECK(compile_formula("fwidth(uv.x) > 0.5 ? 1 : 0", scope));
    CHECK(compile_formula("(fwidth(uv.x) > 0 && true) ^^ (dFdx(uv.y) > 0)", scope));
    scope.no_neighbours = "a dial has one value for the whole picture";
    CHECK(compile_formula("fwidth(time)", scope).fault().id == "lang.derivative");
    std::string nested = "time";
    for (int i = 0; i < 17; ++i) nested = "fwidth(" + nested + ")";
    CHECK(compile_formula(nested, scope).fault().id == "lang.derivative");
}

TEST_CASE("a formula of too many nodes is a fault, with those of the functions that it calls") {
    std::string many = "uv.x";
    for (int i = 0; i < 200; ++i) many += " + uv.x";
    CHECK(compile_formula(many, step_scope()));
    Scope scope = step_scope();
    scope.symbols["x"] = {SymbolKind::dial, Type::number};
    std::string tree = "x";
    for (int i = 0; i < 14; ++i) tree = "(" + tree + "+" + tree + ")";
    const Result<Typed> typed = compile_formula(tree, scope);
    REQUIRE_FALSE(typed);
    CHECK(typed.fault().id == "lang.too-big");
}
