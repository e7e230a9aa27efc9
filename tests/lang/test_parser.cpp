#include <catch2/catch.hpp>

#include "core/lang/checker.h"
#include "core/lang/rename.h"

using namespace lacquer;

namespace {

std::string shape(const Expression& e) {
    if (e.args.empty() && e.kind != ExpressionKind::call) return e.text;
    std::string text = "(" + e.text;
    for (const Expression& arg : e.args) text += " " + shape(arg);
    return text + ")";
}

std::string shape(std::string_view formula) {
    const Result<Expression> parsed = parse(formula);
    return parsed ? shape(*parsed) : parsed.fault().id;
}

}  // namespace

TEST_CASE("operators bind as GLSL ES 3.00 section 5.1 says") {
    CHECK(shape("a + b * c") == "(+ a (* b c))");
    CHECK(shape("a - b - c") == "(- (- a b) c)");
    CHECK(shape("-a * b") == "(* (- a) b)");
    CHECK(shape("a < b == c > d") == "(== (< a b) (> c d))");
    CHECK(shape("a || b ^^ c && d") == "(|| a (^^ b (&& c d)))");
    CHECK(shape("a | b ^ c & d") == "(| a (^ b (& c d)))");
    CHECK(shape("a << b + c") == "(<< a (+ b c))");
    CHECK(shape("a ? b : c ? d : e") == "(? a b (? c d e))");
    CHECK(shape("!a.x") == "(! (x a))");
    CHECK(shape("f(a, g(), 2).xy") == "(xy (f a (g) 2))");
}

TEST_CASE("numbers, remarks and white space are read") {
    CHECK(parse("0x1F")->value == 31);
    CHECK(parse("1.5e-3f")->value == 0.0015);
    CHECK(parse(".5")->value == 0.5);
    CHECK(parse("3.")->value == 3);
    CHECK(parse("7")->whole);
    CHECK_FALSE(parse("7.")->whole);
    CHECK(shape("a /* the\nedge */ + // more\n b") == "(+ a b)");
}

TEST_CASE("spans point at the words") {
    const std::string formula = "mix(a,  radius + 1, b)";
    const Result<Expression> parsed = parse(formula);
    REQUIRE(parsed);
    const Span span = parsed->args[1].span;
    CHECK(formula.substr(span.begin, span.end - span.begin) == "radius + 1");
}

TEST_CASE("renaming changes whole names only") {
    CHECK(rename_in_formula("rim + rim_2 * uv.rim - f(rim)", "rim", "edge") == "edge + rim_2 * uv.rim - f(edge)");
    CHECK(rename_in_formula("/* rim */ rim", "rim", "edge") == "/* rim */ edge");
    CHECK(rename_in_formula("rim + $", "rim", "edge") == "rim + $");
}
