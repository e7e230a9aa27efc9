// Ticks: a loop of three steps at half of 1280 x 720, and the way to a moment long ago.
#include <benchmark/benchmark.h>

#include "core/render/renderer.h"

using namespace lacquer;

namespace {

constexpr double rate = 60;

Step loop_step(const std::string& name, const std::string& formula, int width) {
    Step step;
    step.name = name;
    step.formula = formula;
    step.ticking.width = width;
    step.ticking.share = 0.5;
    return step;
}

std::shared_ptr<const CheckedFinish> loop_of_three() {
    Finish finish;
    Coat coat;
    coat.name = "Loop";
    coat.steps.push_back(loop_step("wind", "previous(wind) * 0.98 + (uv.yx - 0.5) * vec2(0.004, -0.004)", 2));
    coat.steps.push_back(loop_step("carried", "previous(smoke, uv - wind * tick_length)", 4));
    coat.steps.push_back(
        loop_step("smoke", "mix(carried * 0.99, vec4(1), smoothstep(0.05, 0.02, length(uv - vec2(0.5, 0.8))))", 4));
    Step shown;
    shown.name = "shown";
    shown.formula = "smoke";
    coat.steps.push_back(shown);
    finish.coats.push_back(coat);
    finish.length = 120;
    return std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(std::move(finish))));
}

RenderRequest small_frame() {
    RenderRequest request;
    request.checked = loop_of_three();
    request.steps = {"shown"};
    // The frame itself costs next to nothing, so that what is left is the ticks.
    request.width = 16;
    request.height = 9;
    return request;
}

// One tick; real time are 1000 / 60 = 16.7 ms.
void play_on(benchmark::State& state) {
    WorkerPool pool;
    Renderer renderer(pool);
    RenderRequest request = small_frame();
    for (auto _ : state) {
        request.time += 1 / rate;
        benchmark::DoNotOptimize(renderer.render(request, Cancel())->ticks);
    }
}
BENCHMARK(play_on)->Unit(benchmark::kMillisecond)->UseRealTime();

// Ten seconds back in a take of a minute; 100 ms are asked for.
void seek_back(benchmark::State& state) {
    WorkerPool pool;
    Renderer renderer(pool);
    RenderRequest request = small_frame();
    request.time = 60;
    (void)renderer.render(request, Cancel());
    double back = 10;
    for (auto _ : state) {
        back = back > 10.9 ? 10 : back + 0.07;
        request.time = 60 - back;
        benchmark::DoNotOptimize(renderer.render(request, Cancel())->ticks);
    }
}
BENCHMARK(seek_back)->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
