#include <catch2/catch.hpp>

#include "core/lang/checker.h"

using namespace lacquer;

namespace {

Scope checker_scope() {
    Scope known = step_scope();
    known.symbols["scene"] = {SymbolKind::ground, Type::vec4};
    known.symbols["spray"] = {SymbolKind::step, Type::vec2};
    known.symbols["rim"] = {SymbolKind::step, Type::number};
    known.symbols["tint"] = {SymbolKind::dial, Type::vec3};
    known.symbols["wet"] = {SymbolKind::dial, Type::boolean};
    known.symbols["blow"] = {SymbolKind::response, Type::number};
    known.symbols["blow.presence"] = {SymbolKind::response, Type::number};
    return known;
}

std::string meaning(const std::string& formula) {
    const Result<Typed> typed = compile_formula(formula, checker_scope());
    return typed ? std::string(glsl_name(typed->type)) + " " + to_text(*typed) : typed.fault().id;
}

}  // namespace

TEST_CASE("one number fits any width, and the change is written out") {
    CHECK(meaning("uv * 2") == "vec2 (uv * vec2(2.0))");
    CHECK(meaning("tint + rim") == "vec3 (tint + vec3(rim))");
    CHECK(meaning("mix(tint, 0, rim)") == "vec3 mix(tint, vec3(0.0), vec3(rim))");
}

TEST_CASE("4 fits 3 without its opacity, 3 fits 4 with opacity 1") {
    CHECK(meaning("cross(scene, tint)") == "vec3 cross(scene.xyz, tint)");
    CHECK(meaning("mix(scene, tint, rim)") == "vec4 mix(scene, vec4(tint, 1.0), vec4(rim))");
    CHECK(meaning("wet ? tint : scene") == "vec4 wet ? vec4(tint, 1.0) : scene");
    CHECK(meaning("dot(scene, tint)") == "float dot(scene.xyz, tint)");
}

TEST_CASE("3 with 4 under an operator works on colour and keeps the opacity") {
    CHECK(meaning("scene * tint") == "vec4 (scene * tint)");
    CHECK(meaning("tint - scene") == "vec4 (tint - scene)");
}

TEST_CASE("adaptations are told with their places") {
    const std::string formula = "mix(scene, tint, rim)";
    const Result<Typed> typed = compile_formula(formula, checker_scope());
    REQUIRE(typed);
    const std::vector<AdaptationMark> marks = adaptations(*typed);
    REQUIRE(marks.size() == 2);
    CHECK(marks[0].adaptation == Adaptation::opacity_added);
    CHECK(formula.substr(marks[0].span.begin, marks[0].span.end - marks[0].span.begin) == "tint");
    CHECK(marks[1].adaptation == Adaptation::filled);
}

TEST_CASE("literals are floats, and whole ones become int beside an int") {
    CHECK(meaning("1 / 2") == "float (1.0 / 2.0)");
    CHECK(meaning("int(rim) + 1") == "int (int(rim) + 1)");
    CHECK(meaning("int(rim) % 3 == 0") == "bool ((int(rim) % 3) == 0)");
    CHECK(meaning("max(int(rim), -2)") == "int max(int(rim), -2)");
    CHECK(meaning("abs(-2)") == "float abs(-2.0)");
}

TEST_CASE("swizzles and constructors follow GLSL") {
    CHECK(meaning("scene.bgr") == "vec3 scene.zyx");
    CHECK(meaning("uv.yx.x") == "float uv.yx.x");
    CHECK(meaning("vec4(uv, 0, 1)") == "vec4 vec4(uv, 0.0, 1.0)");
    CHECK(meaning("vec3(scene)") == "vec3 vec3(scene)");
    CHECK(meaning("float(wet)") == "float float(wet)");
    CHECK(meaning("blow.presence * blow") == "float (blow.presence * blow)");
}

TEST_CASE("texture reads steps and grounds by name, and has their type") {
    CHECK(meaning("texture(scene, uv + spray)") == "vec4 texture(scene, (uv + spray))");
    CHECK(meaning("texture(rim, uv)") == "float texture(rim, uv)");
}

TEST_CASE("names used are found through reads as well") {
    const Result<Typed> typed = compile_formula("texture(scene, uv) * rim + rim", checker_scope());
    REQUIRE(typed);
    CHECK(names_used(*typed) == std::vector<std::string>{"scene", "uv", "rim"});
}

TEST_CASE("a result can be asked for in a type") {
    CHECK(compile_formula("0.5", checker_scope(), Type::vec3)->type == Type::vec3);
    CHECK(compile_formula("uv", checker_scope(), Type::number).fault().id == "lang.width");
    CHECK(compile_formula("wet", checker_scope(), Type::number).fault().id == "lang.kind");
}
