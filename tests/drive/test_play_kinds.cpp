// The kinds of response that answer signals, and those that shake, against values worked out by hand.
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/drive/response.h"

using namespace lacquer;

namespace {

Answer at(const Response& response, double time, const Cues& cues = {}) {
    return make_answerer(response, {cues, {}})(time);
}

// An argument that is one number until `moment` and another from then on.
FormulaSource stepping(double before, double moment, double after) {
    FormulaSource source;
    source.moments = {moment};
    source.value = [=](const std::string&, double time) { return time < moment ? before : after; };
    return source;
}

}  // namespace

TEST_CASE("a chase has 1 - exp(-2) of its way behind it after 1 s at 2 a second") {
    // Common practice, no source: 0.864664717.
    const Response chase{"hurt", "chase", "", {{"signal", std::string("x")}, {"rate", 2.0}}};
    const Answerer answer = make_answerer(chase, {}, stepping(0, 1, 1));
    CHECK(answer(1).value[0] == 0);
    CHECK(answer(2).value[0] == Approx(0.864664717).epsilon(1e-9));
    CHECK(answer(100).value[0] == Approx(1));
    // From the start it stands where the signal is.
    CHECK(make_answerer(chase, {}, stepping(0.3, 1, 1))(0).value[0] == 0.3);
}

TEST_CASE("a chase that goes evenly takes as long as its way is long") {
    const Response chase{
        "hurt",
        "chase",
        "",
        {{"signal", std::string("x")}, {"rate", 0.5}, {"way", std::string("linear")}, {"in_high", 100.0}}};
    const Answerer answer = make_answerer(chase, {}, stepping(0, 1, 50));
    CHECK(answer(1.5).value[0] == Approx(0.25));
    CHECK(answer(2).value[0] == Approx(0.5));
    CHECK(answer(9).value[0] == 0.5);
    // Beyond the range of the signal is the end of the range.
    CHECK(make_answerer(chase, {}, stepping(-40, 1, 900))(9).value[0] == 1);
    CHECK(make_answerer(chase, {}, stepping(-40, 1, 900))(0).value[0] == 0);
}

TEST_CASE("v units a second for t seconds is v times t") {
    const Response drift{"front", "drift", "", {{"speed", 2.5}, {"start", 1.0}}};
    CHECK(at(drift, 4).value[0] == Approx(11));
    const Answerer changing =
        make_answerer({"front", "drift", "", {{"speed", std::string("v")}}}, {}, stepping(2, 3, -1));
    CHECK(changing(3).value[0] == Approx(6));
    CHECK(changing(5).value[0] == Approx(4));
}

TEST_CASE("a drift wraps, stops, and starts over at a cue") {
    Response drift{"way", "drift", "", {{"speed", 1.0}, {"start", 0.5}, {"beyond", std::string("wrap")}}};
    CHECK(at(drift, 0.75).value[0] == Approx(0.25));
    CHECK(at(drift, 100.25).value[0] == Approx(0.75));
    drift.settings["beyond"] = std::string("stop");
    CHECK(at(drift, 0.75).value[0] == 1);
    const Answerer back =
        make_answerer({"way", "drift", "", {{"speed", std::string("v")}, {"beyond", std::string("stop")}}}, {},
                      stepping(1, 5, -0.25));
    CHECK(back(5).value[0] == 1);
    CHECK(back(6).value[0] == Approx(0.75));
    CHECK(back(60).value[0] == 0);
    drift.cue = "launch";
    CHECK(at(drift, 2, {{"launch", 1.8}}).value[0] == Approx(0.7));
    CHECK(at(drift, 1, {{"launch", 1.8}}).value[0] == 0.5);
}

TEST_CASE("straight decay of a jolt is max(0, reach - decay t)") {
    // Common practice, no source.
    const Response jolt{"shake", "jolt", "hit", {{"reach", 10.0}, {"decay", 20.0}, {"seconds", 5.0}}};
    const Cues hit = {{"hit", 1.0, 1.0}};
    for (const double t : {0.0, 0.1, 0.3, 0.49}) {
        CHECK(at(jolt, 1 + t, hit).presence == Approx(std::max(0.0, 10 - 20 * t) / 10));
    }
    CHECK(at(jolt, 1.5, hit).presence == 0);
    CHECK(at(jolt, 1.5, hit).value == std::array<double, 2>{0, 0});
    // Half as strong, half as far, and so half as long.
    CHECK(at(jolt, 1.1, {{"hit", 1.0, 0.5}}).presence == Approx((5 - 2) / 5.0));
    CHECK(at(jolt, 1.26, {{"hit", 1.0, 0.5}}).presence == 0);
}

TEST_CASE("a jolt stays within its reach, begins and ends at rest, and never snaps") {
    for (const char* form : {"linear", "exponential"}) {
        for (const char* way : {"all_round", "along_the_blow"}) {
            INFO(form << ", " << way);
            const Response jolt{"shake",
                                "jolt",
                                "hit",
                                {{"reach", 8.0},
                                 {"decay", 3.0},
                                 {"seconds", 1.0},
                                 {"turn", 5.0},
                                 {"zoom", 0.1},
                                 {"decay_form", std::string(form)},
                                 {"way", std::string(way)}}};
            const Cues cues = {{"hit", 0.5, 1.0, 30}, {"hit", 0.8, 0.7, 200}};
            const Answerer answer = make_answerer(jolt, {cues, {}});
            Answer before = answer(0);
            CHECK(before.value == std::array<double, 2>{0, 0});
            double furthest = 0;
            for (int i = 1; i <= 25000; ++i) {
                const Answer now = answer(i * 1e-4);
                for (const std::size_t k : {std::size_t{0}, std::size_t{1}}) {
                    REQUIRE(std::fabs(now.value[k] - before.value[k]) < 0.1);
                    // What is left of the first is handed over, so both together may reach a little further.
                    REQUIRE(std::fabs(now.value[k]) <= 16);
                    furthest = std::max(furthest, std::fabs(now.value[k]));
                }
                REQUIRE(std::fabs(now.turn - before.turn) < 0.1);
                REQUIRE(std::fabs(now.zoom) <= 0.2);
                before = now;
            }
            CHECK(furthest > 1);
            CHECK(answer(1.8).value == std::array<double, 2>{0, 0});
            CHECK(answer(1.8).turn == 0);
            CHECK(answer(1.8).zoom == 0);
        }
    }
}

TEST_CASE("a jolt along the blow goes its way first, and only along it") {
    for (const double seed : {1.0, 2.0, 3.0, 4.0, 5.0, 6.0}) {
        const Response jolt{
            "shake", "jolt", "hit", {{"reach", 10.0}, {"seed", seed}, {"way", std::string("along_the_blow")}}};
        const Answerer answer = make_answerer(jolt, {{{"hit", 0, 1.0, 90}}, {}});
        CHECK(answer(0.02).value[1] > 0);  // 90 degrees clockwise from the right is down
        for (int i = 0; i < 60; ++i) CHECK(std::fabs(answer(i * 0.01).value[0]) < 1e-9);
    }
}

TEST_CASE("axes of a jolt are unrelated, and each blow shakes in its own way unless told") {
    Response jolt{"shake", "jolt", "hit", {{"reach", 1.0}, {"decay", 0.0}, {"seconds", 200.0}, {"rate", 9.0}}};
    const Answerer answer = make_answerer(jolt, {{{"hit", 0}}, {}});
    double xy = 0, xx = 0, yy = 0;
    for (int i = 0; i < 20000; ++i) {
        const auto [x, y] = answer(i * 0.007).value;
        xy += x * y;
        xx += x * x;
        yy += y * y;
    }
    // 1260 independent swings: a correlation beyond 0.1 has a chance of one in thousands.
    CHECK(std::fabs(xy / std::sqrt(xx * yy)) < 0.1);
    const Cues two = {{"hit", 0}, {"hit", 300}};
    const auto differs = [&] {
        const Answerer both = make_answerer(jolt, {two, {}});
        return std::fabs(both(0.3).value[0] - both(300.3).value[0]) > 1e-3;
    };
    CHECK(differs());
    jolt.settings["each_time"] = std::string("same");
    CHECK_FALSE(differs());
    // The seed that is held gives another path for another number.
    const double one = make_answerer(jolt, {two, {}})(0.3).value[0];
    jolt.settings["seed"] = 2.0;
    CHECK(std::fabs(make_answerer(jolt, {two, {}})(0.3).value[0] - one) > 1e-3);
}

TEST_CASE("a run of a clock lasts 1 / speed seconds") {
    // Common practice, no source.
    FormulaSource formulas;
    formulas.value = [](const std::string&, double) { return 1 / 0.4; };
    const Response clock{"ring", "clock", "touch", {{"seconds", std::string("1 / speed")}}};
    const Answerer answer = make_answerer(clock, {{{"touch", 1.0, 1.0, 0, 0.25, 0.75, 7}}, {}}, formulas);
    CHECK(answer(0.9).presence == 0);
    CHECK(answer(0.9).cue.strength == 0);
    CHECK(answer(2).value[0] == Approx(0.4));
    CHECK(answer(3.499).presence == 1);
    CHECK(answer(3.5).presence == 0);
    CHECK(answer(3.5).value[0] == 1);
    CHECK(answer(2).cue.x == 0.25);
    CHECK(answer(2).cue.object == 7);
    Response seconds = clock;
    seconds.settings = {{"counts", std::string("seconds")}};
    CHECK(at(seconds, 3.25, {{"touch", 1.0}}).value[0] == Approx(2.25));
    seconds.settings = {{"repeat", std::string("again")}, {"seconds", 0.5}};
    CHECK(at(seconds, 1.7, {{"touch", 1.0}}).value[0] == Approx(0.4));
    CHECK(at(seconds, 1.7, {{"touch", 1.0}}).presence == 1);
}

TEST_CASE("a gate opens between two cues, by one that does both, and while something holds") {
    Response gate{"rain",
                  "gate",
                  "in",
                  {{"until", std::string("out")},
                   {"ease_in", 1.0},
                   {"ease_out", 1.0},
                   {"easing", std::string("linear")},
                   {"on", 3.0},
                   {"off", 1.0}}};
    const Cues cues = {{"in", 1.0}, {"out", 1.5}, {"in", 5.0}};
    CHECK(at(gate, 0.5, cues).value[0] == 1);
    CHECK(at(gate, 1.5, cues).value[0] == Approx(2));
    CHECK(at(gate, 2.0, cues).value[0] == Approx(1.5));  // from half open, half a second on the way
    CHECK(at(gate, 4.0, cues).value[0] == 1);
    CHECK(at(gate, 9.0, cues).value[0] == 3);
    gate.settings["until"] = std::string("in");
    CHECK(at(gate, 4.9, cues).value[0] == 3);
    CHECK(at(gate, 6.1, cues).value[0] == 1);
    Response zone{"zone", "gate", "", {{"when", std::string("inside")}, {"ease_in", 0.0}, {"ease_out", 0.0}}};
    const Answerer answer = make_answerer(zone, {}, stepping(1, 2, 0));
    CHECK(answer(0).value[0] == 1);  // it is open from the start, without easing in
    CHECK(answer(1.99).value[0] == 1);
    CHECK(answer(2).value[0] == 0);
}

TEST_CASE("a path goes through its keys, as steeply as they say") {
    PathKeys keys = {{0, 0, {}, {}}, {1, 2, {}, {}}, {3, 3, {}, {}}};
    // Fritsch and Butland 1984 at the middle key: slopes 2 and 0.5, weights 2*2+1 and 2+2*1 -> 9 / (5/2 + 4/0.5).
    CHECK(path_slope(keys, 1, true) == Approx(9 / (2.5 + 8)));
    CHECK(path_slope(keys, 0, true) == 0);
    for (const PathKey& key : keys) CHECK(path_value(keys, key.at) == key.value);
    CHECK(path_value(keys, -1) == 0);
    CHECK(path_value(keys, 9) == 3);
    // Rising keys give a rising path: it never swings beyond them.
    double before = 0;
    for (int i = 0; i <= 3000; ++i) {
        const double now = path_value(keys, i * 0.001);
        REQUIRE(now >= before);
        before = now;
    }
    keys[1].before = keys[1].after = {SlopeKind::level, 0};
    CHECK((path_value(keys, 1.001) - path_value(keys, 0.999)) / 0.002 == Approx(0).margin(1e-2));
    keys[1].after = {SlopeKind::by_hand, -4};
    CHECK((path_value(keys, 1.0001) - 2) / 0.0001 == Approx(-4).epsilon(1e-2));
    CHECK((2 - path_value(keys, 0.9999)) / 0.0001 == Approx(0).margin(1e-2));
    keys[1].after = {SlopeKind::straight, 0};
    keys[2].before = {SlopeKind::straight, 0};
    CHECK(path_value(keys, 2) == Approx(2.5));
    CHECK(path_value(keys, 1.5) == Approx(2.25));
    keys[0].after = {SlopeKind::stay, 0};
    CHECK(path_value(keys, 0.99) == 0);
    CHECK(path_value(keys, 1) == 2);
}

TEST_CASE("a path repeats, turns back, takes over, and bears any keys") {
    const PathKeys keys = {{0, 0, {SlopeKind::straight, 0}, {SlopeKind::straight, 0}},
                           {1, 1, {SlopeKind::straight, 0}, {SlopeKind::straight, 0}}};
    Response path{"p", "path", "", {{"keys", keys}, {"repeat", 2.0}}};
    CHECK(at(path, 1.25).value[0] == Approx(0.25));
    CHECK(at(path, 2.5).value[0] == 1);
    path.settings["turn_back"] = std::string("yes");
    CHECK(at(path, 1.25).value[0] == Approx(0.75));
    CHECK(at(path, 9).value[0] == 0);
    path.settings["repeat"] = 0.0;
    CHECK(at(path, 101.25).value[0] == Approx(0.75));
    path = {"p", "path", "go", {{"keys", keys}}};
    const Cues cues = {{"go", 0}, {"go", 0.6}};
    CHECK(at(path, 0.6, cues).value[0] == Approx(0.6));
    double before = 0;
    for (int i = 0; i <= 2000; ++i) {
        const double now = at(path, i * 0.001, cues).value[0];
        REQUIRE(std::fabs(now - before) < 0.003);
        before = now;
    }
    CHECK(at(path, 1.6, cues).value[0] == 1);
    for (const PathKeys& odd : {PathKeys{}, PathKeys{{0, 5, {}, {}}}, PathKeys{{1, 1, {}, {}}, {1, 2, {}, {}}},
                                PathKeys{{0, 1, {}, {}}, {0, 2, {}, {}}}}) {
        path.settings["keys"] = odd;
        for (const double time : {-1.0, 0.0, 0.5, 1.0, 2.0}) CHECK(std::isfinite(at(path, time, cues).value[0]));
    }
}

TEST_CASE("a sweep takes over from where it is, and jumps if it is to start again") {
    Response sweep{"fade", "sweep", "go", {{"seconds", 1.0}}};
    const Cues cues = {{"go", 0}, {"go", 0.5}};
    CHECK(at(sweep, 0.5, cues).value[0] == Approx(0.5));
    CHECK(at(sweep, 1.0, cues).value[0] == Approx(0.75));
    CHECK(at(sweep, 1.5, cues).value[0] == 1);
    sweep.settings["when_again"] = std::string("start_again");
    CHECK(at(sweep, 0.5, cues).value[0] == 0);
    CHECK(at(sweep, 1.0, cues).value[0] == Approx(0.5));
}

TEST_CASE("a wave whose rate changes does not jump") {
    const Response wave{"gusts", "wave", "", {{"rate", std::string("wind")}}};
    const Answerer answer = make_answerer(wave, {}, stepping(1, 0.37, 7));
    CHECK(std::fabs(answer(0.3701).value[0] - answer(0.3699).value[0]) < 0.01);
    // A rate of 0 stands still wherever it is.
    const Answerer still = make_answerer(wave, {}, stepping(1, 0.37, 0));
    CHECK(still(5).value[0] == still(0.37).value[0]);
}

TEST_CASE("the same values for any order of asking") {
    std::mt19937 random(3);
    std::uniform_real_distribution<double> any(0, 4);
    Cues cues;
    for (int i = 0; i < 30; ++i) cues.push_back({i % 3 == 0 ? "other" : "hit", any(random), any(random) / 4, 40});
    sort_cues(cues);
    for (const ResponseKind& kind : response_kinds()) {
        INFO(kind.name);
        const Response response{"r", std::string(kind.name), "hit", {}};
        const Answerer forward = make_answerer(response, {cues, {}});
        const Answerer anyhow = make_answerer(response, {cues, {}});
        std::vector<double> times;
        for (int i = 0; i < 300; ++i) times.push_back(any(random));
        std::vector<double> sorted = times;
        std::sort(sorted.begin(), sorted.end());
        std::map<double, std::array<double, 2>> told;
        for (const double time : sorted) told[time] = forward(time).value;
        for (const double time : times) REQUIRE(anyhow(time).value == told[time]);
        // And nothing that comes later counts.
        for (const double time : {0.7, 1.9, 3.1}) {
            Cues sofar;
            for (const Cue& cue : cues) {
                if (cue.at <= time) sofar.push_back(cue);
            }
            CHECK(make_answerer(response, {sofar, {}})(time).value == anyhow(time).value);
        }
    }
}
