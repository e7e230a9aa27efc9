#include <catch2/catch.hpp>

#include "core/finish/stops_text.h"

using namespace lacquer;

TEST_CASE("stops are written as they are read") {
    const std::string dusk = "0 #101820 opacity 0, 0.5 #FFCC88 x 2, 1 #FFFFFF";
    const auto gradient = parse_stops(GroundKind::gradient, dusk);
    REQUIRE(gradient);
    REQUIRE(gradient->size() == 3);
    CHECK((*gradient)[0].value[3] == 0);
    CHECK((*gradient)[1].at == 0.5);
    CHECK((*gradient)[1].value[0] == Approx(2));
    CHECK((*gradient)[2].value[3] == 1);
    CHECK(stops_text(GroundKind::gradient, *gradient) == dusk);
    const auto curve = parse_stops(GroundKind::curve, " 0 -1.5 ,0.25   1, 1 0");
    REQUIRE(curve);
    CHECK(stops_text(GroundKind::curve, *curve) == "0 -1.5, 0.25 1, 1 0");
}

TEST_CASE("what is no stop is said in its own words") {
    for (const char* text : {"", "0", "0 red", "x #FFFFFF", "0 #FFFFFF opacity", "0 #FFFFFF opacity much", "0 #FFF,",
                             "0 #FFFFFF,", ",", "0 1 2 3 4"}) {
        INFO(text);
        const auto stops = parse_stops(GroundKind::gradient, text);
        REQUIRE_FALSE(stops);
        CHECK(stops.fault().id == "finish.stops");
        CHECK(stops.fault().mend.find("#FFCC88") != std::string::npos);
    }
    CHECK(parse_stops(GroundKind::curve, "0 #FFFFFF").fault().mend.find("0.5 1") != std::string::npos);
}
