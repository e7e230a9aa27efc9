// The way to any tick: the same state whichever way, within a budget, and kept states thinned with age.
#include <catch2/catch.hpp>
#include <random>

#include "core/flow/simulation.h"

using namespace lacquer;

namespace {

// One number a tick that remembers all before it.
struct Counter {
    std::int64_t drawn = 0;
    std::int64_t stop_after = -1;
    Cancel cancel;

    Simulation::Draw draw() {
        return [this](std::int64_t tick, const FlowPictures& before, bool) -> Result<FlowPictures> {
            if (++drawn == stop_after) cancel.request();
            const float last = before.empty() ? 0 : before.at("flow").here->data[0];
            auto picture = std::make_shared<Picture>(4, 4, 1);
            for (float& value : picture->data) value = last * 0.75F + static_cast<float>(tick % 17) + 1;
            return FlowPictures{{"flow", {picture, {}}}};
        };
    }
};

float value_of(const Result<FlowState>& state) { return state->now.at("flow").here->data[0]; }

constexpr std::size_t state_bytes = 16 * sizeof(float);

}  // namespace

TEST_CASE("a tick has the same state whichever way it is reached") {
    const std::vector<std::int64_t> begins{0, 40, 90};
    Counter straight;
    std::vector<float> values;
    for (std::int64_t tick = 0; tick < 120; ++tick) {
        Simulation fresh(1 << 20);
        values.push_back(value_of(fresh.at(tick, begins, straight.draw(), Cancel())));
    }
    CHECK(values[40] == 40 % 17 + 1);
    CHECK(values[41] != 41 % 17 + 1);
    std::mt19937 random(3);
    for (const std::size_t states : {std::size_t{2}, std::size_t{5}, std::size_t{1000}}) {
        Simulation simulation(states * state_bytes);
        Counter counter;
        for (int i = 0; i < 300; ++i) {
            const std::int64_t tick = std::uniform_int_distribution<std::int64_t>(0, 119)(random);
            const Result<FlowState> state = simulation.at(tick, begins, counter.draw(), Cancel());
            REQUIRE(state);
            REQUIRE(state->tick == tick);
            REQUIRE(value_of(state) == values[static_cast<std::size_t>(tick)]);
            if (begin_of(tick, begins) == tick) {
                REQUIRE(state->before.empty());
            } else {
                REQUIRE(state->before.at("flow").here->data[0] == values[static_cast<std::size_t>(tick - 1)]);
            }
            REQUIRE(simulation.bytes() <= states * state_bytes);
        }
    }
}

TEST_CASE("playing forward never draws a tick twice, and what is kept is at hand") {
    Counter counter;
    Simulation simulation(1 << 20);
    for (std::int64_t tick = 0; tick < 200; ++tick) REQUIRE(simulation.at(tick, {0}, counter.draw(), Cancel()));
    CHECK(counter.drawn == 200);
    for (std::int64_t tick = 199; tick >= 0; --tick) REQUIRE(simulation.at(tick, {0}, counter.draw(), Cancel()));
    CHECK(counter.drawn == 200);
}

TEST_CASE("an hour keeps to the budget, near now closely and long ago widely, the beginning always") {
    Counter counter;
    constexpr std::size_t states = 60;
    Simulation simulation(states * state_bytes);
    constexpr std::int64_t hour = 3600 * 60;
    for (std::int64_t tick = 0; tick < hour; ++tick) {
        REQUIRE(simulation.at(tick, {0}, counter.draw(), Cancel()));
        if (simulation.bytes() > states * state_bytes) FAIL("beyond the budget");
    }
    const std::vector<std::int64_t> kept = simulation.kept();
    CHECK(kept.size() == states);
    CHECK(kept.front() == 0);
    CHECK(kept.back() == hour - 1);
    std::int64_t widest_near = 0;
    for (std::size_t i = 1; i < kept.size(); ++i) {
        if (kept[i - 1] > hour - 600) widest_near = std::max(widest_near, kept[i] - kept[i - 1]);
    }
    CHECK(widest_near > 0);
    CHECK(widest_near < 120);
    const std::int64_t before = counter.drawn;
    REQUIRE(simulation.at(hour - 600, {0}, counter.draw(), Cancel()));
    CHECK(counter.drawn - before < 200);
}

TEST_CASE("what was drawn before it was called off is kept, and a way tells how far it is") {
    Counter counter;
    counter.stop_after = 30;
    Simulation simulation(1 << 20);
    double last = 0;
    const Result<FlowState> stopped =
        simulation.at(100, {0}, counter.draw(), counter.cancel, [&](double share) { last = share; });
    REQUIRE_FALSE(stopped);
    CHECK(stopped.fault().id == "render.cancelled");
    CHECK(last == Approx(30.0 / 101));
    counter.stop_after = -1;
    REQUIRE(simulation.at(100, {0}, counter.draw(), Cancel(), [&](double share) { last = share; }));
    CHECK(counter.drawn == 101);
    CHECK(last == 1);
}

TEST_CASE("what is no longer true is forgotten") {
    Counter counter;
    Simulation simulation(1 << 20);
    REQUIRE(simulation.at(50, {0}, counter.draw(), Cancel()));
    simulation.forget_after(20);
    CHECK(simulation.kept().back() == 20);
    CHECK(simulation.bytes() == 21 * state_bytes);
    REQUIRE(simulation.at(50, {0}, counter.draw(), Cancel()));
    CHECK(counter.drawn == 51 + 30);
    simulation.forget_after(-1);
    CHECK(simulation.kept().empty());
    CHECK(simulation.bytes() == 0);
}

TEST_CASE("halves are kept in half the room and lose nothing") {
    Simulation simulation(1 << 20, {"flow"});
    const auto draw = [](std::int64_t tick, const FlowPictures&, bool) -> Result<FlowPictures> {
        auto picture = std::make_shared<Picture>(4, 4, 1);
        for (float& value : picture->data) value = 1.0F / static_cast<float>(tick + 3);
        round_to_half(*picture);
        return FlowPictures{{"flow", {picture, {}}}};
    };
    const Result<FlowState> state = simulation.at(9, {0}, draw, Cancel());
    const float value = value_of(state);
    CHECK(value == Approx(1.0 / 12).epsilon(1e-3));
    CHECK(simulation.bytes() == 10 * state_bytes / 2);
    REQUIRE(simulation.at(3, {0}, draw, Cancel()));
    CHECK(value_of(simulation.at(9, {0}, draw, Cancel())) == value);
}
