// Source: W3C CSS Easing Functions Level 1; its curves evaluated in double precision, from memory.
#include <catch2/catch.hpp>

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
