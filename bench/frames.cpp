// Whole frames of the demo. Compare the rows of one run with one another; the times themselves belong to the machine.
#include <benchmark/benchmark.h>

#include "bench/material.h"
#include "core/render/renderer.h"
#include "core/render/view.h"

namespace {

using namespace lacquer;
using bench::demo_request;

// The frame drawn and turned into display values, at the share of its size that is handed in: 1, or the half to which a
// drag falls back where whole frames come too late.
void draw_demo(benchmark::State& state, int share, Backend backend) {
    WorkerPool pool;
    Renderer renderer(pool);
    if (renderer.use(backend)) return state.SkipWithError("there is no GL");
    RenderRequest request = demo_request(0.7);
    request.width = request.checked->finish->frame_width / share;
    request.height = request.checked->finish->frame_height / share;
    (void)renderer.render(request, Cancel());  // reads the picture
    for (auto _ : state) {
        Result<Frame> frame = renderer.render(request, Cancel());
        const Image8 image = to_image(frame->steps[0].picture, frame->steps[0].type, pool);
        benchmark::DoNotOptimize(image.data.data());
    }
}
void demo_frame(benchmark::State& state) { draw_demo(state, 1, Backend::cpu); }
BENCHMARK(demo_frame)->Unit(benchmark::kMillisecond)->UseRealTime();
void demo_frame_in_drag(benchmark::State& state) { draw_demo(state, 2, Backend::cpu); }
BENCHMARK(demo_frame_in_drag)->Unit(benchmark::kMillisecond)->UseRealTime();
void demo_frame_by_gl(benchmark::State& state) { draw_demo(state, 1, Backend::gpu); }
BENCHMARK(demo_frame_by_gl)->Unit(benchmark::kMillisecond)->UseRealTime();

void demo_frame_at_rest(benchmark::State& state) {
    WorkerPool pool;
    Renderer renderer(pool);
    const RenderRequest request = demo_request(0);
    (void)renderer.render(request, Cancel());  // reads the picture
    for (auto _ : state) benchmark::DoNotOptimize(renderer.render(request, Cancel())->steps.data());
}
BENCHMARK(demo_frame_at_rest)->Unit(benchmark::kMillisecond)->UseRealTime();

void demo_thumbnails(benchmark::State& state) {
    WorkerPool pool;
    Renderer renderer(pool);
    RenderRequest request = demo_request(0.7);
    request.width = 240;
    request.height = 136;
    request.small_grounds = true;
    request.steps.clear();
    for (const CheckedStep& step : request.checked->steps) request.steps.push_back(step.name);
    for (auto _ : state) benchmark::DoNotOptimize(renderer.render(request, Cancel())->steps.data());
}
BENCHMARK(demo_thumbnails)->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
