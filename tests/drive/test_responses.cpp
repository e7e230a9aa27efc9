// Responses against values worked out by hand (plain arithmetic, no source).
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "core/drive/response.h"

using namespace lacquer;

namespace {

Response strike() {
    Response response{"blow", "strike", "hit", {}};
    response.settings = {{"rest", 1.0},
                         {"least", 0.75},
                         {"most", 0.25},
                         {"rise", 0.2},
                         {"stay", 0.1},
                         {"fall", 0.4},
                         {"rise_easing", std::string("linear")},
                         {"fall_easing", std::string("linear")}};
    return response;
}

double value_at(const Response& response, double time, const Cues& cues = {}) {
    return make_answerer(response, {cues, {}})(time).value[0];
}
double presence(const Response& response, double time, const Cues& cues) {
    return make_answerer(response, {cues, {}})(time).presence;
}

}  // namespace

TEST_CASE("a strike rises, stays and falls") {
    const Response blow = strike();
    const Cues hit = {{"hit", 1.0, 0.5}};  // peak: mix(0.75, 0.25, 0.5) = 0.5
    CHECK(value_at(blow, 0.99, hit) == 1.0);
    CHECK(value_at(blow, 1.0, hit) == 1.0);
    CHECK(value_at(blow, 1.1, hit) == Approx(0.75));
    CHECK(value_at(blow, 1.2, hit) == Approx(0.5));
    CHECK(value_at(blow, 1.3, hit) == Approx(0.5));
    CHECK(value_at(blow, 1.5, hit) == Approx(0.75));
    CHECK(value_at(blow, 1.7, hit) == Approx(1.0));
    CHECK(value_at(blow, 1.70001, hit) == 1.0);
    CHECK(presence(blow, 0.5, hit) == 0.0);
    CHECK(presence(blow, 1.1, hit) == Approx(0.5));
    CHECK(presence(blow, 1.25, hit) == 1.0);
    CHECK(presence(blow, 1.5, hit) == Approx(0.5));
    CHECK(presence(blow, 1.8, hit) == 0.0);
}

TEST_CASE("strength 0 isn't a cue, strength 1 goes all the way, other cues do not count") {
    const Response blow = strike();
    CHECK(value_at(blow, 1.25, {{"hit", 1.0, 0.0}}) == 1.0);
    CHECK(presence(blow, 1.25, {{"hit", 1.0, 0.0}}) == 0.0);
    CHECK(value_at(blow, 1.25, {{"hit", 1.0, 1.0}}) == Approx(0.25));
    CHECK(value_at(blow, 1.25, {{"miss", 1.0, 1.0}}) == 1.0);
    // Nothing interrupts a running strike but a hit of its own.
    CHECK(value_at(blow, 1.25, {{"hit", 1.0, 1.0}, {"miss", 1.1, 1.0}, {"hit", 1.2, 0.0}}) == Approx(0.25));
}

TEST_CASE("a hit during a hit takes over from where it is, without a jump") {
    const Response blow = strike();
    const Cues cues = {{"hit", 1.0, 0.5}, {"hit", 1.5, 1.0}};
    // At 1.5 the first stands at 0.75 and half present; the second goes from there to 0.25.
    CHECK(value_at(blow, 1.5, cues) == Approx(0.75));
    CHECK(value_at(blow, 1.6, cues) == Approx(0.5));
    CHECK(presence(blow, 1.6, cues) == Approx(0.75));
    CHECK(value_at(blow, 1.7, cues) == Approx(0.25));
    CHECK(value_at(blow, 2.5, cues) == 1.0);
    double before = value_at(blow, 0.9, cues);
    for (int i = 0; i <= 20000; ++i) {
        const double now = value_at(blow, 0.9 + i * 1e-4, cues);
        REQUIRE(std::fabs(now - before) < 1e-3);
        before = now;
    }
}

TEST_CASE("a strike without length is at its peak at once and then at rest") {
    Response blow = strike();
    for (const char* name : {"rise", "stay", "fall"}) blow.settings[name] = 0.0;
    CHECK(value_at(blow, 1.0, {{"hit", 1.0, 1.0}}) == Approx(0.25));
    CHECK(value_at(blow, 1.001, {{"hit", 1.0, 1.0}}) == 1.0);
}

TEST_CASE("a wave swings between its ends and repeats") {
    Response wave{"gusts", "wave", "", {{"rate", 2.0}, {"low", 1.0}, {"high", 3.0}}};
    CHECK(value_at(wave, 0) == Approx(2));
    CHECK(value_at(wave, 0.125) == Approx(3));
    CHECK(value_at(wave, 0.375) == Approx(1));
    CHECK(value_at(wave, 7.625) == Approx(value_at(wave, 0.125)));
    wave.settings["shape"] = std::string("triangle");
    CHECK(value_at(wave, 0.125) == Approx(2));
    wave.settings["shape"] = std::string("saw");
    CHECK(value_at(wave, 0.25) == Approx(2));
    wave.settings["shape"] = std::string("square");
    CHECK(value_at(wave, 0.1) == 3);
    CHECK(value_at(wave, 0.3) == 1);
    wave.settings["rate"] = 0.0;
    CHECK(value_at(wave, 0.3) == value_at(wave, 100));
}

TEST_CASE("the size of a sine repeats every pi over its speed") {
    // Common practice, no source: |sin(speed t)|, with speed = 2 pi rate.
    const double speed = 5;
    const Response wave{
        "blink", "wave", "", {{"shape", std::string("absolute_sine")}, {"rate", speed / (2 * std::numbers::pi)}}};
    for (const double t : {0.0, 0.1, 0.33, 0.5}) {
        CHECK(value_at(wave, t) == Approx(std::fabs(std::sin(speed * t))).margin(1e-12));
        CHECK(value_at(wave, t + std::numbers::pi / speed) == Approx(value_at(wave, t)).margin(1e-9));
    }
}

TEST_CASE("a sweep goes once, again and again, there and back") {
    Response sweep{"burn", "sweep", "", {{"from", 2.0}, {"to", 4.0}, {"seconds", 2.0}, {"delay", 1.0}}};
    CHECK(value_at(sweep, 0.5) == 2);
    CHECK(value_at(sweep, 2) == Approx(3));
    CHECK(value_at(sweep, 3) == 4);
    CHECK(value_at(sweep, 99) == 4);
    sweep.settings["turn_back"] = std::string("yes");
    CHECK(value_at(sweep, 4) == Approx(3));
    CHECK(value_at(sweep, 99) == 2);
    sweep.settings["repeat"] = 0.0;
    CHECK(value_at(sweep, 1 + 4 * 7 + 1) == Approx(3));
    sweep.settings["turn_back"] = std::string("no");
    CHECK(value_at(sweep, 1 + 2 * 9 + 0.5) == Approx(2.5));
    sweep.cue = "light";
    CHECK(value_at(sweep, 50) == 2);
    CHECK(value_at(sweep, 12, {{"light", 10, 1.0}}) == Approx(3));
    sweep.settings["seconds"] = 0.0;
    CHECK(std::isfinite(value_at(sweep, 12, {{"light", 10, 1.0}})));
}

TEST_CASE("hold stays") {
    CHECK(value_at({"h", "hold", "", {{"value", 0.7}}}, 0) == 0.7);
    CHECK(value_at({"h", "hold", "", {{"value", 0.7}}}, 1e6) == 0.7);
}

TEST_CASE("wrong kinds and arguments are named, with the nearest right one") {
    CHECK(check_response(strike()).empty());
    const Faults kind = check_response({"b", "strik", "", {}});
    REQUIRE(kind.size() == 1);
    CHECK(kind[0].id == "drive.kind");
    CHECK(kind[0].mend == "did you mean strike?");
    const Faults argument = check_response({"b", "strike", "", {{"rises", 1.0}}});
    REQUIRE(argument.size() == 1);
    CHECK(argument[0].id == "drive.argument");
    CHECK(argument[0].mend == "did you mean rise?");
    CHECK(check_response({"b", "strike", "", {{"rise", PathKeys()}}}).size() == 1);
    CHECK(check_response({"b", "wave", "", {{"shape", std::string("cosine")}}}).size() == 1);
    CHECK(value_at({"b", "strik", "", {}}, 0) == 0);
    const Faults easing = check_response({"b", "strike", "", {{"rise_easing", std::string("ease_uot")}}});
    REQUIRE(easing.size() == 1);
    CHECK(easing[0].id == "drive.easing");
    CHECK(easing[0].mend == "did you mean ease_out?");
    CHECK(easing[0].place.where == "b");
    CHECK(check_response({"b", "gate", "", {{"when", 1.0}}}).size() == 1);
    CHECK(check_response({"b", "path", "", {{"keys", 1.0}}}).size() == 1);
}

TEST_CASE("every kind has words, a value and sensible arguments") {
    for (const ResponseKind& kind : response_kinds()) {
        INFO(kind.name);
        CHECK_FALSE(kind.words.empty());
        REQUIRE(kind.answerer != nullptr);
        CHECK((kind.width == 1 || kind.width == 2));
        for (const std::string_view output : kind.outputs) {
            const auto known = response_outputs();
            CHECK(std::any_of(known.begin(), known.end(), [&](const OutputSpec& o) { return o.name == output; }));
        }
        for (const ArgumentSpec& spec : kind.arguments) {
            INFO(spec.name);
            CHECK_FALSE(spec.words.empty());
            CHECK(find_argument(kind, spec.name)->name == spec.name);
            if (spec.kind == ArgumentKind::easing) CHECK(easing_named(spec.default_word));
            if (spec.kind != ArgumentKind::word) continue;
            REQUIRE_FALSE(spec.choices.empty());
            CHECK(spec.default_word == spec.choices.front());
        }
        CHECK(std::isfinite(value_at({"x", std::string(kind.name), "", {}}, 1.5)));
        CHECK(std::isfinite(value_at({"x", std::string(kind.name), "hit", {}}, 1.5, {{"hit", 1.0}})));
    }
}

TEST_CASE("a cue of strength 0 is none; the weakest that is one rises to least") {
    const Response blow{"blow", "strike", "hit", {{"rest", 0.0}, {"least", 0.25}, {"most", 1.0}}};
    CHECK(value_at(blow, 0.3, {{"hit", 0, 0}}) == 0);
    double highest = 0;
    for (int i = 0; i < 400; ++i) highest = std::max(highest, value_at(blow, i * 0.01, {{"hit", 0, 0.001}}));
    CHECK(highest == Approx(0.25075).margin(1e-4));
}
