// What an edit costs before the first pixel: checking, planning, compiling.
#include <benchmark/benchmark.h>

#include "bench/material.h"

namespace {

using namespace lacquer;

Finish fifty_steps() {
    std::vector<std::pair<std::string, std::string>> steps = {{"s_0", "uv.x"}};
    for (int n = 1; n < 50; ++n) {
        steps.emplace_back("s_" + std::to_string(n),
                           "mix(s_" + std::to_string(n - 1) + ", sin(uv.y * " + std::to_string(n) + "), 0.5) * 0.9");
    }
    return bench::finish_of(steps);
}

void draw_pixel(Renderer& renderer, RenderRequest& request, const Finish& finish) {
    request.checked = std::make_shared<const CheckedFinish>(
        check_finish(std::make_shared<const Finish>(finish), built_in_catalogue(), request.checked.get()));
    benchmark::DoNotOptimize(renderer.render(request, Cancel())->steps.data());
}

// Each step reads the one above: checked, planned and compiled from nothing.
void compile_50_steps(benchmark::State& state) {
    const Finish finish = fifty_steps();
    RenderRequest request;
    request.steps = {""};
    request.width = request.height = 1;
    WorkerPool pool(1);
    for (auto _ : state) {
        Renderer renderer(pool);
        request.checked = nullptr;
        draw_pixel(renderer, request, finish);
    }
}
BENCHMARK(compile_50_steps)->Unit(benchmark::kMicrosecond)->UseRealTime();

// One formula changed each time, all else as it was.
void edit_formula(benchmark::State& state, Finish finish, RenderRequest request, std::size_t step,
                  const std::string& formula) {
    WorkerPool pool(1);
    Renderer renderer(pool);
    request.width = request.height = 1;
    draw_pixel(renderer, request, finish);  // reads the picture
    int n = 0;
    for (auto _ : state) {
        finish.coats[0].steps[step].formula = formula + std::to_string(n++);
        draw_pixel(renderer, request, finish);
    }
}
void edit_one_of_50(benchmark::State& state) {
    const Finish finish = fifty_steps();
    edit_formula(state, finish, bench::request_for(finish), 25, "mix(s_24, sin(uv.y), 0.5) * 0.9");
}
BENCHMARK(edit_one_of_50)->Unit(benchmark::kMicrosecond)->UseRealTime();
void edit_the_demo(benchmark::State& state) {
    const RenderRequest request = bench::demo_request(0.7);
    edit_formula(state, *request.checked->finish, request, 1, "length(centred) * 1.0");
}
BENCHMARK(edit_the_demo)->Unit(benchmark::kMicrosecond)->UseRealTime();

}  // namespace
