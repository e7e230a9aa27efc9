// Whole frames: the demo at its own size, its parts, and one effect against a kernel written by hand. Compare the rows
// of one run with one another; the times themselves belong to the machine.
#include <benchmark/benchmark.h>

#include <cstdlib>
#include <string>

#include "bench/noise_vignette.h"
#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/render/renderer.h"
#include "core/render/view.h"

namespace {

using namespace lacquer;

RenderRequest demo_request(double time) {
    Result<OpenedFinish> opened = load_finish(std::string(LACQUER_DEMO) + "/finishes/squall-strike.lacquer");
    if (!opened) std::abort();
    RenderRequest request;
    request.finish_path = std::string(LACQUER_DEMO) + "/finishes/squall-strike.lacquer";
    request.checked =
        std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(opened->finish)));
    request.cues = opened->finish.tape;
    request.time = time;
    request.steps = {""};
    return request;
}

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

// What an edit costs before the first pixel: checking, planning, compiling, by changing a formula each time.
void demo_edit(benchmark::State& state) {
    WorkerPool pool;
    Renderer renderer(pool);
    RenderRequest request = demo_request(0.7);
    request.width = request.height = 1;
    Finish finish = *request.checked->finish;
    int n = 0;
    for (auto _ : state) {
        finish.coats[0].steps[1].formula = "length(centred) * 1.0" + std::to_string(n++);
        request.checked = std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(finish)));
        benchmark::DoNotOptimize(renderer.render(request, Cancel())->steps.data());
    }
}
BENCHMARK(demo_edit)->Unit(benchmark::kMillisecond)->UseRealTime();

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

// Fifty steps, each of which reads the one above: checked, planned and compiled from nothing.
void compile_50_steps(benchmark::State& state) {
    Finish finish = empty_finish();
    for (int n = 0; n < 50; ++n) {
        Step step;
        step.name = "s_" + std::to_string(n);
        step.formula =
            n == 0 ? "uv.x" : "mix(s_" + std::to_string(n - 1) + ", sin(uv.y * " + std::to_string(n) + "), 0.5) * 0.9";
        finish.coats[0].steps.push_back(step);
    }
    RenderRequest request;
    request.steps = {""};
    request.width = request.height = 1;
    WorkerPool pool(1);
    for (auto _ : state) {
        Renderer renderer(pool);
        request.checked = std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(finish)));
        benchmark::DoNotOptimize(renderer.render(request, Cancel())->steps.data());
    }
}
BENCHMARK(compile_50_steps)->Unit(benchmark::kMillisecond)->UseRealTime();

void draw_vignette(benchmark::State& state, Backend backend) {
    Finish finish = empty_finish();
    finish.dials.resize(2);
    finish.dials[0].name = "radius";
    finish.dials[0].value = {0.5, 0, 0};
    finish.dials[1].name = "softness";
    finish.dials[1].value = {0.4, 0, 0};
    Step step;
    step.name = "rim";
    step.formula = bench::noise_vignette_formula;
    finish.coats[0].steps.push_back(step);
    RenderRequest request;
    request.checked = std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(finish)));
    request.steps = {""};
    request.frame_width = 1920;
    request.frame_height = 1080;
    WorkerPool pool;
    Renderer renderer(pool);
    if (renderer.use(backend)) return state.SkipWithError("there is no GL");
    for (auto _ : state) benchmark::DoNotOptimize(renderer.render(request, Cancel())->steps.data());
}
void vignette_by_strips(benchmark::State& state) { draw_vignette(state, Backend::cpu); }
void vignette_by_gl(benchmark::State& state) { draw_vignette(state, Backend::gpu); }
BENCHMARK(vignette_by_gl)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(vignette_by_strips)->Unit(benchmark::kMillisecond)->UseRealTime();

void vignette_by_hand(benchmark::State& state) {
    WorkerPool pool;
    for (auto _ : state) {
        Picture out(1920, 1080, 1);
        bench::draw_noise_vignette(out, 0.5F, 0.4F, pool);
        benchmark::DoNotOptimize(out.data.data());
    }
}
BENCHMARK(vignette_by_hand)->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace

BENCHMARK_MAIN();
