// What ships of play does what the application does: on random tapes, in C, C++ and a script.
#include <catch2/catch.hpp>
#include <cmath>
#include <filesystem>
#include <random>

#include "core/finish/play.h"
#include "core/ship/play/drive_curves.h"
#include "core/ship/play/formula_code.h"
#include "tests/ship/played_tapes.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

// Cues and settings at random, some of them at one time and some at 0 s.
Tape random_tape(const Finish& finish, unsigned seed, double length) {
    std::mt19937 random(seed);
    const auto number = [&](double least, double most) {
        return least + (most - least) * static_cast<double>(random() % 1001) / 1000;
    };
    std::vector<double> times = {0};
    for (int k = 0; k < 24; ++k) times.push_back(number(0, length));
    Tape tape;
    for (const double at : times) {
        for (const Signal& signal : finish.signals) {
            if (random() % 3 != 0) continue;
            const bool place = signal.kind == SignalKind::place;
            const bool toggle = signal.kind == SignalKind::toggle;
            add_to_tape(tape, Change{signal.name,
                                     at,
                                     {place    ? number(-0.2, 1.2)
                                      : toggle ? static_cast<double>(random() % 2)
                                               : number(signal.least - 1, signal.most + 1),
                                      place ? number(0, 1) : 0, 0}});
        }
        for (const Dial& dial : finish.dials) {
            if (!dial.formula.empty() || random() % 6 != 0) continue;
            const bool toggle = dial.kind == DialKind::toggle;
            add_to_tape(tape, Change{dial.name,
                                     at,
                                     {toggle ? static_cast<double>(random() % 2) : number(dial.least, dial.most),
                                      number(0, 1), number(0, 1)}});
        }
        for (const CueKind& cue : finish.cues) {
            if (random() % 2 != 0) continue;
            add_to_tape(tape, Cue{cue.name, at, number(-0.1, 1.2), number(-200, 400), number(0, 1), number(0, 1),
                                  static_cast<int>(random() % 5)});
        }
    }
    return tape;
}

std::vector<double> moments_within(double length) {
    std::vector<double> moments;
    for (int k = 0; k <= 40; ++k) moments.push_back(length * k / 40);
    return moments;
}

void check_by_all(const Finish& finish, const Tape& tape, double length) {
    const ShipMaterial material = test::material_of(finish);
    const std::vector<double> moments = moments_within(length);
    const test::PlayedValues wanted = test::by_application(material, tape, moments);
    SECTION("C99 by gcc") { test::check_alike(test::by_header(material, tape, moments, "gcc -std=c99", "c"), wanted); }
    SECTION("C++ by clang") {
        test::check_alike(test::by_header(material, tape, moments, "clang++ -std=c++11", "cpp"), wanted);
    }
    SECTION("a script by Node") { test::check_alike(test::by_module(material, tape, moments), wanted); }
}

Signal number_signal(const std::string& name, double least, double most, double begins) {
    Signal signal;
    signal.name = name;
    signal.least = least;
    signal.most = most;
    signal.value = {begins, 0, 0};
    return signal;
}

// Every kind of response by every rule, with arguments that are formulas over signals and dials.
Finish all_kinds() {
    Finish finish = test::finish_of({{"shown", "vec4(1)"}});
    finish.name = "All kinds";
    finish.cues = {{"hit"}, {"other"}};
    finish.signals = {number_signal("hull", 0, 100, 60), number_signal("swell", -2, 6, 1)};
    Signal watch;
    watch.name = "watch";
    watch.kind = SignalKind::toggle;
    Signal keeper;
    keeper.name = "keeper";
    keeper.kind = SignalKind::place;
    keeper.value = {0.4, 0.6, 0};
    finish.signals.push_back(watch);
    finish.signals.push_back(keeper);
    finish = test::with_dial(finish, "wild", 0.1, 3);
    const auto add = [&](const std::string& name, const std::string& kind, const std::string& cue,
                         std::map<std::string, Setting> settings) {
        finish.responses.push_back({name, kind, cue, std::move(settings), {}});
    };
    const auto text = [](const char* words) { return Setting(std::string(words)); };
    int number = 0;
    for (const char* again : {"take_over", "start_again", "ignore", "queue"}) {
        const std::string n = std::to_string(++number);
        add("strike_" + n, "strike", "hit",
            {{"when_again", text(again)},
             {"rise", text("0.1 + hull.share * 0.3")},
             {"fall", 0.9},
             {"least", text("wild * 0.2")},
             {"fall_easing", text("out_bounce")},
             {"rise_easing", text("cubic-bezier(0.2, 0, 0.6, 1)")}});
        add("sweep_" + n, "sweep", "hit",
            {{"when_again", text(again)},
             {"seconds", text("0.2 + wild * 0.2")},
             {"repeat", 2.0},
             {"turn_back", text("yes")},
             {"delay", 0.1},
             {"to", text("swell")},
             {"easing", text("steps(4, jump-none)")}});
        add("path_" + n, "path", "other",
            {{"when_again", text(again)},
             {"keys", PathKeys{{0, 0, {}, {}},
                               {0.3, 1, {}, {}},
                               {0.5, 0.2, {}, {SlopeKind::stay, 0}},
                               {0.9, 0.7, {SlopeKind::by_hand, 2}, {}}}}});
        add("jolt_" + n, "jolt", "hit",
            {{"when_again", text(again)},
             {"rate", text("6 + swell")},
             {"turn", 4.0},
             {"zoom", 0.1},
             {"way", text(number % 2 == 0 ? "along_the_blow" : "all_round")},
             {"decay_form", text(number > 2 ? "exponential" : "linear")},
             {"decay", number > 2 ? 3.0 : 15.0}});
    }
    for (const char* again : {"start_again", "ignore", "queue"})
        add("clock_" + std::to_string(++number), "clock", "other",
            {{"when_again", text(again)}, {"seconds", text("0.5 + wild * 0.1")}});
    add("own_clock", "clock", "", {{"repeat", text("again")}, {"seconds", 0.7}});
    add("own_sweep", "sweep", "", {{"repeat", 0.0}, {"easing", text("linear(0, 0.3 25%, 1)")}});
    for (const char* beyond : {"go_on", "wrap", "stop"})
        add(std::string("drift_") + beyond, "drift", "hit",
            {{"beyond", text(beyond)}, {"speed", text("swell * 0.5")}, {"start", text("hull.share")}});
    for (const char* shape : {"sine", "absolute_sine", "triangle", "saw", "square"})
        add(std::string("wave_") + shape, "wave", "",
            {{"shape", text(shape)}, {"rate", text("swell + 2.3")}, {"low", text("-wild")}, {"phase", 0.13}});
    add("gate_while", "gate", "", {{"when", text("hull < 50 || watch")}, {"on", text("wild")}});
    add("gate_cues", "gate", "hit", {{"until", text("other")}, {"ease_in", 0.4}});
    add("gate_turns", "gate", "hit", {{"until", text("hit")}, {"easing", text("in_out_back")}});
    add("chase_share", "chase", "", {{"signal", text("hull")}, {"in_high", 100.0}, {"rate", text("1 + wild")}});
    add("chase_even", "chase", "",
        {{"signal", text("swell")}, {"in_low", -2.0}, {"in_high", 6.0}, {"way", text("linear")}});
    add("held", "hold", "", {{"value", text("length(keeper - 0.5)")}});
    return finish;
}

}  // namespace

TEST_CASE("every kind of response ships as it is played, by every rule and with formulas") {
    const Finish finish = all_kinds();
    for (const CheckedResponse& response : test::checked(finish)->responses) (void)response;
    check_by_all(finish, random_tape(finish, 1, 6), 6);
}

TEST_CASE("other tapes ship as they are played") {
    const Finish finish = all_kinds();
    for (unsigned seed = 2; seed < 8; ++seed) {
        INFO("tape " << seed);
        const ShipMaterial material = test::material_of(finish);
        const Tape tape = random_tape(finish, seed, 8);
        const std::vector<double> moments = moments_within(8);
        test::check_alike(test::by_module(material, tape, moments), test::by_application(material, tape, moments));
    }
}

TEST_CASE("dials' formulas ship as they are played") {
    Finish finish = test::finish_of({{"shown", "vec4(1)"}});
    finish.name = "int */ main";
    finish.signals = {number_signal("hull", 0, 100, 60)};
    finish.cues = {{"hit"}};
    finish.responses.push_back({"blow", "strike", "hit", {}, {}});
    const char* formulas[] = {"sin(time) + cos(time * 3)",
                              "mod(time, 0.7) * pow(time, 1.3)",
                              "clamp(hull.share, 0.2, 0.8)",
                              "mix(1, 4, smoothstep(0.2, 0.6, blow))",
                              "gradient_noise(vec2(time, 3))",
                              "value_noise(vec3(time, 3, hull))",
                              "cellular_noise(vec2(time, hull))",
                              "fractal_gradient_noise(vec2(time * 2, 1), 3.5)",
                              "hash(vec2(floor(time * 4), 1))",
                              "atan(time - 2, hull.share)",
                              "hull > 50 ? time : -time",
                              "round(time * 3) + fract(time)",
                              "float(int(time * 7) % 3 + (int(time) << 2))",
                              "length(vec2(time, blow)) + log(1 + time)",
                              "sqrt(time) + exp2(-time) + sign(time - 3)",
                              "dial_1 * 2 + dial_2",
                              "dot(hash3(vec3(floor(time), 2, 3)), vec3(1, 2, 3))",
                              "blow.since + blow.presence",
                              "asin(sin(time)) + acos(cos(time)) + tan(time * 0.1) + sinh(time * 0.1)",
                              "fractal_cellular_noise(vec3(time, 0.5, 1), 2)"};
    int number = 0;
    for (const char* formula : formulas)
        finish = test::with_dial(finish, "dial_" + std::to_string(++number), -1e6, 1e6, formula);
    Dial whole;
    whole.name = "class";
    whole.code_name = "class";
    whole.kind = DialKind::integer;
    whole.least = -10;
    whole.most = 10;
    whole.formula = "time - 2.5";
    Dial yes;
    yes.name = "wet";
    yes.code_name = "W\xC3\xA4sser \"on\"\n*/";
    yes.kind = DialKind::toggle;
    yes.formula = "time > 1.5 && hull > 20";
    Dial tint;
    tint.name = "tint";
    tint.code_name = "wet";
    tint.kind = DialKind::colour;
    tint.formula = "vec3(time, blow, 1) * 0.5";
    finish.dials.insert(finish.dials.end(), {whole, yes, tint});
    check_by_all(finish, random_tape(finish, 5, 6), 6);
}

TEST_CASE("curves of driven dials are within the error that they state") {
    const ShipMaterial material =
        test::material_of(test::demo_named("squall-strike"), test::demo_path("squall-strike"));
    const Json curves = drive_curves(material);
    REQUIRE(curves.find("cues")->size() == 2);
    const Json& hit = curves.find("cues")->list()[1];
    const Json& radius = hit.find("dials")->find("radius")->list()[0];
    std::vector<CurveKey> keys;
    for (const Json& key : radius.find("keys")->list())
        keys.push_back(
            {key.list()[0].number(), key.list()[1].number(), key.list()[2].number(), key.list()[3].number()});
    CHECK(keys.size() < 60);
    Tape tape;
    add_to_tape(tape, Cue{"hit", 0, 0.8, 20});
    const Play play(material.request.checked, tape);
    const double error = radius.find("error")->number();
    CHECK(error == Approx(2e-3));
    for (double time = 0; time < 6; time += 1.0 / 120)
        CHECK(std::fabs(curve_value(keys, time) - static_cast<double>(play.values(time).at("radius").parts[0])) <=
              error);
}

TEST_CASE("a curve through a jump stays within its error at every sample") {
    std::vector<double> samples;
    for (int i = 0; i < 200; ++i) samples.push_back(i < 77 ? std::sin(i * 0.05) : 3 - i * 0.01);
    const std::vector<CurveKey> keys = curve_keys(samples, 0.01, 1e-3);
    for (std::size_t i = 0; i < samples.size(); ++i)
        CHECK(curve_value(keys, static_cast<double>(i) * 0.01) == Approx(samples[i]).margin(1.01e-3));
    CHECK(curve_keys({}, 0.01, 1).empty());
    CHECK(curve_keys(std::vector<double>{4}, 0.01, 1).size() == 1);
}

TEST_CASE("a formula that looks at pixels has no value of its own") {
    Typed here;
    here.node = NameHere{"uv", SymbolKind::known};
    here.type = Type::vec2;
    const CodeName none = [](const std::string&, int) { return CodeValue{"0", false}; };
    const Result<FormulaCode> code = formula_code(here, none, "");
    REQUIRE_FALSE(code);
    CHECK(code.fault().id == "ship.formula");
}

TEST_CASE("every demo's play ships as it is played") {
    for (const auto& entry : std::filesystem::directory_iterator(std::string(LACQUER_SOURCE) + "/demo/finishes")) {
        if (entry.path().extension() != ".lacquer") continue;
        const std::string name = entry.path().stem().string();
        INFO(name);
        const Finish finish = test::demo_named(name);
        const ShipMaterial material = test::material_of(finish, test::demo_path(name));
        const std::vector<double> moments = moments_within(finish.length);
        const Tape random = random_tape(finish, 9, finish.length);
        for (const Tape* tape : {&finish.tape, &random})
            test::check_alike(test::by_module(material, *tape, moments),
                              test::by_application(material, *tape, moments));
    }
}
