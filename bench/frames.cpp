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

// What a drag costs: the frame drawn and turned into display values.
void demo_frame(benchmark::State& state) {
    WorkerPool pool;
    Renderer renderer(pool);
    const RenderRequest request = demo_request(0.7);
    (void)renderer.render(request, Cancel());  // reads the picture
    for (auto _ : state) {
        Result<Frame> frame = renderer.render(request, Cancel());
        const Image8 image = to_image(frame->steps[0].picture, frame->steps[0].type, pool);
        benchmark::DoNotOptimize(image.data.data());
    }
}
BENCHMARK(demo_frame)->Unit(benchmark::kMillisecond)->UseRealTime();

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

void vignette_by_strips(benchmark::State& state) {
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
    for (auto _ : state) benchmark::DoNotOptimize(renderer.render(request, Cancel())->steps.data());
}
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
