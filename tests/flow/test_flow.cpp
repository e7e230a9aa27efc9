// Pictures that feed back: `previous`, drawn.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "tests/support/finishes.h"
#include "tests/support/player.h"

using namespace lacquer;
using test::checked;
using test::finish_of;
using test::Player;
using test::same_bits;
using test::tick_time;

namespace {

Finish flow_finish(const std::vector<std::pair<std::string, std::string>>& steps, int width = 8, int height = 8) {
    Finish finish = finish_of(steps);
    finish.frame_width = width;
    finish.frame_height = height;
    return finish;
}

Step& step_of(Finish& finish, const std::string& name) {
    for (Step& step : finish.coats[0].steps.own()) {
        if (step.name == name) return step;
    }
    throw std::runtime_error("no step " + name);
}

Dial dial_of(const std::string& name) {
    Dial dial;
    dial.name = dial.code_name = name;
    dial.value = {1, 0, 0};
    dial.most = 10;
    return dial;
}

}  // namespace

// 0.99^69 = 0.4998 and the sum of 0.99^n is 100: the geometric series, any textbook.
TEST_CASE("0.99 a tick halves in 69 ticks, and a constant input c settles at 100 c") {
    Finish fade = flow_finish({{"flow", "previous(flow) * 0.99"}});
    step_of(fade, "flow").ticking = {1, "1"};
    Player fading(fade);
    CHECK(fading.value(0) == Approx(0.99));
    // Tick 0 fades once already, so that after tick 68 it has faded 69 times.
    CHECK(fading.value(tick_time(68)) == Approx(0.5).margin(0.001));
    Finish fed = flow_finish({{"flow", "previous(flow) * 0.99 + 0.02"}});
    step_of(fed, "flow").ticking.width = 1;
    Player feeding(fed);
    CHECK(feeding.value(0) == Approx(0.02));
    CHECK(feeding.value(tick_time(1500)) == Approx(2).margin(1e-4));
}

TEST_CASE("previous reads any step: itself, those above, those below") {
    Finish finish = flow_finish({{"above", "tick + 1"},
                                 {"own", "previous(own) + 1"},
                                 {"reads", "vec3(previous(above), previous(below), previous(own, uv))"},
                                 {"below", "tick * 10 + 5"}});
    step_of(finish, "own").ticking.width = 1;
    step_of(finish, "below").ticking.width = 1;
    Player player(finish);
    const auto values = [&](std::int64_t tick) {
        const Picture picture = player.picture(tick_time(tick), "reads");
        return std::vector<float>(picture.data.begin(), picture.data.begin() + 3);
    };
    CHECK(values(0) == std::vector<float>{0, 0, 0});
    CHECK(values(1) == std::vector<float>{1, 5, 1});
    CHECK(values(4) == std::vector<float>{4, 35, 4});
    CHECK(checked(finish)->ticked.size() == 4);
}

TEST_CASE("what has no width before it stands is a fault that says how to mend it") {
    const auto fault_of = [](const Finish& finish, const std::string& step) {
        const auto made = checked(finish);
        const CheckedStep* found = find_step(*made, step);
        REQUIRE(found != nullptr);
        REQUIRE(found->fault);
        return *found->fault;
    };
    const Fault unsaid = fault_of(flow_finish({{"flow", "previous(flow) + 1"}}), "flow");
    CHECK(unsaid.id == "finish.past");
    CHECK(unsaid.mend.find("flow: 4") != std::string::npos);
    CHECK(fault_of(flow_finish({{"a", "previous(b)"}, {"b", "uv"}}), "a").id == "finish.past");
    CHECK(fault_of(flow_finish({{"a", "previous(uv)"}}), "a").id == "lang.previous");
    CHECK(fault_of(flow_finish({{"a", "previous(nothing)"}}), "a").id == "lang.unknown-name");
    CHECK(fault_of(flow_finish({{"a", "1"}, {"b", "previous(a, 1, 2)"}}), "b").id == "lang.count");
    CHECK(fault_of(flow_finish({{"a", "1"}, {"b", "previous(a, vec3(1))"}}), "b").id == "lang.width");
    Finish wrong = flow_finish({{"flow", "previous(flow) + uv"}});
    step_of(wrong, "flow").ticking.width = 4;
    CHECK(fault_of(wrong, "flow").id == "lang.width");
    Finish other = flow_finish({{"flow", "uv"}, {"b", "previous(flow)"}});
    step_of(other, "flow").ticking.width = 4;
    CHECK(fault_of(other, "flow").id == "finish.past");
    Finish start = flow_finish({{"flow", "previous(flow)"}});
    step_of(start, "flow").ticking = {2, "vec3(1)"};
    CHECK(fault_of(start, "flow").message.starts_with("what it starts as: "));
    Finish dial = flow_finish({{"a", "1"}});
    dial.dials.push_back(dial_of("d"));
    dial.dials[0].formula = "previous(a)";
    CHECK(checked(dial)->dials[0].fault);
}

TEST_CASE("a step that is declared wider than its formula is filled up") {
    Finish finish = flow_finish({{"flow", "previous(flow) * 0 + uv.x"}});
    step_of(finish, "flow").ticking.width = 4;
    CHECK(find_step(*checked(finish), "flow")->typed->type == Type::vec4);
}

TEST_CASE("between ticks the last one is seen, or a blend of the last two") {
    Finish finish = flow_finish({{"flow", "previous(flow) + 1"}, {"shown", "flow + tick_part"}});
    step_of(finish, "flow").ticking.width = 1;
    Player player(finish);
    CHECK(player.value(tick_time(3), "flow") == 4);
    CHECK(player.value(tick_time(3) + 0.012, "flow") == 4);
    CHECK(player.value(tick_time(3) + 0.25 / 60, "shown") == Approx(4.25));
    step_of(finish, "flow").ticking.smooth = true;
    player.set(finish);
    CHECK(player.value(tick_time(3), "flow") == 3);
    CHECK(player.value(tick_time(3) + 0.25 / 60, "flow") == Approx(3.25));
    // At the very first tick there is none before.
    CHECK(player.value(0.5 / 60, "flow") == 1);
}

TEST_CASE("all begins anew at a cue, and as a signal rises") {
    Finish finish = flow_finish({{"flow", "previous(flow) + 1"}, {"count", "tick"}});
    step_of(finish, "flow").ticking.width = 1;
    finish.cues.push_back({.name = "gust"});
    finish.tape.cues.push_back({"gust", 1, 0.5});
    finish.ticks.reset = "gust";
    Player player(finish);
    CHECK(player.value(tick_time(59), "flow") == 60);
    CHECK(player.value(tick_time(60), "flow") == 1);
    CHECK(player.value(tick_time(61), "count") == 1);
    CHECK(player.value(tick_time(59), "flow") == 60);
    finish.signals.push_back({.name = "docked"});
    finish.ticks.reset = "docked";
    finish.tape.changes.own() = {{"docked", 0.25, {1, 0, 0}},
                                 {"docked", 0.5, {0.9, 0, 0}},
                                 {"docked", 0.75, {0, 0, 0}},
                                 {"docked", 1.0, {0.6, 0, 0}}};
    player.set(finish);
    CHECK(player.value(tick_time(15), "flow") == 1);
    CHECK(player.value(tick_time(59), "flow") == 45);
    CHECK(player.value(tick_time(60), "flow") == 1);
}

TEST_CASE("a loop is drawn at a size of its own, and frames of any size see the same") {
    Finish finish = flow_finish({{"flow", "previous(flow) * 0.5 + pixel.x"}}, 64, 36);
    step_of(finish, "flow").ticking = {1, "", 0.5};
    const auto made = checked(finish);
    REQUIRE(made->ticked.size() == 1);
    CHECK(made->ticked[0].scale == 0.5);
    const Plan plan = plan_ticks(*made);
    REQUIRE(plan.passes.size() == 1);
    CHECK(plan.passes[0].scale == 0.5);
    CHECK(plan.passes[0].resources.at("flow").lifetime == Lifetime::tick);
    Player player(finish);
    const Picture whole = player.picture(tick_time(5));
    CHECK(whole.width == 64);
    player.request.width = 16;
    player.request.height = 9;
    const Frame small = player.frame(tick_time(5));
    CHECK(small.ticks == 0);
    // A pixel of the small picture reads between those of the loop.
    CHECK(small.steps[0].picture.at(8, 4)[0] == Approx(whole.at(34, 18)[0]).margin(2));
    // Odd sizes, and widths in pixels.
    for (const auto& [width, pixels] : std::vector<std::pair<int, int>>{{7, 0}, {1, 0}, {1000, 333}, {49, 48}}) {
        Finish odd = flow_finish({{"flow", "previous(flow) + 1"}}, width, 5);
        step_of(odd, "flow").ticking = {1, "", 0.25, pixels};
        Player other(odd);
        CHECK(other.value(tick_time(2)) == 3);
        if (pixels > 0) CHECK(scaled_side(width, checked(odd)->ticked[0].scale) == pixels);
    }
}

TEST_CASE("the same bits whether played, sought, in any order, on one thread or eight, on any instruction set") {
    Finish finish = flow_finish(
        {{"gust", "vec2(fractal_gradient_noise(vec3(uv * 4, time), 3), gradient_noise(vec3(uv * 3, 2 - time))) - 0.5"},
         {"flow", "previous(flow, uv - gust * 0.02) * 0.97 + smoothstep(0.2, 0.1, length(uv - vec2(0.5, 0.8))) * 0.1"},
         {"lit", "vec3(flow, flow * flow, 0.2)"}},
        61, 37);
    step_of(finish, "flow").ticking.width = 1;
    Player forward(finish, 1);
    std::vector<Picture> frames;
    for (std::int64_t tick = 0; tick <= 60; ++tick) frames.push_back(forward.picture(tick_time(tick)));
    const auto check = [&](Player player) {
        for (const std::int64_t tick : {60, 0, 31, 30, 59, 2})
            CHECK(same_bits(player.picture(tick_time(tick)), frames[static_cast<std::size_t>(tick)]));
    };
    check(Player(finish, 8));
    for (const KernelSet& kernels : kernel_sets()) check(Player(finish, 2, kernels));
}

TEST_CASE("live play and held dials go into what ticks leave, and only from where they differ") {
    Finish finish = flow_finish({{"flow", "previous(flow) + amount"}});
    step_of(finish, "flow").ticking.width = 1;
    finish.dials.push_back(dial_of("amount"));
    finish.dials.push_back(dial_of("tint"));
    Player player(finish);
    CHECK(player.value(tick_time(60)) == 61);
    // What ticks do not hear of leaves them as they are.
    finish.dials[1].value[0] = 0.5;
    finish.name = "renamed";
    player.set(finish);
    CHECK(player.frame(tick_time(60)).ticks == 0);
    auto live = std::make_shared<Tape>();
    live->changes.push_back({"amount", 0.5, {3, 0, 0}});
    player.request.tape = live;
    const Frame changed = player.frame(tick_time(60));
    CHECK(changed.steps[0].picture.data[0] == 30 + 31 * 3);
    CHECK(changed.ticks == 31);
    player.request.tape = nullptr;
    player.request.held = {{"amount", {2, 0, 0}}};
    CHECK(player.value(tick_time(60)) == 122);
}

TEST_CASE("in a drag ticks go on from where they are, are said to be rough, and are worked out at its end") {
    Finish finish = flow_finish({{"flow", "previous(flow) + amount"}});
    step_of(finish, "flow").ticking.width = 1;
    finish.dials.push_back(dial_of("amount"));
    Player player(finish);
    CHECK(player.value(tick_time(9)) == 10);
    finish.dials[0].value[0] = 5;
    player.set(finish);
    player.request.in_a_drag = true;
    const Frame rough = player.frame(tick_time(10));
    CHECK(rough.ticks_are_rough);
    CHECK(rough.steps[0].picture.data[0] == 15);
    CHECK(rough.ticks == 1);
    finish.dials[0].value[0] = 7;
    player.set(finish);
    CHECK(player.frame(tick_time(10)).steps[0].picture.data[0] == 17);
    player.request.in_a_drag = false;
    const Frame true_one = player.frame(tick_time(10));
    CHECK_FALSE(true_one.ticks_are_rough);
    CHECK(true_one.steps[0].picture.data[0] == 77);
}

TEST_CASE("rough ticks are drawn at the drawn size, all of them, and leave the others alone") {
    Finish finish = flow_finish({{"flow", "previous(flow) + amount * (1 + 0 * pixel.x)"}}, 40, 20);
    step_of(finish, "flow").ticking.width = 1;
    finish.dials.push_back(dial_of("amount"));
    Player player(finish);
    player.request.rough_ticks = true;
    player.request.width = 10;
    player.request.height = 5;
    const Frame rough = player.frame(tick_time(9));
    CHECK(rough.ticks_are_rough);
    CHECK(rough.ticks == 10);
    CHECK(rough.steps[0].picture.width == 10);
    CHECK(rough.steps[0].picture.data[0] == 10);
    CHECK(player.frame(tick_time(10)).ticks == 1);
    // At the frame's own size they are drawn from the beginning, and then those are taken for small frames, too.
    player.request.rough_ticks = false;
    player.request.width = player.request.height = 0;
    CHECK(player.frame(tick_time(10)).ticks == 11);
    player.request.rough_ticks = true;
    player.request.width = 10;
    player.request.height = 5;
    const Frame known = player.frame(tick_time(10));
    CHECK_FALSE(known.ticks_are_rough);
    CHECK(known.ticks == 0);
    // In a drag the last tick is drawn once more, from the whole picture before it.
    finish.dials[0].value[0] = 5;
    player.set(finish);
    player.request.in_a_drag = true;
    const Frame dragged = player.frame(tick_time(10));
    CHECK(dragged.ticks_are_rough);
    CHECK(dragged.ticks == 1);
    CHECK(dragged.steps[0].picture.data[0] == 15);
    // Another size begins anew, a frame of that size of its own as well.
    player.request.in_a_drag = false;
    player.request.width = 20;
    CHECK(player.frame(tick_time(2)).ticks == 3);
    player.request.rough_ticks = false;
    player.request.frame_width = 20;
    player.request.frame_height = 5;
    CHECK(player.frame(tick_time(2)).ticks == 3);
}

TEST_CASE("what goes from pixel to pixel is never drawn roughly, what knows how large the frame is may be") {
    const auto is_rough = [](const std::string& formula, int numbers = 4) {
        Finish finish = flow_finish({{"flow", formula}}, 40, 20);
        step_of(finish, "flow").ticking.width = numbers;
        INFO(formula);
        REQUIRE_FALSE(find_step(*checked(finish), "flow")->fault);
        Player player(finish);
        player.request.rough_ticks = true;
        player.request.width = 10;
        player.request.height = 5;
        player.request.checked = checked(finish);
        const bool expected = player.renderer().would_be_rough(player.request);
        const Frame frame = player.frame(tick_time(3));
        CHECK(frame.ticks_are_rough == expected);
        return expected;
    };
    CHECK(is_rough("previous(flow, uv.yx) * 0.9 + vec4(uv, 0, 1)"));
    CHECK(is_rough("diffuse(previous(flow), 30)"));
    CHECK_FALSE(is_rough("previous(flow, uv + pixel_size)"));
    CHECK_FALSE(is_rough("reaction(previous(flow), 0.03, 0.06)", 2));
}

TEST_CASE("a step that is off, moved, renamed or deleted while it runs, and one that grows beyond all numbers") {
    Finish finish = flow_finish({{"flow", "previous(flow) * 1e30 + 1"}, {"seen", "flow"}});
    step_of(finish, "flow").ticking.width = 1;
    Player player(finish);
    CHECK(std::isinf(player.value(tick_time(5))));
    Result<Finish> renamed = rename(finish, "flow", "smoke");
    REQUIRE(renamed);
    CHECK(step_of(*renamed, "smoke").formula == "previous(smoke) * 1e30 + 1");
    player.set(*renamed);
    CHECK(std::isinf(player.value(tick_time(5))));
    step_of(*renamed, "smoke").on = false;
    player.set(*renamed);
    CHECK(player.value(tick_time(5)) == 0);
    renamed->coats[0].steps.own().erase(renamed->coats[0].steps.own().begin());
    player.set(*renamed);
    const auto left = checked(*renamed);
    CHECK(find_step(*left, "seen")->fault);
    CHECK(left->ticked.empty());
}

TEST_CASE("halves round what a tick leaves") {
    Finish finish = flow_finish({{"flow", "previous(flow) * 0.9 + 0.1001"}});
    step_of(finish, "flow").ticking.width = 1;
    Player exact(finish);
    step_of(finish, "flow").ticking.half = true;
    Player rounded(finish);
    CHECK(rounded.value(tick_time(50)) == Approx(exact.value(tick_time(50))).epsilon(1e-2));
    CHECK(rounded.value(tick_time(50)) != exact.value(tick_time(50)));
}

TEST_CASE("a finish keeps what it says of ticks in its file") {
    Finish finish = flow_finish({{"flow", "previous(flow)"}});
    step_of(finish, "flow").ticking = {3, "vec3(1)", 0.25, 320, true, true};
    finish.ticks = {90, "gust"};
    const auto again = finish_from_text(finish_to_text(finish), "flow.lacquer");
    REQUIRE(again);
    CHECK(again->notices.empty());
    CHECK(again->finish == finish);
    for (const char* wrong : {R"("tick_rate": 23)", R"("tick_rate": 1e9)",
                              R"("coats": [{"steps": [{"name": "a", "formula": "1", "numbers": 5}]}])",
                              R"("coats": [{"steps": [{"name": "a", "formula": "1", "share": 0.3}]}])",
                              R"("coats": [{"steps": [{"name": "a", "formula": "1", "pixels_wide": -2}]}])"}) {
        const auto read = finish_from_text(std::string(R"({"format": 1, )") + wrong + "}", "x.lacquer");
        INFO(wrong);
        REQUIRE(read);
        CHECK(read->notices.size() == 1);
    }
}

TEST_CASE("a loop that asks for more pixels than can be drawn is held to what can be, or told") {
    Finish finish = flow_finish({{"flow", "previous(flow) + 1"}}, 2, 400);
    step_of(finish, "flow").ticking = {1, "", 1, 32768};
    const auto made = checked(finish);
    REQUIRE(made->ticked.size() == 1);
    CHECK(is_drawable_size(scaled_side(2, made->ticked[0].scale), scaled_side(400, made->ticked[0].scale)));
    Player player(flow_finish({{"a", "1"}}, 1, 1));
    finish = flow_finish({{"flow", "previous(flow) + 1"}}, 1, 1);
    step_of(finish, "flow").ticking = {1, "", 1, 4000};
    player.set(finish);
    player.request.frame_width = player.request.frame_height = 4000;
    player.request.width = player.request.height = 4;
    player.request.steps = {""};
    const Result<Frame> refused = player.renderer().render(player.request, Cancel());
    REQUIRE_FALSE(refused);
    CHECK(refused.fault().id == "render.size");
}

TEST_CASE("an operation takes what a step was in the last tick as any picture") {
    Finish finish =
        flow_finish({{"blurred", "gaussian_blur(previous(flow), 2)"}, {"flow", "blurred + vec4(uv, 0, 1)"}}, 16, 16);
    step_of(finish, "flow").ticking.width = 4;
    Player player(finish);
    const auto made = checked(finish);
    for (const CheckedStep& step : made->steps) {
        if (step.fault) FAIL(to_text(*step.fault));
    }
    const Picture first = player.picture(0);
    const Picture later = player.picture(tick_time(3));
    CHECK(later.at(8, 8)[0] > first.at(8, 8)[0] * 3);
}

TEST_CASE("the pictures of ticks stand under the one budget of what is kept") {
    Finish finish = flow_finish({{"flow", "previous(flow) * 0.9 + vec4(uv, 0.1, 1)"}}, 64, 32);
    step_of(finish, "flow").ticking.width = 4;
    PictureLimits limits;
    const std::size_t one = 64 * 32 * 4 * sizeof(float);
    limits.most = 20 * one;
    const auto stores = std::make_shared<RenderStores>(limits);
    WorkerPool pool(1);
    {
        Renderer renderer(pool, std::nullopt, stores);
        for (const double brightness : {1.0, 2.0}) {
            step_of(finish, "flow").formula =
                "previous(flow) * 0.9 + vec4(uv, 0.1, " + std::to_string(brightness) + ")";
            RenderRequest request;
            request.checked = checked(finish);
            request.steps = {""};
            for (int tick = 0; tick < 200; tick += 7) {
                request.time = tick_time(tick);
                REQUIRE(renderer.render(request, Cancel()));
                CHECK(stores->pictures.bytes() > 0);
                // Half of it is theirs; pictures may have the rest.
                CHECK(stores->pictures.bytes() <= 10 * one);
            }
        }
    }
    CHECK(stores->pictures.bytes() == 0);
}
