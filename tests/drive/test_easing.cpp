// Source: W3C CSS Easing Functions Level 1; its curves evaluated in double precision, from memory.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/drive/easing.h"

using namespace lacquer;

TEST_CASE("named curves pass through the points of CSS Easing") {
    struct Row {
        const char* name;
        double quarter, half, three_quarters;
    };
    for (const Row& row :
         {Row{"ease", 0.408510591, 0.802403388, 0.960458978}, Row{"ease_in", 0.093464651, 0.315356813, 0.621861869},
          Row{"ease_out", 0.378138131, 0.684643187, 0.906535349}, Row{"ease_in_out", 0.129161931, 0.5, 0.870838069},
          Row{"linear", 0.25, 0.5, 0.75}}) {
        INFO(row.name);
        const auto easing = easing_named(row.name);
        REQUIRE(easing);
        CHECK((*easing)(0.25) == Approx(row.quarter).epsilon(1e-8));
        CHECK((*easing)(0.5) == Approx(row.half).epsilon(1e-8));
        CHECK((*easing)(0.75) == Approx(row.three_quarters).epsilon(1e-8));
        CHECK((*easing)(0) == 0);
        CHECK((*easing)(1) == 1);
        CHECK((*easing)(-3) == 0);
        CHECK((*easing)(7) == 1);
    }
    CHECK_FALSE(easing_named("bouncy"));
    for (const std::string& name : easing_names()) CHECK(easing_named(name));
}

namespace {

double eased(const char* text, double t) {
    const Result<Easing> easing = easing_from(text);
    if (!easing) FAIL(text);
    return (*easing)(t);
}

}  // namespace

TEST_CASE("steps() jumps where CSS Easing says") {
    // W3C CSS Easing Functions Level 1, section "Step easing functions", the four positions of steps(3).
    CHECK(eased("steps(3, jump-end)", 0.32) == 0);
    CHECK(eased("steps(3, jump-end)", 0.34) == Approx(1.0 / 3));
    CHECK(eased("steps(3)", 0.99) == Approx(2.0 / 3));
    CHECK(eased("steps(3)", 1) == 1);
    CHECK(eased("steps(3, jump-start)", 0) == Approx(1.0 / 3));
    CHECK(eased("steps(3, start)", 0.67) == 1);
    CHECK(eased("steps(3, jump-none)", 0) == 0);
    CHECK(eased("steps(3, jump-none)", 0.5) == 0.5);
    CHECK(eased("steps(3, jump-none)", 0.9) == 1);
    CHECK(eased("steps(3, jump-both)", 0) == 0.25);
    CHECK(eased("steps(3, jump-both)", 0.9) == 0.75);
    CHECK(eased("steps(3, jump-both)", 1) == 1);
}

TEST_CASE("linear() goes straight through its stops") {
    // W3C CSS Easing Functions Level 2, section "The linear easing function": stops without a time lie evenly between.
    CHECK(eased("linear(0, 1)", 0.3) == Approx(0.3));
    CHECK(eased("linear(0, 0.25, 1)", 0.5) == 0.25);
    CHECK(eased("linear(0, 0.5 80%, 1)", 0.4) == Approx(0.25));
    CHECK(eased("linear(0, 0.5 25% 75%, 1)", 0.6) == 0.5);
    CHECK(eased("linear(0, 0.5 25% 75%, 1)", 0.875) == Approx(0.75));
    CHECK(eased("linear(0, 30% 0.5, 1)", 0.3) == Approx(0.5));
    // A time that goes back is held to the latest before it.
    CHECK(eased("linear(0, 1 60%, 0.5 20%, 0 100%)", 0.6) == Approx(0.5));
    CHECK(eased("linear(0, 1 60%, 0.5 20%, 0 100%)", 0.3) == Approx(0.5));
}

TEST_CASE("cubic-bezier() is the curve of its inner points") {
    // The named curves are defined by these points in W3C CSS Easing Functions Level 1.
    for (const double t : {0.1, 0.5, 0.77}) {
        CHECK(eased("cubic-bezier(0.42, 0, 0.58, 1)", t) == eased("ease_in_out", t));
        CHECK(eased(" cubic-bezier( .25,.1,.25,1 ) ", t) == eased("ease", t));
    }
    CHECK(eased("cubic-bezier(0.3, 2, 0.7, 2)", 0.5) > 1);
}

TEST_CASE("named curves have the values of their formulas") {
    // R. Penner, "Programming Macromedia Flash MX", 2002, chapter 7; values worked out from its formulas, from memory.
    CHECK(eased("out_bounce", 0.5) == Approx(0.765625).epsilon(1e-12));
    CHECK(eased("out_back", 0.5) == Approx(1.0876975).epsilon(1e-9));
    CHECK(eased("out_elastic", 0.5) == Approx(1.015625).epsilon(1e-9));
    CHECK(eased("in_quad", 0.5) == 0.25);
    CHECK(eased("in_cubic", 0.5) == 0.125);
    CHECK(eased("in_out_quint", 0.5) == 0.5);
    CHECK(eased("in_circ", 0.6) == Approx(0.2));
    CHECK(eased("in_sine", 0.5) == Approx(1 - std::sqrt(0.5)));
    CHECK(eased("in_expo", 0.5) == Approx(std::pow(2.0, -5)));
    for (const std::string& name : easing_names()) {
        INFO(name);
        CHECK(eased(name.c_str(), 0) == 0);
        CHECK(eased(name.c_str(), 1) == 1);
        // None of them jumps.
        double before = 0;
        for (int i = 0; i <= 10000; ++i) {
            const double now = eased(name.c_str(), i / 10000.0);
            REQUIRE(std::fabs(now - before) < 0.02);
            before = now;
        }
    }
}

TEST_CASE("what isn't an easing is told, with the nearest name") {
    for (const char* wrong :
         {"", "bouncy", "steps()", "steps(0)", "steps(1, jump-none)", "steps(2, sideways)", "steps(99999999999)",
          "cubic-bezier(0, 0, 1)", "cubic-bezier(-1, 0, 1, 1)", "cubic-bezier(a, 0, 1, 1)", "linear()", "linear(1)",
          "linear(0, 1, x)", "linear(0 10% 20% 30%, 1)", "linear(0, 1 2, 1)", "steps(3", "in_out_", "linear(0,1)("}) {
        INFO(wrong);
        const Result<Easing> easing = easing_from(wrong);
        REQUIRE_FALSE(easing);
        CHECK(easing.fault().id == "drive.easing");
        CHECK_FALSE(easing.fault().mend.empty());
    }
    CHECK(easing_from("out_bunce").fault().mend == "did you mean out_bounce?");
    CHECK(eased("ease_out", std::nan("")) == 0);
}
