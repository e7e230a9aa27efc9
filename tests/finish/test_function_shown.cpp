// What built-in functions do, and their pictures.
#include <catch2/catch.hpp>
#include <iterator>
#include <set>
#include <sstream>

#include "core/finish/function_shown.h"
#include "core/finish/shown.h"
#include "core/shader/prelude.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

// GLSL ES 3.00 (Khronos, revision 6), chapter 8, from memory: all functions that a fragment shader may call, but for
// those of samplers that a code step has not.
constexpr const char* functions_of_glsl =
    "radians degrees sin cos tan asin acos atan sinh cosh tanh asinh acosh atanh pow exp log exp2 log2 "
    "sqrt inversesqrt abs sign floor trunc round roundEven ceil fract mod modf min max clamp mix step "
    "smoothstep isnan isinf floatBitsToInt floatBitsToUint intBitsToFloat uintBitsToFloat packSnorm2x16 "
    "unpackSnorm2x16 packUnorm2x16 unpackUnorm2x16 packHalf2x16 unpackHalf2x16 length distance dot cross "
    "normalize faceforward reflect refract matrixCompMult outerProduct transpose determinant inverse "
    "lessThan lessThanEqual greaterThan greaterThanEqual equal notEqual any all not textureSize texture "
    "textureProj textureLod textureOffset texelFetch texelFetchOffset textureProjOffset textureLodOffset "
    "textureProjLod textureProjLodOffset textureGrad textureGradOffset textureProjGrad "
    "textureProjGradOffset dFdx dFdy fwidth ";

}  // namespace

TEST_CASE("every function of GLSL and of our own is explained, and draws a picture with something in it") {
    std::istringstream words(functions_of_glsl);
    std::set<std::string> names{std::istream_iterator<std::string>(words), {}};
    for (const std::string& name : names) CHECK(is_glsl_function(name));
    for (const BuiltinRow& row : builtin_rows()) names.insert(std::string(row.name));
    for (const std::string& name : names) {
        INFO(name);
        const std::optional<ShownFunction> shown = shown_function(name);
        REQUIRE(shown);
        CHECK_FALSE(shown->rows.empty());
        bool explained = false;
        for (const ShownCall& row : shown->rows) {
            CHECK(row.head.find(name + "(") != std::string::npos);
            explained = explained || !row.words.empty();
        }
        CHECK(explained);
        INFO(shown->formula);
        REQUIRE_FALSE(shown->formula.empty());
        CHECK(shown->formula.find(name + "(") != std::string::npos);
        const Finish finish = finish_on_samples(shown->formula);
        const auto checked = test::checked(finish);
        const CheckedStep* step = find_step(*checked, "shown");
        if (step->fault) FAIL(to_text(*step->fault));
        const Picture picture = test::draw(finish, "shown", 32, 18).picture;
        const std::set<float> values(picture.data.begin(), picture.data.end());
        CHECK(values.size() > 2);
    }
    CHECK_FALSE(shown_function("nothing"));
    CHECK_FALSE(shown_function("lq_half_bits"));
}
