// The oracle against the definitions written in GLSL ES 3.00 chapter 8 (Khronos), from memory.
#include <catch2/catch.hpp>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/lang/checker.h"
#include "core/lang/oracle.h"

using namespace lacquer;

namespace {

constexpr float quiet_nan = std::numeric_limits<float>::quiet_NaN();
constexpr float inf = std::numeric_limits<float>::infinity();

Value value_of_formula(const std::string& formula, float x = 0, float y = 0, float z = 0) {
    Scope scope = step_scope();
    for (const char* name : {"x", "y", "z"}) scope.symbols[name] = {SymbolKind::dial, Type::number};
    const Result<Typed> typed = compile_step(formula, scope);
    if (!typed) FAIL(formula << ": " << to_text(typed.fault()));
    OracleInputs inputs;
    inputs.name = [&](const std::string& name, Type, int, int) {
        return make_number(name == "x" ? x : name == "y" ? y : z);
    };
    return evaluate(*typed, inputs);
}

float number_of_formula(const std::string& formula, float x = 0, float y = 0, float z = 0) {
    return value_of_formula(formula, x, y, z).parts[0];
}

}  // namespace

TEST_CASE("common functions are as they are written") {
    for (const float x : {-2.75F, -1.0F, -0.25F, 0.0F, 0.3F, 1.0F, 2.5F, 7.25F}) {
        CHECK(number_of_formula("fract(x)", x) == x - std::floor(x));
        CHECK(number_of_formula("mod(x, y)", x, 1.5F) == x - 1.5F * std::floor(x / 1.5F));
        CHECK(number_of_formula("step(y, x)", x, 0.3F) == (x < 0.3F ? 0.0F : 1.0F));
        CHECK(number_of_formula("clamp(x, -1, 1)", x) == std::min(std::max(x, -1.0F), 1.0F));
        CHECK(number_of_formula("sign(x)", x) == (x > 0 ? 1.0F : x < 0 ? -1.0F : 0.0F));
        const float t = std::min(std::max((x - -1.0F) / (2.0F - -1.0F), 0.0F), 1.0F);
        CHECK(number_of_formula("smoothstep(-1, 2, x)", x) == t * t * (3 - 2 * t));
        CHECK(number_of_formula("mix(3, 5, x)", x) == 3 * (1 - x) + 5 * x);
        CHECK(number_of_formula("trunc(x)", x) == std::trunc(x));
    }
    CHECK(number_of_formula("round(2.5)") == 2);
    CHECK(number_of_formula("roundEven(3.5)") == 4);
}

TEST_CASE("what GLSL leaves undefined has one value") {
    CHECK(number_of_formula("smoothstep(0.5, 0.5, x)", 0.4F) == 0);
    CHECK(number_of_formula("smoothstep(0.5, 0.5, x)", 0.5F) == 1);
    CHECK(number_of_formula("pow(-2, 2)") == 0);
    CHECK(number_of_formula("pow(0, 0)") == 1);
    CHECK(number_of_formula("asin(x)", 2) == Approx(std::numbers::pi / 2));
    CHECK(number_of_formula("acos(x)", 1.0001F) == 0);
    CHECK(number_of_formula("atan(0, 0)") == 0);
    CHECK(number_of_formula("length(normalize(vec3(0)))") == 0);
    CHECK(value_of_formula("int(1) / int(0)").wholes[0] == 0);
    CHECK(value_of_formula("int(1) % int(0)").wholes[0] == 0);
    CHECK(value_of_formula("(-2147483647 - int(1)) / int(-1)").wholes[0] == std::numeric_limits<std::int32_t>::min());
    CHECK(value_of_formula("int(x)", quiet_nan).wholes[0] == 0);
    CHECK(value_of_formula("int(x)", 1e20F).wholes[0] == 2147483647);
    CHECK(value_of_formula("int(x)", -inf).wholes[0] == -2147483647 - 1);
}

TEST_CASE("values that are not finite flow as IEEE 754 says") {
    CHECK(std::isnan(number_of_formula("x - x", inf)));
    CHECK(number_of_formula("1 / x", 0) == inf);
    CHECK(std::isnan(number_of_formula("sqrt(x)", -1)));
    CHECK(value_of_formula("isnan(x)", quiet_nan).wholes[0] == 1);
    CHECK(value_of_formula("isinf(1 / x)", 0).wholes[0] == 1);
    CHECK(number_of_formula("max(x, 1)", quiet_nan) != 1);  // y if x < y, else x: the first stays
    CHECK(number_of_formula("min(1, x)", quiet_nan) == 1);
}

TEST_CASE("geometry is as it is written") {
    CHECK(number_of_formula("length(vec2(3, 4))") == 5);
    CHECK(number_of_formula("distance(vec3(1, 2, 3), vec3(1, 2, 5))") == 2);
    CHECK(number_of_formula("dot(vec3(1, 2, 3), vec3(4, 5, 6))") == 32);
    CHECK(value_of_formula("cross(vec3(1, 0, 0), vec3(0, 1, 0))") == make_vec3(0, 0, 1));
    CHECK(value_of_formula("reflect(vec2(1, -1), vec2(0, 1))") == make_vec2(1, 1));
    CHECK(value_of_formula("faceforward(vec2(0, 1), vec2(0, 1), vec2(0, 1))") == make_vec2(0, -1));
    // Snell's law: the sine of the bent angle is eta times that of the incoming one.
    const Value bent = value_of_formula("refract(normalize(vec2(1, -1)), vec2(0, 1), 0.75)");
    CHECK(static_cast<double>(bent.parts[0]) == Approx(0.75 * std::sqrt(0.5)).epsilon(1e-6));
    CHECK(value_of_formula("refract(normalize(vec2(1, -0.1)), vec2(0, 1), 1.5)") == make_vec2(0, 0));
}

TEST_CASE("luminance of BT.709 is a dot product") {
    // Source: ITU-R BT.709, 0.2126 R + 0.7152 G + 0.0722 B.
    CHECK(number_of_formula("dot(vec3(0.5, 0.25, 0.75), vec3(0.2126, 0.7152, 0.0722))") ==
          Approx(0.33925).epsilon(1e-6));
}

TEST_CASE("whole numbers wrap, and bits are bits") {
    CHECK(value_of_formula("2147483647 + int(1)").wholes[0] == -2147483647 - 1);
    CHECK(value_of_formula("int(5) & 3").wholes[0] == 1);
    CHECK(value_of_formula("int(5) ^ 3").wholes[0] == 6);
    CHECK(value_of_formula("~int(0)").wholes[0] == -1);
    CHECK(value_of_formula("int(1) << 33").wholes[0] == 2);
    CHECK(value_of_formula("int(-8) >> 1").wholes[0] == -4);
    CHECK(value_of_formula("floatBitsToInt(1.0)").wholes[0] == 0x3F800000);
    CHECK(number_of_formula("intBitsToFloat(int(1065353216))") == 1);
    CHECK(value_of_formula("sign(int(-7))").wholes[0] == -1);
}

TEST_CASE("truths") {
    CHECK(value_of_formula("true ^^ false").wholes[0] == 1);
    CHECK(value_of_formula("true && !false || false").wholes[0] == 1);
    CHECK(value_of_formula("vec2(1, 2) == vec2(1, 2)").wholes[0] == 1);
    CHECK(value_of_formula("vec2(1, 2) != vec2(1, 3)").wholes[0] == 1);
    CHECK(number_of_formula("mix(1, 2, true)") == 2);
    CHECK(number_of_formula("1 > 2 ? 3 : 4") == 4);
}
