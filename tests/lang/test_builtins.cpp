#include <catch2/catch.hpp>
#include <set>

#include "core/lang/compositions.h"
#include "tests/support/temporary.h"

using namespace lacquer;

TEST_CASE("the table has what GLSL ES 3.00 chapter 8 calls common, trigonometric, exponential and geometric") {
    // Source: GLSL ES 3.00 (Khronos), sections 8.1 to 8.9, from memory. Left out: modf,
    // which needs an argument that is written to; packing; projections, gradients and offsets of texture lookups.
    for (const char* name : {"radians",
                             "degrees",
                             "sin",
                             "cos",
                             "tan",
                             "asin",
                             "acos",
                             "atan",
                             "sinh",
                             "cosh",
                             "tanh",
                             "asinh",
                             "acosh",
                             "atanh",
                             "pow",
                             "exp",
                             "log",
                             "exp2",
                             "log2",
                             "sqrt",
                             "inversesqrt",
                             "abs",
                             "sign",
                             "floor",
                             "trunc",
                             "round",
                             "roundEven",
                             "ceil",
                             "fract",
                             "mod",
                             "min",
                             "max",
                             "clamp",
                             "mix",
                             "step",
                             "smoothstep",
                             "isnan",
                             "isinf",
                             "length",
                             "distance",
                             "dot",
                             "cross",
                             "normalize",
                             "faceforward",
                             "reflect",
                             "refract",
                             "texture",
                             "matrixCompMult",
                             "outerProduct",
                             "transpose",
                             "determinant",
                             "inverse",
                             "lessThan",
                             "lessThanEqual",
                             "greaterThan",
                             "greaterThanEqual",
                             "equal",
                             "notEqual",
                             "any",
                             "all",
                             "not",
                             "textureLod",
                             "texelFetch",
                             "textureSize",
                             "dFdx",
                             "dFdy",
                             "fwidth",
                             "floatBitsToInt",
                             "floatBitsToUint",
                             "intBitsToFloat",
                             "uintBitsToFloat"}) {
        INFO(name);
        CHECK(is_builtin_name(name));
    }
    CHECK(is_builtin_name("vec3"));
    CHECK_FALSE(is_builtin_name("vec5"));
    CHECK_FALSE(is_builtin_name("uv"));
}

TEST_CASE("every function that is made of others compiles, and ends in direct ones") {
    for (const CompositionText& text : composition_texts()) {
        CAPTURE(text.text);
        const BuiltinRow& row = builtin_row(text.id);
        bool found = false;
        for (int width = 1; width <= 4; ++width) {
            const Composition* made = composition_of(text.id, letter_type(row.params[0], {width, Scalar::real}));
            if (made == nullptr) continue;
            found = true;
            REQUIRE(made->function != nullptr);
            CHECK(made->function->parameters == static_cast<int>(row.params.size()));
            // One that called itself would never end.
            const auto look = [&](const Typed& node) {
                const auto* call = node.as<BuiltinCall>();
                CHECK_FALSE((call != nullptr && call->builtin == text.id));
            };
            visit_nodes(made->function->body, look);
        }
        CHECK(found);
    }
    CHECK(composition_of(Builtin::sin, Type::vec2) == nullptr);
    CHECK(composition_of(Builtin::texture, Type::vec4) == nullptr);
}

TEST_CASE("docs/language.md names every function") {
    const std::string text = test::read_file(std::string(LACQUER_SOURCE) + "/docs/language.md");
    for (const BuiltinRow& row : builtin_rows()) {
        INFO(row.name);
        CHECK(text.find(row.name) != std::string::npos);
    }
}

TEST_CASE("every row has as many names as parameters, and a line of help") {
    for (const BuiltinRow& row : builtin_rows()) {
        INFO(row.name);
        CHECK(&builtin_row(row.id) == &row);
        const auto blanks = std::count(row.param_names.begin(), row.param_names.end(), ' ');
        CHECK(static_cast<std::size_t>(blanks) + 1 == row.params.size());
        CHECK(row.words.size() > 5);
        for (const char letter : row.params) CHECK(std::string("gwnaBf234biIumMpst").find(letter) != std::string::npos);
    }
    CHECK(signature_text(builtin_row(Builtin::mix)) == "mix(a, b, share)");
    CHECK(signature_text(builtin_row(Builtin::texture)) == "texture(picture, where)");
}
