#include "core/droplets/droplets.h"

namespace lacquer {

namespace {

constexpr double long_time = 1e9;    // seconds
constexpr double far_away = 1000;    // shorter sides, or as many a second
constexpr double full_turns = 36e4;  // degrees

constexpr std::string_view birth = "birth";
constexpr std::string_view place = "place";
constexpr std::string_view motion = "motion";
constexpr std::string_view end = "end";
constexpr std::string_view look = "look";

using Id = DropNumberId;
using Reads = DropReads;

constexpr std::array<DropNumberSpec, drop_number_count> specs{{
    {Id::rate, "rate", birth, "how many are born a second", "/s", 10, 0, 1e9, 100, Reads::rate, false},
    {Id::delay, "delay", birth, "when the first may be born", "s", 0, 0, long_time, 10, Reads::steady, false},
    {Id::burst, "burst", birth, "how many a cue brings", "", 20, 0, 1e6, 200, Reads::at_birth, true},
    {Id::burst_time, "burst_time", birth, "over how long a burst comes", "s", 0, 0, 3600, 5, Reads::steady, false},
    {Id::count, "count", place, "how many a fixed field has", "", 40, 0, most_drops, 500, Reads::steady, false},
    {Id::apart, "apart", place, "least distance in a random field, in shorter sides", "", 0.05, 0, 1, 0.5,
     Reads::steady, false},
    {Id::life, "life", end, "how long a drop lives", "s", 2, 0, long_time, 20, Reads::at_birth, true},
    {Id::ending, "ending", end, "how long it takes to go, once it is ended", "s", 0.5, 0, long_time, 10,
     Reads::at_birth, true},
    {Id::reach, "reach", end, "how near a place ends it, in shorter sides", "", 0.15, 0, far_away, 1, Reads::at_birth,
     true},
    {Id::most, "most", birth, "how many may live at a time; the youngest do", "", most_drops, 0, most_drops, most_drops,
     Reads::steady, false},
    {Id::x, "x", place, "where they are born, share of the frame's width", "", 0.5, -far_away, far_away, 1,
     Reads::at_birth, true},
    {Id::y, "y", place, "where they are born, share of the frame's height", "", 0.5, -far_away, far_away, 1,
     Reads::at_birth, true},
    {Id::radius, "radius", place, "of the disc, or half the line, in shorter sides", "", 0.2, 0, far_away, 1,
     Reads::at_birth, false},
    {Id::angle, "angle", place, "of the line, clockwise", "°", 0, -full_turns, full_turns, 360, Reads::at_birth, false},
    {Id::speed, "speed", motion, "at birth, in shorter sides", "/s", 0, 0, far_away, 2, Reads::at_birth, true},
    {Id::direction, "direction", motion, "clockwise from the right", "°", 90, -full_turns, full_turns, 360,
     Reads::at_birth, true},
    {Id::fall, "fall", motion, "pull downwards, in shorter sides", "/s²", 0, -far_away, far_away, 4, Reads::at_birth,
     true},
    {Id::drag, "drag", motion, "share of its speed that the air takes", "/s", 0, 0, far_away, 10, Reads::steady, false},
    {Id::wind_x, "wind_x", motion, "wind to the right, in shorter sides; it takes hold by the drag", "/s", 0, -far_away,
     far_away, 2, Reads::rate, false},
    {Id::wind_y, "wind_y", motion, "wind downwards", "/s", 0, -far_away, far_away, 2, Reads::rate, false},
    {Id::gust, "gust", motion, "how far gusts blow it about, in shorter sides", "", 0, 0, far_away, 0.5,
     Reads::at_birth, true},
    {Id::gust_rate, "gust_rate", motion, "how often gusts change", "/s", 1, 0, 1000, 10, Reads::at_birth, true},
    {Id::spin, "spin", motion, "clockwise", "°/s", 0, -full_turns, full_turns, 720, Reads::at_birth, true},
    {Id::turn, "turn", motion, "how it is turned at birth", "°", 0, -full_turns, full_turns, 360, Reads::at_birth,
     true},
    {Id::floor, "floor", place, "the height at which it lands, share of the frame; above 1 there is none", "", 2, 0, 2,
     2, Reads::steady, false},
    {Id::bounce, "bounce", place, "share of its speed after landing, without drag; 0 stays where it lands", "", 0, 0,
     0.95, 0.95, Reads::steady, false},
    {Id::size, "size", look, "across, share of the shorter side", "", 0.03, 0, 100, 0.5, Reads::at_birth, true},
    {Id::largest, "largest", look, "no drop is larger, share of the shorter side", "", 1, 0, 4, 1, Reads::steady,
     false},
    {Id::stretch, "stretch", motion, "how much longer by its speed", "s", 0, 0, 100, 5, Reads::at_birth, true},
    {Id::opacity, "opacity", look, "at its most", "", 1, 0, 1, 1, Reads::at_birth, true},
}};

constexpr bool are_in_order() {
    for (std::size_t i = 0; i < specs.size(); ++i) {
        if (static_cast<std::size_t>(specs[i].id) != i) return false;
    }
    return true;
}
static_assert(are_in_order(), "a number is found by its id");

}  // namespace

std::span<const DropNumberSpec> drop_numbers() { return specs; }

const DropNumberSpec& spec_of(DropNumberId id) { return specs[static_cast<std::size_t>(id)]; }

std::array<DropNumber, drop_number_count> Droplets::usual_numbers() {
    std::array<DropNumber, drop_number_count> numbers;
    for (std::size_t i = 0; i < specs.size(); ++i) numbers[i] = {specs[i].usual, specs[i].usual, {}};
    return numbers;
}

}  // namespace lacquer
