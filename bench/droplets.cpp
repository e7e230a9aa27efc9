// Droplets: who lives, drawing them, and a loop written by hand that draws the same soft discs.
#include <benchmark/benchmark.h>

#include "bench/by_hand.h"
#include "core/droplets/draw.h"

using namespace lacquer;

namespace {

constexpr int width = 1280;
constexpr int height = 720;

// So many live, each of so many pixels, with motion of their own.
Droplets rain(int count, double pixels) {
    Droplets drops;
    const double life = 2;
    drops.number(DropNumberId::rate) = {count / life, count / life, {}};
    drops.number(DropNumberId::life) = {life, life, {}};
    drops.number(DropNumberId::size) = {pixels / height, pixels / height, {}};
    drops.number(DropNumberId::speed) = {0.1, 0.3, {}};
    drops.number(DropNumberId::fall) = {0.2, 0.2, {}};
    drops.number(DropNumberId::drag) = {0.5, 0.5, {}};
    drops.settled = true;
    drops.leaves = DropLeaves::wraps;
    return drops;
}

DropLayers colours() {
    DropLayers layers;
    layers[DropLayer::colour] = true;
    return layers;
}

void live_drops(benchmark::State& state) {
    WorkerPool pool;
    const Emitter emitter(rain(static_cast<int>(state.range(0)), 16), {});
    double time = 0;
    for (auto _ : state) benchmark::DoNotOptimize(emitter.alive(time += 1 / 60.0, width, height, &pool).drops.data());
}
BENCHMARK(live_drops)->Arg(200)->Arg(10'000)->Unit(benchmark::kMillisecond)->UseRealTime();

// 10,000 of 16 pixels are asked for in 8 ms, 200 of 300 pixels in 15.
void draw_live_drops(benchmark::State& state) {
    WorkerPool pool;
    const Droplets drops = rain(static_cast<int>(state.range(0)), static_cast<double>(state.range(1)));
    const LiveDrops live = Emitter(drops, {}).alive(1, width, height);
    DropPictures old;
    for (auto _ : state) old = draw_drops(live, drops, {}, width, height, colours(), pool, Cancel(), std::move(old));
}
BENCHMARK(draw_live_drops)->Args({10'000, 16})->Args({200, 300})->Unit(benchmark::kMillisecond)->UseRealTime();

// The same with all that steps can read of them.
void draw_all_layers(benchmark::State& state) {
    WorkerPool pool;
    const Droplets drops = rain(static_cast<int>(state.range(0)), static_cast<double>(state.range(1)));
    const LiveDrops live = Emitter(drops, {}).alive(1, width, height);
    DropLayers all;
    for (bool& wanted : all.wanted) wanted = true;
    DropPictures old;
    for (auto _ : state) old = draw_drops(live, drops, {}, width, height, all, pool, Cancel(), std::move(old));
}
BENCHMARK(draw_all_layers)->Args({10'000, 16})->Args({200, 300})->Unit(benchmark::kMillisecond)->UseRealTime();

void draw_drops_by_hand(benchmark::State& state) {
    WorkerPool pool;
    const Droplets drops = rain(static_cast<int>(state.range(0)), static_cast<double>(state.range(1)));
    const LiveDrops live = Emitter(drops, {}).alive(1, width, height);
    std::vector<bench::HandDrop> discs;
    for (const Drop& drop : live.drops)
        discs.push_back({static_cast<float>(drop.x), static_cast<float>(drop.y), static_cast<float>(drop.along)});
    Picture out(width, height, 4);
    for (auto _ : state) {
        bench::draw_soft_discs(out, discs, pool);
        benchmark::DoNotOptimize(out.data.data());
    }
}
BENCHMARK(draw_drops_by_hand)->Args({10'000, 16})->Args({200, 300})->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
