// Fragment shaders that become finishes, and finishes that are taken apart again.
#include <catch2/catch.hpp>

#include "core/finish/bring_shader.h"
#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/live_words.h"
#include "core/finish/sentence.h"
#include "core/finish/step_edits.h"
#include "tests/shader/driven.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

BroughtShader brought(const std::string& text) {
    Result<BroughtShader> made = bring_shader(text, "borrowed");
    if (!made) FAIL(to_text(made.fault()));
    const auto checked = test::checked(made->finish);
    const CheckedStep* step = find_step(*checked, made->step);
    REQUIRE(step != nullptr);
    if (step->fault) FAIL(to_text(*step->fault) << "\n" << made->finish.coats[0].steps.front().formula);
    return std::move(*made);
}

const Dial& dial_of(const BroughtShader& shader, const std::string& name) {
    const Dial* dial = find_dial(shader.finish, name);
    if (dial == nullptr) FAIL("no dial " << name);
    return *dial;
}

const std::string ends = "out vec4 c;\nvoid main() { c = vec4(0.5); }\n";

}  // namespace

TEST_CASE("uniforms become dials with ranges by remarks, values and names") {
    const BroughtShader shader = brought(
        "uniform float amount; // 0..2 how much\n"
        "uniform highp float edge; /* from -1 to 1 */\n"
        "uniform float uSpin; // [0, 360]\n"
        "uniform float gain = 1.5;\n"
        "uniform float plain, other;\n"
        "uniform int steps; // 1-32\n"
        "uniform bool mirrored;\n"
        "uniform vec3 fogColor;\n"
        "uniform vec4 tint;\n"
        "uniform vec2 offset; // -1..1\n"
        "uniform float rotation;\n" +
        ends);
    CHECK(dial_of(shader, "amount").most == 2);
    CHECK(dial_of(shader, "amount").note == "0..2 how much");
    CHECK(dial_of(shader, "edge").least == -1);
    CHECK(dial_of(shader, "spin").most == 360);
    CHECK(dial_of(shader, "spin").code_name == "uSpin");
    CHECK(dial_of(shader, "gain").value[0] == 1.5);
    CHECK(dial_of(shader, "plain").most == 1);
    CHECK(dial_of(shader, "other").value[0] == 0.5);
    CHECK(dial_of(shader, "steps").kind == DialKind::integer);
    CHECK(dial_of(shader, "steps").most == 32);
    CHECK(dial_of(shader, "mirrored").kind == DialKind::toggle);
    CHECK(dial_of(shader, "fog_color").kind == DialKind::colour);
    CHECK(dial_of(shader, "tint").kind == DialKind::colour);
    CHECK(dial_of(shader, "offset_x").least == -1);
    CHECK(dial_of(shader, "offset_y").most == 1);
    CHECK(dial_of(shader, "rotation").least == -180);
    CHECK(shader.told.size() == 12);
}

TEST_CASE("time, size and pictures are connected, and names that clash are renamed and told") {
    const BroughtShader shader = brought(
        "uniform float u_time;\nuniform vec2 u_resolution;\nuniform sampler2D uScene;\nuniform sampler2D mask;\n"
        "uniform float size; uniform float pixel; uniform float floor_at;\n"
        "out vec4 c;\n"
        "void main() { vec2 scene = gl_FragCoord.xy / u_resolution; float floor_at_2 = floor_at + size + pixel;\n"
        "  c = texture(uScene, scene) * texture(mask, scene).r + vec4(sin(u_time), floor_at_2, 0.0, 1.0); }\n");
    REQUIRE(shader.finish.grounds.size() == 2);
    // `scene` is a variable of the shader's.
    CHECK(shader.finish.grounds[0].name == "scene_2");
    CHECK(shader.finish.grounds[1].name == "mask");
    CHECK(find_dial(shader.finish, "pixel") == nullptr);
    CHECK(dial_of(shader, "pixel_2").code_name == "pixel");
    CHECK(dial_of(shader, "size").code_name == "size");
}

TEST_CASE("what cannot be connected stays, with the place marked") {
    const Result<BroughtShader> made =
        bring_shader("uniform mat4 view;\nuniform float lamps[4];\nout vec4 c;\nvoid main() { c = view[0]; }\n", "a");
    REQUIRE(made);
    const std::string& code = made->finish.coats[0].steps.front().formula;
    CHECK(code.find("uniform mat4 view;") != std::string::npos);
    CHECK(code.find("uniform float lamps[4];") != std::string::npos);
    const auto checked = test::checked(made->finish);
    const CheckedStep* step = find_step(*checked, made->step);
    REQUIRE(step->fault);
    CHECK(step->fault->id == "shader.uniform");
    CHECK(code.substr(step->fault->place.span.begin, 4) == "view");
    CHECK(bring_shader(" \n", "a").fault().id == "shader.empty");
    CHECK(bring_shader("/* ", "a").fault().id == "lang.comment");
    // Declarations that stop short.
    for (const char* text : {"uniform", "uniform ", "uniform highp", "uniform float", "uniform float a",
                             "uniform float a,", "uniform float a =", "void f() {} uniform\n"}) {
        INFO(text);
        const Result<BroughtShader> short_of = bring_shader(text, "a");
        REQUIRE(short_of);
        CHECK(short_of->finish.coats[0].steps.front().formula == text);
    }
}

TEST_CASE("a shader that was brought in draws what the GL driver draws, and is kept by its file") {
    const std::string text = test::read_file(LACQUER_SOURCE "/demo/shaders/borrowed-light.frag");
    const BroughtShader shader = brought(text);
    const test::TemporaryFolder folder;
    REQUIRE(save_finish(folder.file("a.lacquer"), shader.finish));
    const Result<OpenedFinish> opened = load_finish(folder.file("a.lacquer"));
    REQUIRE(opened);
    CHECK(opened->finish.coats[0].steps.front() == shader.finish.coats[0].steps.front());
    CHECK(opened->notices.empty());
}

TEST_CASE("a variable of a shader becomes a step, and the picture stays the same") {
    const std::string text =
        "out vec4 colour;\n"
        "#define WAVE(p) (sin(p.x * 9.0) * cos(p.y * 7.0))\n"
        "void main() {\n"
        "    vec2 p = gl_FragCoord.xy / vec2(48.0, 32.0);\n"
        "    float height = WAVE(p), more = 1.0;\n"
        "    vec3 tone = vec3(height, p) * more;\n"
        "    tone *= 0.5;\n"
        "    colour = vec4(tone, 1.0);\n"
        "}\n";
    Finish finish = test::finish_of({{"shown", text}});
    finish.coats[0].steps.own()[0].rules = CodeRules::glsl;
    const Picture before = test::draw(finish, "shown", 48, 32).picture;
    const auto place = [&](const std::string& of, const char* word) {
        const auto at = static_cast<std::uint32_t>(of.find(word));
        return Span{at, at};
    };
    Result<StepEdit> first = extract_step(finish, "shown", place(text, "height = WAVE"));
    if (!first) FAIL(to_text(first.fault()));
    CHECK(first->step == "height_2");
    const std::string& rest = find_step(first->finish, "shown")->formula;
    CHECK(rest.find("float height = height_2, more = 1.0;") != std::string::npos);
    Result<StepEdit> second = extract_step(first->finish, "shown", place(rest, "tone = vec3"));
    if (!second) FAIL(to_text(second.fault()));
    const auto checked = test::checked(second->finish);
    for (const CheckedStep& step : checked->steps) {
        if (step.fault) FAIL(to_text(*step.fault));
    }
    CHECK(find_step(*checked, "height_2")->typed->type == Type::number);
    CHECK(find_step(*checked, second->step)->typed->type == Type::vec3);
    CHECK(test::share_off(test::draw(second->finish, "shown", 48, 32).picture, before, 1e-6) == 0);
}

TEST_CASE("what cannot become a step is told") {
    const std::string text =
        "mat2 m = mat2(1.0);\nfloat a[2] = float[2](1.0, 2.0);\nfloat f(float x) { float y = x; return y; }\n"
        "vec2 q = m * uv;\nreturn q;\n";
    Finish finish = test::finish_of({{"shown", text}});
    finish.coats[0].steps.own()[0].rules = CodeRules::glsl;
    const auto at = [&](const char* word) {
        const auto place = static_cast<std::uint32_t>(text.find(word));
        return extract_step(finish, "shown", Span{place, place});
    };
    for (const char* word : {"m = mat2", "a[2] =", "1.0, 2.0"}) {
        INFO(word);
        const Result<StepEdit> made = at(word);
        REQUIRE_FALSE(made);
        CHECK(made.fault().id == "edit.extract");
    }
    const Result<StepEdit> made = at("q = m");
    REQUIRE(made);
    CHECK(find_step(made->finish, made->step)->formula.find("return q;") != std::string::npos);
}

TEST_CASE("code that is new goes by GLSL's rules, and older code keeps its own") {
    Step step;
    set_formula(step, "1 / 2");
    CHECK(step.rules == CodeRules::formulas);
    set_formula(step, "return 1 / 2;");
    CHECK(step.rules == CodeRules::glsl);
    Step old;
    old.formula = "return 1 / 2;";
    set_formula(old, "return 1 / 4;");
    CHECK(old.rules == CodeRules::formulas);
    const Finish finish = test::finish_of({{"old", "return 1 / 2;"}});
    CHECK(test::draw(finish, "old", 1, 1).picture.data[0] == 0.5F);
    Finish fresh = test::finish_of({{"fresh", "float half_of = float(1 / 2); return half_of;"}});
    fresh.coats[0].steps.own()[0].rules = CodeRules::glsl;
    CHECK(test::draw(fresh, "fresh", 1, 1).picture.data[0] == 0.0F);
}

TEST_CASE("a number that is turned keeps its point where GLSL needs it") {
    Finish finish = test::finish_of({{"shown", "#version 300 es\nfloat x = 2.5; int n = 3; return x * float(n);"}});
    finish.coats[0].steps.own()[0].rules = CodeRules::glsl;
    const auto checked = test::checked(finish);
    const Step& step = *find_step(finish, "shown");
    std::vector<LiveWord> numbers;
    for (LiveWord& word : live_words(*checked, step.formula)) {
        if (word.kind == LiveKind::number) numbers.push_back(std::move(word));
    }
    REQUIRE(numbers.size() == 2);
    CHECK(number_by_rules(step, numbers[0], "2") == "2.0");
    CHECK(number_by_rules(step, numbers[0], "0.25") == "0.25");
    CHECK(number_by_rules(step, numbers[1], "4") == "4");
    Step formula;
    formula.formula = "2.5 * uv.x";
    CHECK(number_by_rules(formula, numbers[0], "2") == "2");
}

TEST_CASE("a closed row shows the line by which a whole shader gives its value") {
    const std::string text =
        "#version 300 es\nout vec4 c;\nvoid main() {\n    float x = 1.0;\n    c = vec4(x); // all\n}\n";
    const Span line = telling_line(text);
    CHECK(text.substr(line.begin, line.end - line.begin) == "c = vec4(x);");
    for (const char* other : {"uv.x + 1", "return uv;", "void main", ""}) {
        const Span whole = telling_line(other);
        CHECK(whole.begin == 0);
        CHECK(whole.end == std::string(other).size());
    }
}
