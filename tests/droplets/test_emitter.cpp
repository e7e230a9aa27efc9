// Which drops live, and when.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "core/droplets/drop_field.h"
#include "core/droplets/emitter.h"

using namespace lacquer;
using Id = DropNumberId;

namespace {

Droplets drops_of(double rate, double life) {
    Droplets drops;
    drops.number(Id::rate) = {rate, rate, {}};
    drops.number(Id::life) = {life, life, {}};
    return drops;
}

void set(Droplets& drops, Id id, double from, double to) { drops.number(id) = {from, to, {}}; }
void set(Droplets& drops, Id id, double value) { set(drops, id, value, value); }

// Numbers that change at moments stand in for formulas over signals.
FormulaSource source(const std::string& key, std::vector<std::pair<double, double>> values) {
    FormulaSource formulas;
    for (const auto& [at, value] : values) formulas.moments.push_back(at);
    formulas.value = [key, values](const std::string& asked, double time) {
        double now = 0;
        for (const auto& [at, value] : values) now = time >= at && asked == key ? value : now;
        return now;
    };
    return formulas;
}

bool same(const Drop& a, const Drop& b) {
    return a.birth == b.birth && a.x == b.x && a.y == b.y && a.opacity == b.opacity && a.along == b.along &&
           a.turn == b.turn && a.share == b.share && a.seed == b.seed;
}

}  // namespace

// Births a second times how long they stay: common practice, no source (C8's check: 6 a second for 3 s are 18).
TEST_CASE("6 a second that live 3 s are 18, at every moment, and the first comes at its delay") {
    Droplets drops = drops_of(6, 3);
    const Emitter emitter(drops, {});
    for (int frame = 3 * 60; frame < 40 * 60; ++frame) REQUIRE(emitter.count(frame / 60.0, 160, 90) == 18);
    for (int tick = 0; tick < 1000; ++tick) REQUIRE(emitter.count(3 + tick / 144.0, 160, 90) == 18);
    CHECK(emitter.steady(10) == 18);
    CHECK(emitter.count(0, 160, 90) == 1);
    CHECK(emitter.count(0.5, 160, 90) == 4);
    set(drops, Id::delay, 2);
    const Emitter late(drops, {});
    CHECK(late.count(1.999, 160, 90) == 0);
    CHECK(late.count(2, 160, 90) == 1);
    CHECK(late.count(2.16, 160, 90) == 1);
    CHECK(late.count(2 + 1 / 6.0, 160, 90) == 2);
    drops = drops_of(6, 3);
    drops.settled = true;
    const Emitter settled(drops, {});
    for (const double time : {0.0, 0.1, 1.0, 7.7}) CHECK(settled.count(time, 160, 90) == 18);
}

TEST_CASE("none is born while the switch is off, and none that lives is cut short by it") {
    Droplets drops = drops_of(10, 2);
    drops.born_while = "rains";
    const DropPlay play{{}, source("born_while", {{0, 0}, {1, 1}, {3, 0}, {4, 1}, {4.25, 0}}), {}};
    FormulaSource formulas = play.formulas;
    formulas.value = [inner = play.formulas.value](const std::string& key, double time) {
        return key == "born_while" ? inner(key, time) : 10;
    };
    const Emitter emitter(drops, {{}, formulas, {}});
    CHECK(emitter.count(0.99, 160, 90) == 0);
    CHECK(emitter.count(1, 160, 90) == 1);
    CHECK(emitter.count(2.95, 160, 90) == 20);
    CHECK(emitter.count(3, 160, 90) == 19);
    // From 3 s on they only die, one each tenth of a second.
    CHECK(emitter.count(3.95, 160, 90) == 10);
    for (const double time : {3.0, 4.3, 5.0, 6.0}) {
        for (const Drop& drop : emitter.alive(time, 160, 90).drops) {
            const bool on = (drop.birth >= 1 && drop.birth < 3) || (drop.birth >= 4 && drop.birth < 4.25);
            CHECK(on);
        }
    }
    CHECK(emitter.count(6.5, 160, 90) == 0);
}

TEST_CASE("a rate that follows a signal brings as many as its integral says") {
    Droplets drops = drops_of(0, 1000);
    drops.number(Id::rate).formula = "wet * 20";
    const Emitter emitter(drops, {{}, source("rate", {{0, 4}, {2, 20}, {3, 0}, {5, 1}}), {}});
    // 8 by 2 s, 28 by 3 s, no more until 5 s.
    CHECK(emitter.count(1.9, 160, 90) == 8);
    CHECK(emitter.count(3, 160, 90) == 28);
    CHECK(emitter.count(4.99, 160, 90) == 28);
    CHECK(emitter.count(5, 160, 90) == 29);
    CHECK(emitter.count(8.5, 160, 90) == 32);
}

TEST_CASE("a cue brings a burst by its strength, at its place, in its direction") {
    Droplets drops = drops_of(0, 2);
    drops.cue = "hit";
    drops.at_cue = true;
    drops.place = DropPlace::point;
    set(drops, Id::burst, 40);
    set(drops, Id::speed, 0.5);
    set(drops, Id::direction, 0);
    Tape tape;
    tape.cues = {{"hit", 1, 0.5, 90, 0.25, 0.75, 0}, {"other", 1.2, 1, 0, 0.5, 0.5, 0}, {"hit", 2, 1, 0, 0.5, 0.5, 0}};
    const Emitter emitter(drops, {tape, {}, {}});
    CHECK(emitter.count(0.99, 160, 90) == 0);
    CHECK(emitter.count(1, 160, 90) == 20);
    CHECK(emitter.count(2.5, 160, 90) == 60);
    CHECK(emitter.count(3.5, 160, 90) == 40);
    const LiveDrops live = emitter.alive(1.5, 200, 100);
    // Half a second at half a shorter side a second, downwards: a quarter of 100 pixels.
    CHECK(live.drops[0].x == Approx(50));
    CHECK(live.drops[0].y == Approx(75 + 25));
    Droplets spread = drops;
    set(spread, Id::burst_time, 1);
    const Emitter over(spread, {tape, {}, {}});
    CHECK(over.count(1.5, 160, 90) == 11);
    // Unless they are to be alike, bursts differ.
    set(drops, Id::size, 0.01, 0.05);
    const auto sizes = [&](bool fresh) {
        drops.new_each_cue = fresh;
        const Emitter each(drops, {tape, {}, {}});
        const LiveDrops both = each.alive(2, 160, 90);
        std::set<double> seen;
        for (const Drop& drop : both.drops) seen.insert(drop.along);
        return seen.size();
    };
    CHECK(sizes(true) == 60);
    CHECK(sizes(false) == 40);
}

TEST_CASE("the same moment asked for in any order has the same drops to the last bit") {
    Droplets drops = drops_of(30, 2);
    set(drops, Id::life, 0.5, 3);
    set(drops, Id::speed, 0, 1);
    set(drops, Id::fall, 0.5);
    set(drops, Id::gust, 0.1);
    set(drops, Id::drag, 1);
    drops.settled = true;
    const Emitter emitter(drops, {});
    std::vector<LiveDrops> forwards;
    for (int i = 0; i < 50; ++i) forwards.push_back(emitter.alive(i * 0.13, 320, 180));
    for (int i = 49; i >= 0; --i) {
        const Emitter fresh(drops, {});
        const LiveDrops again = fresh.alive(i * 0.13, 320, 180);
        const auto& before = forwards[static_cast<std::size_t>(i)].drops;
        REQUIRE(again.drops.size() == before.size());
        for (std::size_t k = 0; k < before.size(); ++k) REQUIRE(same(again.drops[k], before[k]));
        REQUIRE(std::is_sorted(before.begin(), before.end(),
                               [](const Drop& a, const Drop& b) { return a.birth < b.birth; }));
    }
}

TEST_CASE("a drop is found again at any time of its life, and at no other") {
    Tape tape;
    tape.cues = {{"hit", 1.25, 0.5}, {"hit", 1.5, 1}};
    Droplets drops = drops_of(8, 1);
    drops.cue = "hit";
    drops.field = DropField::random;
    set(drops, Id::count, 10);
    set(drops, Id::speed, 0.1, 0.4);
    set(drops, Id::life, 0.5, 1.5);
    const Emitter emitter(drops, {tape, {}, {}});
    const LiveDrops now = emitter.alive(2, 200, 100);
    const LiveDrops later = emitter.alive(2.3, 200, 100);
    std::size_t left = 0;
    for (const Drop& drop : now.drops) {
        const auto again = emitter.at(drop, 2, 200, 100);
        REQUIRE(again);
        REQUIRE(same(*again, drop));
        CHECK_FALSE(emitter.at(drop, drop.birth - 0.01, 200, 100));
        const auto then = emitter.at(drop, 2.3, 200, 100);
        if (!then) continue;
        ++left;
        CHECK(std::any_of(later.drops.begin(), later.drops.end(), [&](const Drop& each) { return same(each, *then); }));
    }
    CHECK(left > 20);
    CHECK(left < now.drops.size());
    // Drops of another emitter.
    const Emitter other(drops_of(1, 1), {});
    for (const Drop& drop : now.drops) {
        if (drop.burst >= 0 || drop.birth == 0) CHECK_FALSE(other.at(drop, drop.birth, 200, 100).has_value());
    }
}

TEST_CASE("a count that is worked out from indices is that of the drops that live") {
    for (const double rate : {0.37, 6.0, 90.0, 1e5}) {
        for (const double life : {0.01, 1.0, 3.3}) {
            Droplets plain = drops_of(rate, life);
            Droplets counted = plain;
            // An end that never comes makes it count one by one.
            counted.ends_at = "never";
            Tape tape;
            tape.cues = {{"never", 1e6}};
            const Emitter by_index(plain, {});
            const Emitter by_drops(counted, {tape, {}, {}});
            for (const double time : {-1.0, 0.0, 0.005, 0.5, 1.0, 3.3, 10.0, 10.0 + 1 / 6.0})
                REQUIRE(by_index.count(time, 160, 90) == by_drops.count(time, 160, 90));
        }
    }
}

TEST_CASE("a patch goes by its own clock, from when the place came near, and no other is touched by it") {
    Droplets drops = drops_of(0, 1);
    drops.field = DropField::grid;
    drops.ends_near = "keeper";
    set(drops, Id::count, 8);
    set(drops, Id::reach, 0.12);
    set(drops, Id::ending, 2);
    // Along the upper row of 4 x 2, a place a second; it stands still in between.
    DropPlay play;
    play.path = {{0, 0.5, 2}, {1, 0.125, 0.25}, {2, 0.375, 0.25}, {3, 0.875, 0.25}};
    const Emitter emitter(drops, play);
    const auto opacities = [&](double time) {
        std::vector<double> all;
        for (const Drop& drop : emitter.alive(time, 200, 100).drops) all.push_back(drop.opacity);
        return all;
    };
    CHECK(opacities(0.9) == std::vector<double>(8, 1));
    CHECK(opacities(2) == std::vector<double>{0.5, 1, 1, 1, 1, 1, 1, 1});
    // At 3 s it has passed over the third on its way to the fourth.
    CHECK(opacities(3) == std::vector<double>{0.5, 1, 1, 1, 1, 1, 1});
    CHECK(opacities(4) == std::vector<double>{0.5, 0.5, 1, 1, 1, 1});
    CHECK(emitter.count(5, 200, 100) == 4);
    CHECK(emitter.count(1000, 200, 100) == 4);
}

TEST_CASE("a place that comes near ends drops that move, too, and a cue ends all that live") {
    Droplets drops = drops_of(1, 20);
    drops.place = DropPlace::point;
    set(drops, Id::x, 0);
    set(drops, Id::y, 0.5);
    set(drops, Id::speed, 0.5);
    set(drops, Id::direction, 0);
    set(drops, Id::reach, 0.1);
    set(drops, Id::ending, 0);
    drops.ends_near = "keeper";
    DropPlay play;
    play.path = {{0, 0.5, 0.5}};
    // One shorter side away, less the reach: 1.8 s.
    const Emitter stands(drops, play);
    CHECK(stands.count(1.75, 200, 100) == 2);
    CHECK(stands.count(1.85, 200, 100) == 1);
    for (const double time : {5.05, 9.5, 50.5}) CHECK(stands.count(time, 200, 100) == 2);
    drops.ends_near.clear();
    drops.ends_at = "stop";
    set(drops, Id::ending, 0.5);
    play.path.clear();
    play.tape.cues = {{"stop", 4.5}};
    const Emitter ended(drops, play);
    CHECK(ended.count(4.4, 200, 100) == 5);
    CHECK(ended.alive(4.75, 200, 100).drops[0].opacity == Approx(0.5));
    CHECK(ended.count(5.5, 200, 100) == 1);
}

TEST_CASE("random fields keep their distance, and all fields have their number") {
    for (const double aspect : {0.5, 1.0, 16 / 9.0}) {
        const std::vector<Vector2> places = drop_field(DropField::random, 60, 0.08, aspect, 3);
        CHECK(places.size() > 40);
        const double wide = std::max(aspect, 1.0);
        const double high = std::max(1 / aspect, 1.0);
        for (std::size_t i = 0; i < places.size(); ++i) {
            for (std::size_t k = 0; k < i; ++k)
                REQUIRE(std::hypot((places[i].x - places[k].x) * wide, (places[i].y - places[k].y) * high) >= 0.08);
        }
    }
    CHECK(drop_field(DropField::grid, 12, 0, 4 / 3.0, 1).size() == 12);
    CHECK(drop_field(DropField::jittered, 1, 0, 1, 1).size() == 1);
    CHECK(drop_field(DropField::random, most_drops, 0, 1, 1).size() == most_drops);
    CHECK(drop_field(DropField::none, 12, 0, 1, 1).empty());
    CHECK(drop_field(DropField::grid, 0, 0, 1, 1).empty());
}

// Thrown up at 1 side a second under a fall of 1, v t - g t^2 / 2 = h first at t = (v - sqrt(v^2 - 2 g h)) / g; without
// the border the drop would come down into the frame again.
TEST_CASE("a drop that sticks stays where it first came to the border, whatever moment is asked for") {
    Droplets drops = drops_of(0, 10);
    drops.field = DropField::grid;
    drops.leaves = DropLeaves::sticks;
    set(drops, Id::count, 1);
    set(drops, Id::life, 10);
    set(drops, Id::speed, 1.2);
    set(drops, Id::direction, 270);
    set(drops, Id::fall, 1);
    const Emitter emitter(drops, {});
    const double reaches = 1.2 - std::sqrt(1.44 - 1);
    const auto at = [&](double time) { return emitter.alive(time, 100, 100).drops.at(0); };
    CHECK(at(reaches - 0.005).y > 0);
    CHECK(at(reaches - 0.005).y == Approx(50 - 100 * (1.2 * (reaches - 0.005) - std::pow(reaches - 0.005, 2) / 2)));
    for (const double time : {reaches + 0.001, reaches + 0.02, 1.0, 2.5, 9.0, 0.8}) {
        INFO(time);
        CHECK(std::fabs(at(time).y) < 1e-6);
        CHECK(at(time).x == Approx(50));
        CHECK(at(time).velocity == Vector2{});
    }
}

TEST_CASE("what leaves the frame comes in again, sticks, or is gone; what falls lands on the floor") {
    Droplets drops = drops_of(50, 10);
    set(drops, Id::speed, 1);
    set(drops, Id::direction, 0, 360);
    const auto inside = [&](DropLeaves leaves) {
        drops.leaves = leaves;
        const Emitter emitter(drops, {});
        int count = 0;
        for (const Drop& drop : emitter.alive(9, 200, 100).drops)
            count += drop.x >= -drop.along && drop.x <= 200 + drop.along && drop.y >= -drop.along &&
                             drop.y <= 100 + drop.along
                         ? 1
                         : 0;
        return count;
    };
    CHECK(inside(DropLeaves::wraps) == 451);
    CHECK(inside(DropLeaves::sticks) == 451);
    CHECK(inside(DropLeaves::goes) < 150);
    Droplets falls = drops_of(5, 20);
    set(falls, Id::fall, 1);
    set(falls, Id::floor, 0.9);
    set(falls, Id::drag, 0.5);
    const Emitter emitter(falls, {});
    for (const Drop& drop : emitter.alive(19, 200, 100).drops) {
        // Those born below it fall on.
        if (drop.age > 3 && drop.y < 100) {
            CHECK(drop.y == Approx(90));
            CHECK(drop.velocity == Vector2{});
        }
    }
}

TEST_CASE("whatever is asked for, no more than the most live, and that is told at once") {
    for (const auto& [rate, life] : {std::pair{1e9, 1e9}, {1e9, 1.0}, {1e-9, 1e9}, {0.0, 0.0}, {70'000.0, 1.0}}) {
        Droplets drops = drops_of(rate, life);
        for (const bool settled : {false, true}) {
            drops.settled = settled;
            const Emitter emitter(drops, {});
            for (const double time : {0.0, 1.0, 1e6}) {
                const LiveDrops live = emitter.alive(time, 160, 90);
                CHECK(live.drops.size() <= most_drops);
                if (time == 1e6 && rate * life > most_drops) {
                    CHECK(live.capped);
                    CHECK(live.drops.size() == most_drops);
                }
            }
        }
    }
    Droplets drops = drops_of(0, 1e9);
    drops.cue = "hit";
    set(drops, Id::burst, 1e6);
    Tape tape;
    for (std::size_t i = 0; i < max_tape_events; ++i) tape.cues.push_back({"hit", static_cast<double>(i) * 1e-3});
    const Emitter many(drops, {tape, {}, {}});
    CHECK(many.alive(100, 160, 90).capped);
    CHECK(many.count(100, 160, 90) == most_drops);
    set(drops, Id::burst, 1);
    set(drops, Id::most, 25);
    const Emitter few(drops, {tape, {}, {}});
    const LiveDrops live = few.alive(100, 160, 90);
    CHECK(live.drops.size() == 25);
    // The youngest.
    CHECK(live.drops.back().birth == Approx(100));
}

TEST_CASE("curves and colours go by the share of life") {
    Droplets drops = drops_of(1, 2);
    drops.place = DropPlace::point;
    set(drops, Id::size, 0.1);
    DropCurves curves;
    curves.size = {0, 1, 0};
    curves.opacity = {1, 0.5};
    curves.tint = {{1, 0, 0, 1}, {0, 0, 1, 0.5F}};
    const Emitter emitter(drops, {}, curves);
    const LiveDrops live = emitter.alive(1.5, 200, 100);
    REQUIRE(live.drops.size() == 2);
    // 0.75 and 0.25 of their lives.
    CHECK(live.drops[0].share == Approx(0.75));
    CHECK(live.drops[0].along == Approx(0.5 * 5));
    CHECK(live.drops[1].opacity == Approx(1 - 0.5 * 0.25));
    CHECK(live.drops[0].tint == std::array<float, 3>{0, 0, 1});
}
