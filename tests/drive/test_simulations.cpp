// Closed forms against the plainest thing that there is: going forward in very small steps. Nothing here is shared with
// the code under test but the easing curves.
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/drive/response.h"

using namespace lacquer;

namespace {

constexpr double step = 1e-5;
constexpr double near = 1e-4;

struct Setup {
    Response response;
    Tape tape;
    FormulaSource formulas = {};
};

// Random cues within four seconds, some of strength 0, some of another name.
Cues random_cues(std::mt19937& random, int count) {
    std::uniform_real_distribution<double> any(0, 1);
    Cues cues;
    for (int i = 0; i < count; ++i)
        cues.push_back({any(random) < 0.85 ? "hit" : "other", any(random) * 4, any(random) < 0.1 ? 0 : any(random)});
    sort_cues(cues);
    return cues;
}

// A signal that jumps about, read by the argument of that name.
FormulaSource jumping(std::mt19937& random, const std::string& argument, double least, double most) {
    std::uniform_real_distribution<double> any(0, 1);
    std::vector<double> moments;
    std::vector<double> values{least + (most - least) * any(random)};
    for (int i = 0; i < 9; ++i) moments.push_back(any(random) * 4);
    std::sort(moments.begin(), moments.end());
    for (int i = 0; i < 9; ++i) values.push_back(least + (most - least) * any(random));
    FormulaSource source;
    source.moments = moments;
    source.value = [=](const std::string& asked, double time) {
        REQUIRE(asked == argument);
        return values[static_cast<std::size_t>(std::upper_bound(moments.begin(), moments.end(), time) -
                                               moments.begin())];
    };
    return source;
}

// Compares at a thousand moments in a random order, so that nothing can lean on the one asked before.
template <class Simulate>
void compare(const Setup& setup, std::mt19937& random, Simulate simulate) {
    std::vector<double> simulated;
    constexpr int every = 400;
    simulate([&](int tick, double value) {
        if (tick % every == 0) simulated.push_back(value);
    });
    const Answerer answer = make_answerer(setup.response, setup.tape, setup.formulas);
    std::vector<std::size_t> order(simulated.size());
    for (std::size_t i = 0; i < order.size(); ++i) order[i] = i;
    std::shuffle(order.begin(), order.end(), random);
    for (const std::size_t i : order) {
        INFO(setup.response.kind << " at " << static_cast<double>(i) * every * step);
        REQUIRE(std::fabs(answer(static_cast<double>(i) * every * step).value[0] - simulated[i]) < near);
    }
}

constexpr int ticks = static_cast<int>(5 / step);

}  // namespace

TEST_CASE("a strike equals one that goes up and down in small steps") {
    std::mt19937 random(7);
    for (int round = 0; round < 4; ++round) {
        Setup setup;
        setup.response = {"blow",
                          "strike",
                          "hit",
                          {{"rest", 1.0},
                           {"least", 0.7},
                           {"most", 0.2},
                           {"rise", 0.2},
                           {"stay", 0.1},
                           {"fall", 0.5},
                           {"rise_easing", std::string("linear")},
                           {"fall_easing", std::string("linear")}}};
        setup.tape.cues = random_cues(random, 8);
        compare(setup, random, [&](auto tell) {
            double value = 1;
            double speed = 0;
            double peak = 0;
            double left = 0;  // seconds of the phase that runs
            int phase = 3;    // 0 rises, 1 stays, 2 falls, 3 rests
            std::size_t next = 0;
            for (int tick = 0; tick < ticks; ++tick) {
                const double now = tick * step;
                for (; next < setup.tape.cues.size() && setup.tape.cues[next].at <= now; ++next) {
                    const Cue& cue = setup.tape.cues[next];
                    if (cue.name != "hit" || cue.strength == 0) continue;
                    peak = 0.7 + (0.2 - 0.7) * cue.strength;
                    phase = 0;
                    left = 0.2;
                    speed = (peak - value) / 0.2;
                }
                tell(tick, value);
                if (phase == 3) continue;
                value += speed * step;
                left -= step;
                if (left > step / 2) continue;
                ++phase;
                left = phase == 1 ? 0.1 : 0.5;
                value = phase == 3 ? 1 : peak;
                speed = phase == 2 ? (1 - peak) / 0.5 : 0;
            }
        });
    }
}

TEST_CASE("a chase equals small steps towards what it follows") {
    std::mt19937 random(11);
    for (const char* way : {"exponential", "linear"}) {
        for (int round = 0; round < 3; ++round) {
            Setup setup;
            setup.response = {"health",
                              "chase",
                              "",
                              {{"signal", std::string("hull")},
                               {"rate", 2.0},
                               {"in_high", 100.0},
                               {"out_low", 1.0},
                               {"out_high", 0.0},
                               {"way", std::string(way)}}};
            setup.formulas = jumping(random, "signal", 0, 120);
            compare(setup, random, [&](auto tell) {
                const auto aim = [&](double time) {
                    return 1 - std::clamp(setup.formulas.value("signal", time) / 100, 0.0, 1.0);
                };
                double value = aim(0);
                for (int tick = 0; tick < ticks; ++tick) {
                    const double now = tick * step;
                    tell(tick, value);
                    const double rest = aim(now) - value;
                    value += std::string(way) == "linear" ? std::clamp(rest, -2 * step, 2 * step) : rest * 2 * step;
                }
            });
        }
    }
}

TEST_CASE("what drifts and swings at a changing rate equals small steps") {
    std::mt19937 random(13);
    for (const char* beyond : {"go_on", "wrap", "stop"}) {
        Setup setup;
        setup.response = {
            "way", "drift", "", {{"speed", std::string("wind")}, {"start", 0.4}, {"beyond", std::string(beyond)}}};
        setup.formulas = jumping(random, "speed", -1, 1.5);
        compare(setup, random, [&](auto tell) {
            double value = 0.4;
            for (int tick = 0; tick < ticks; ++tick) {
                // Where it wraps, one side of the jump may come a step before the other.
                const bool at_the_jump = std::string(beyond) == "wrap" && (value < 1e-3 || value > 1 - 1e-3);
                const Answerer answer = make_answerer(setup.response, setup.tape, setup.formulas);
                tell(tick, at_the_jump && tick % 400 == 0 ? answer(tick * step).value[0] : value);
                value += setup.formulas.value("speed", tick * step) * step;
                if (std::string(beyond) == "wrap") value -= std::floor(value);
                if (std::string(beyond) == "stop") value = std::clamp(value, 0.0, 1.0);
            }
        });
    }
    Setup wave;
    wave.response = {"gusts", "wave", "", {{"rate", std::string("wind")}, {"shape", std::string("triangle")}}};
    wave.formulas = jumping(random, "rate", 0, 3);
    compare(wave, random, [&](auto tell) {
        double turns = 0;
        for (int tick = 0; tick < ticks; ++tick) {
            const double part = turns - std::floor(turns);
            tell(tick, part < 0.5 ? 2 * part : 2 - 2 * part);
            turns += wave.formulas.value("rate", tick * step) * step;
        }
    });
}

TEST_CASE("a gate equals a share that moves towards open or shut") {
    std::mt19937 random(17);
    for (int round = 0; round < 3; ++round) {
        Setup setup;
        setup.response = {
            "zone",
            "gate",
            "hit",
            {{"until", std::string("other")}, {"ease_in", 0.4}, {"ease_out", 0.7}, {"easing", std::string("linear")}}};
        setup.tape.cues = random_cues(random, 10);
        compare(setup, random, [&](auto tell) {
            double share = 0;
            double speed = 0;
            double aim = 0;
            std::size_t next = 0;
            for (int tick = 0; tick < ticks; ++tick) {
                for (; next < setup.tape.cues.size() && setup.tape.cues[next].at <= tick * step; ++next) {
                    const Cue& cue = setup.tape.cues[next];
                    const double wanted = cue.name == "hit" ? 1 : 0;
                    if (cue.strength == 0 || wanted == aim) continue;
                    aim = wanted;
                    speed = (aim - share) / (aim == 1 ? 0.4 : 0.7);
                }
                tell(tick, share);
                const double far = aim - share;
                share = std::fabs(far) <= std::fabs(speed * step) ? aim : share + speed * step;
            }
        });
    }
}

TEST_CASE("sweeps, clocks and strikes queue and ignore as one would by hand") {
    // Every second of a second-long run, cues at 0, 0.4 and 0.6: those rules differ only in when runs begin.
    const Cues cues = {{"hit", 0}, {"hit", 0.4}, {"hit", 0.6}};
    const auto starts = [&](const char* kind, const char* rule) {
        Response response{"r", kind, "hit", {{"seconds", 1.0}, {"when_again", std::string(rule)}}};
        const Answerer answer = make_answerer(response, {cues, {}});
        std::vector<double> found;
        for (int i = 0; i < 400; ++i) {
            const Answer now = answer(i * 0.01);
            if (now.presence > 0 && now.since < 0.00999) found.push_back(i * 0.01);
        }
        return found;
    };
    using List = std::vector<double>;
    const auto same = [](const List& a, const List& b) {
        return a.size() == b.size() &&
               std::equal(a.begin(), a.end(), b.begin(), [](double x, double y) { return std::fabs(x - y) < 0.011; });
    };
    for (const char* kind : {"sweep", "clock"}) {
        INFO(kind);
        CHECK(same(starts(kind, "ignore"), {0}));
        CHECK(same(starts(kind, "queue"), {0, 1, 2}));
        CHECK(same(starts(kind, "start_again"), {0, 0.4, 0.6}));
    }
}
