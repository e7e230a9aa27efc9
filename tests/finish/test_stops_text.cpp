#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "core/finish/stop_presets.h"
#include "core/finish/stops_table.h"
#include "core/finish/stops_text.h"
#include "tests/support/finishes.h"

using namespace lacquer;

TEST_CASE("stops are written as they are read") {
    const std::string dusk = "0 #101820 opacity 0, 0.5 #FFCC88 x 2, 1 #FFFFFF";
    const auto gradient = parse_stops(StopValues::colours, dusk);
    REQUIRE(gradient);
    REQUIRE(gradient->size() == 3);
    CHECK((*gradient)[0].value[3] == 0);
    CHECK((*gradient)[1].at == 0.5);
    CHECK((*gradient)[1].value[0] == Approx(2));
    CHECK((*gradient)[2].value[3] == 1);
    CHECK(stops_text(StopValues::colours, *gradient) == dusk);
    const auto curve = parse_stops(StopValues::heights, " 0 -1.5 ,0.25   1, 1 0");
    REQUIRE(curve);
    CHECK(stops_text(StopValues::heights, *curve) == "0 -1.5, 0.25 1, 1 0");
}

TEST_CASE("what isn't a stop is said in its own words") {
    for (const char* text : {"", "0", "0 red", "x #FFFFFF", "0 #FFFFFF opacity", "0 #FFFFFF opacity much", "0 #FFF,",
                             "0 #FFFFFF,", ",", "0 1 2 3 4"}) {
        INFO(text);
        const auto stops = parse_stops(StopValues::colours, text);
        REQUIRE_FALSE(stops);
        CHECK(stops.fault().id == "finish.stops");
        CHECK(stops.fault().mend.find("#FFCC88") != std::string::npos);
    }
    CHECK(parse_stops(StopValues::heights, "0 #FFFFFF").fault().mend.find("0.5 1") != std::string::npos);
}

TEST_CASE("a stop may end with an easing, and a table follows it") {
    const std::string text = "0 0 ease_in, 0.5 1 stay, 1 0";
    const auto stops = parse_stops(StopValues::heights, text);
    REQUIRE(stops);
    CHECK((*stops)[0].easing == "ease_in");
    CHECK(stops_text(StopValues::heights, *stops) == text);
    const Picture table = stops_table({*stops});
    const auto at = [&](double t) { return table_value(table, t)[0]; };
    // cubic-bezier(0.42, 0, 1, 1) is 0.31535 half-way (W3C CSS Easing Functions Level 1).
    CHECK(at(0.25) == Approx(0.31535).margin(0.003));
    CHECK(at(0.75) == 1);
    CHECK(at(1) == 0);
    const auto colours = parse_stops(StopValues::colours, "0 #112233 opacity 0.5 ease_out, 1 #FFFFFF");
    REQUIRE(colours);
    CHECK((*colours)[0].easing == "ease_out");
    CHECK((*colours)[0].value[3] == 0.5);
    CHECK_FALSE(parse_stops(StopValues::heights, "0 0 wobble, 1 1"));
    CHECK_FALSE(parse_stops(StopValues::heights, "0 ease_in, 1 1"));
}

TEST_CASE("ready gradients and curves have names of their own, rise from 0 to 1, and can be written and read") {
    for (const StopValues kind : {StopValues::colours, StopValues::heights}) {
        std::set<std::string_view> names;
        for (const StopPreset& preset : stop_presets(kind)) {
            INFO(preset.name);
            CHECK(names.insert(preset.name).second);
            CHECK(preset.stops.list.front().at == 0);
            CHECK(preset.stops.list.back().at <= 1);
            CHECK(std::is_sorted(preset.stops.list.begin(), preset.stops.list.end(),
                                 [](const Stop& a, const Stop& b) { return a.at < b.at; }));
            const auto read = parse_stops(kind, stops_text(kind, preset.stops.list));
            REQUIRE(read);
            CHECK(read->size() == preset.stops.list.size());
            CHECK(find_stop_preset(kind, preset.name) == &preset);
        }
        CHECK(names.size() >= 8);
    }
    CHECK(find_stop_preset(StopValues::heights, "none such") == nullptr);
}
