// Branches and loops in the strip machine: what they cost, that they end, that rates are found.
#include <algorithm>
#include <catch2/catch.hpp>
#include <thread>
#include <utility>

#include "core/cpu/lower.h"
#include "core/cpu/program.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

Pass pass_of(const std::string& code) {
    Scope scope = step_scope();
    scope.symbols["radius"] = {SymbolKind::dial, Type::number};
    return test::pass_of(code, scope);
}

std::size_t count(const Ir& ir, Op op) {
    return static_cast<std::size_t>(
        std::count_if(ir.code.begin(), ir.code.end(), [&](const Instruction& i) { return i.op == op; }));
}

float drawn(const std::string& code, int x, int y, int width = 40, int height = 7) {
    return test::draw(test::finish_of({{"value", code}}), "value", width, height).picture.at(x, y)[0];
}

}  // namespace

TEST_CASE("short loops are written out, and what is the same everywhere is computed once") {
    const Ir ir = optimised(
        lower(pass_of("float s = 0; for (int i = 0; i < 8; i++) s += cos(float(i) * radius) * uv.x; return s;")));
    CHECK(count(ir, Op::loop_begin) == 0);
    CHECK(count(ir, Op::cos) == 8);  // 0 times a dial is not known to be 0
    for (const Instruction& i : ir.code) {
        if (i.op == Op::cos) CHECK(i.rate == Rate::uniform);
    }
}

TEST_CASE("a loop that counts by a dial stays a loop, and its counter is one value for the whole strip") {
    const Ir ir =
        optimised(lower(pass_of("float s = 0; for (float i = 0; i < radius; i++) s += sin(i) * uv.x; return s;")));
    CHECK(count(ir, Op::loop_begin) == 1);
    CHECK(count(ir, Op::loop_exit) == 1);
    for (const Instruction& i : ir.code) {
        if (i.op != Op::sin) continue;
        CHECK(i.timed);
        CHECK(i.rate == Rate::uniform);
    }
    const std::string text = to_text(lay_out(ir, best_kernels()));
    CHECK(text.find("loop_begin") != std::string::npos);
}

TEST_CASE("where all pixels go the same way a loop has no choices and no copies, and sums where its cells lie") {
    const Ir ir =
        optimised(lower(pass_of("vec2 s = vec2(0); for (float i = 0; i < radius; i++) s += vec2(sin(uv.x * i), "
                                "cos(uv.y * i)) * i; return s.x + s.y;")));
    for (const Instruction& i : ir.code) {
        if (i.op == Op::select) CHECK(i.rate != Rate::pixel);
    }
    // One copy before the first turn, none within.
    const std::string text = to_text(lay_out(ir, best_kernels()));
    const std::string turn = text.substr(text.find("loop_begin"), text.find("loop_end") - text.find("loop_begin"));
    CHECK(turn.find("to p") == std::string::npos);
    CHECK(turn.find("multiply_add") != std::string::npos);
}

TEST_CASE("what a loop's turns leave each other is never written over too early") {
    // The same sums in the same order.
    const auto u = [](int x) { return (static_cast<float>(x) + 0.5F) / 40.0F; };
    const auto v = [](int y) { return (static_cast<float>(y) + 0.5F) / 7.0F; };
    for (const auto& [x, y] : {std::pair{0, 0}, {3, 1}, {17, 4}, {39, 6}}) {
        INFO(x << ", " << y);
        float a = u(x);
        float b = v(y);
        for (int i = 0; i < 100; ++i) {
            const float before = a;
            a = a * 0.5F + b;
            b = before - b * 0.25F;
        }
        CHECK(drawn("float a = uv.x; float b = uv.y; for (int i = 0; i < 100; i++) "
                    "{ float c = a; a = a * 0.5 + b; b = c - b * 0.25; } return a + b * 3.0;",
                    x, y) == a + b * 3.0F);
        float changed = u(x);
        float other = v(y);
        for (int i = 0; i < 100; ++i) std::swap(changed, other), changed = changed + 0.125F;
        CHECK(drawn("float a = uv.x; float b = uv.y; for (int i = 0; i < 100; i++) "
                    "{ float c = a; a = b; b = c; a = a + 0.125; } return a - b;",
                    x, y) == changed - other);
        float nested = 0;
        for (int i = 0; i < 50; ++i) {
            float inner = nested;
            for (int j = 0; j < 40; ++j) inner = inner * 0.5F + u(x);
            nested = nested * 0.25F + inner;
        }
        CHECK(drawn("float s = 0.0; for (int i = 0; i < 50; i++) { float t = s; for (int j = 0; j < 40; j++) "
                    "t = t * 0.5 + uv.x; s = s * 0.25 + t; } return s;",
                    x, y) == nested);
        float left_early = 0;
        for (int i = 0; i < 100 && !(left_early > u(x) * 10.0F); ++i) left_early = left_early + 0.3F;
        CHECK(
            drawn("float s = 0.0; for (int i = 0; i < 100; i++) { if (s > uv.x * 10.0) break; s = s + 0.3; } return s;",
                  x, y) == left_early);
        // Rows leave at turns of their own, also where two are drawn together.
        float by_row = 0;
        for (int i = 0; i < 100 && !(static_cast<float>(i) > v(y) * 70.0F); ++i) by_row = by_row + u(x);
        const std::string rows =
            "float s = 0.0; for (int i = 0; i < 100; i++) { if (float(i) > uv.y * 70.0) break; s = s + uv.x; } ";
        CHECK(drawn(rows + "return s;", x, y) == by_row);
        CHECK(drawn(rows + "return s + dFdx(uv.y);", x, y) == by_row);
    }
}

TEST_CASE("what stays the same is taken out of a loop") {
    const Ir plain =
        lower(pass_of("float s = 0; for (float i = 0; i < radius; i++) s += sqrt(uv.x * uv.y) + i; return s;"));
    const Ir hoisted = hoist_from_loops(plain);
    const auto place = [](const Ir& ir, Op op) {
        return std::find_if(ir.code.begin(), ir.code.end(), [&](const Instruction& i) { return i.op == op; }) -
               ir.code.begin();
    };
    CHECK(place(plain, Op::sqrt) > place(plain, Op::loop_begin));
    CHECK(place(hoisted, Op::sqrt) < place(hoisted, Op::loop_begin));
}

TEST_CASE("products and sums are put together only where nothing else wants the product") {
    CHECK(count(optimised(lower(pass_of("uv.x * uv.y + radius"))), Op::multiply_add) == 1);
    const Ir both = optimised(lower(pass_of("float p = uv.x * uv.y; return (p + radius) * p;")));
    CHECK(count(both, Op::multiply_add) == 0);
}

TEST_CASE("three mixes by one share are one instruction, unless one reads another") {
    const auto mixes = [](const std::string& text, Op op) { return count(optimised(lower(pass_of(text))), op); };
    CHECK(mixes("mix(vec3(3, 1, 0.2), vec3(uv, uv.x * uv.y), uv.x * uv.y)", Op::mix_3) == 1);
    CHECK(mixes("mix(vec3(3, 1, 0.2), vec3(uv, uv.x * uv.y), uv.x * uv.y)", Op::mix) == 0);
    CHECK(mixes("mix(vec2(3, 1), vec2(uv.y, uv.x * uv.y), uv.x * uv.y)", Op::mix_3) == 0);
    CHECK(mixes("mix(vec3(3, 1, 0.2), vec3(uv, uv.x), vec3(uv.x * uv.y, uv))", Op::mix_3) == 0);
    const std::string chain =
        "float s = uv.x * uv.y; float a = mix(1.0, uv.x, s); float b = mix(a, uv.y, s); return mix(b, 2.0, s);";
    CHECK(mixes(chain, Op::mix_3) == 0);
    CHECK(mixes(chain, Op::mix) == 3);
}

TEST_CASE("a long side of a branch may be skipped, a short one is not worth it") {
    const std::string long_side =
        "float a = 0; if (uv.x < 0.5) { a = gradient_noise(uv * 3) + sin(uv.x) * cos(uv.y) + sqrt(uv.x + uv.y) * "
        "exp(uv.x) + "
        "log(uv.y + 1) * tan(uv.x) + value_noise(uv * 9); } return a;";
    CHECK(count(lower(pass_of(long_side)), Op::skip_begin) == 1);
    CHECK(count(lower(pass_of(long_side), Unrolling::no), Op::skip_begin) == 0);
    CHECK(count(lower(pass_of("float a = 0; if (uv.x < 0.5) a = 1; return a;")), Op::skip_begin) == 0);
    CHECK(drawn(long_side, 39, 3) == 0);
    CHECK(drawn(long_side, 0, 3) != 0);
}

TEST_CASE("each pixel turns as often as it wants, to the bound") {
    const std::string own = "float s = 0; for (int i = 0; i < int(pixel.x); i++) s += 1; return s;";
    for (const int x : {0, 1, 17, 39}) CHECK(drawn(own, x, 2) == static_cast<float>(x));
    CHECK(drawn("float s = 0; for (; true;) s += 1; return s;", 3, 0, 4, 1) == 65536);
    const std::string left =
        "float s = 0; for (int i = 0; i < 100; i++) { if (float(i) > pixel.x) break; s = float(i); } return s;";
    CHECK(drawn(left, 25, 1) == 25);
    const std::string gave = "for (int i = 0; i < 100; i++) { if (float(i) > pixel.x) return float(i); } return -1;";
    CHECK(drawn(gave, 25, 1) == 26);
    const std::string swapped = "vec2 a = vec2(1, 2); for (int i = 0; i < int(pixel.x); i++) a = a.yx; return a.x;";
    CHECK(drawn(swapped, 3, 0) == 2);
    CHECK(drawn(swapped, 4, 0) == 1);
}

TEST_CASE("derivatives are the same at odd sizes and at the last row and column") {
    for (const int width : {1, 2, 5, 40}) {
        for (const int height : {1, 2, 7}) {
            const DrawnStep step = test::draw(
                test::finish_of({{"value", "vec2(dFdx(pixel.x * 2), dFdy(pixel.y * 3))"}}), "value", width, height);
            for (int y = 0; y < height; ++y) {
                for (int x = 0; x < width; ++x) {
                    REQUIRE(step.picture.at(x, y)[0] == 2);
                    REQUIRE(step.picture.at(x, y)[1] == 3);
                }
            }
        }
    }
}

TEST_CASE("a loop can be called off") {
    WorkerPool pool(1);
    const Program program =
        lay_out(optimised(lower(pass_of("float s = 0; for (; true;) s += sin(s + uv.x); return s;"))), best_kernels());
    RunInputs inputs;
    inputs.width = 4096;
    inputs.height = 4096;
    const std::vector<float> uniforms(program.uniform_slots.size(), 0.0F);
    inputs.uniforms = uniforms;
    std::vector<Picture> outputs = {Picture(4096, 4096, 1)};
    Cancel cancel;
    std::thread later([&] { cancel.request(); });
    CHECK_FALSE(run(program, inputs, outputs, pool, cancel));
    later.join();
}

TEST_CASE("what follows an early return, and what an if is costly for, is skipped where nobody wants it") {
    // By itself one noise is a single node, but worth more than the question whether it is wanted.
    const std::string noise = "gradient_noise(vec3(uv * 9, radius))";
    const Ir early = optimised(lower(pass_of("if (radius > 1.0) return uv.x; float n = " + noise + "; return n * n;")));
    CHECK(count(early, Op::skip_begin) == 1);
    const Ir chosen = optimised(lower(pass_of("if (radius > 1.0) return " + noise + "; return uv.x;")));
    CHECK(count(chosen, Op::skip_begin) == 1);
    // What is cheap is not worth asking for.
    const Ir cheap = optimised(lower(pass_of("if (radius > 1.0) return uv.x; return uv.y;")));
    CHECK(count(cheap, Op::skip_begin) == 0);
    for (const int x : {0, 17, 39}) {
        const std::string tail = "float n = value_noise(uv * 9) * 4; return n + 1;";
        const float whole = drawn(tail, x, 3);
        // For none, for all, for some of the pixels of a strip.
        CHECK(drawn("if (time > 5.0) return -1; " + tail, x, 3) == whole);
        CHECK(drawn("if (time < 5.0) return -1; " + tail, x, 3) == -1.0F);
        CHECK(drawn("if (uv.x < 0.5) return -1; " + tail, x, 3) == (x < 20 ? -1.0F : whole));
        const std::string turns =
            "float s = 0; for (int i = 0; i < 5; i++) { if (float(i) > uv.x * 5) continue; "
            "s += value_noise(uv * 9 + float(i)); } return s;";
        const std::string plain =
            "float s = 0; for (int i = 0; i < 5; i++) s += float(i) > uv.x * 5 ? 0.0 : "
            "value_noise(uv * 9 + float(i)); return s;";
        CHECK(drawn(turns, x, 3) == drawn(plain, x, 3));
    }
}
