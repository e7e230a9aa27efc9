// Every operation as it is shown, at 1080p. The samples are read from files, so that only the operation is measured;
// `copied_frames` is its time over that of a finish that hands on a picture as it is.
#include <benchmark/benchmark.h>

#include <algorithm>
#include <array>
#include <chrono>
#include <cstdlib>
#include <filesystem>

#include "bench/material.h"
#include "core/catalogue/samples.h"
#include "core/finish/shown.h"
#include "core/picture/files.h"
#include "core/render/view.h"

namespace {

using namespace lacquer;

// The samples as pictures of 1920 x 1080, and steps of their names that read them.
Finish on_pictures(const std::string& formula) {
    Finish finish = finish_on_samples(formula);
    finish.frame_width = 1920;
    finish.frame_height = 1080;
    RenderRequest request = bench::request_for(finish);
    for (Step& step : finish.coats[0].steps) {
        if (step.name == "shown") continue;
        const auto path = std::filesystem::temp_directory_path() / ("lacquer-bench-" + step.name + ".png");
        const int parts = width_of(find_step(*request.checked, step.name)->typed->type);
        if (!std::filesystem::exists(path)) {
            WorkerPool pool;
            Renderer renderer(pool);
            request.steps = {step.name};
            const Result<Frame> frame = renderer.render(request, Cancel());
            if (!frame) std::abort();
            if (!write_png(path.string(), to_image(frame->steps[0].picture, frame->steps[0].type, pool))) std::abort();
        }
        const Ground ground{step.name + "_file", PictureGround{.path = path.string(), .data = parts < 4}};
        step.formula = ground.name + std::array{"", ".r", ".rg", ".rgb", ""}.at(static_cast<std::size_t>(parts));
        finish.grounds.push_back(ground);
    }
    return finish;
}

double copied_frame_seconds() {
    static const double seconds = [] {
        WorkerPool pool;
        Renderer renderer(pool);
        const RenderRequest request = bench::request_for(on_pictures("harbour"));
        std::vector<double> times;
        for (int i = 0; i < 15; ++i) {
            const auto begin = std::chrono::steady_clock::now();
            (void)renderer.render(request, Cancel());
            times.push_back(std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count());
        }
        std::sort(times.begin(), times.end());
        return times[times.size() / 2];
    }();
    return seconds;
}

void operation(benchmark::State& state) {
    auto found = built_in_catalogue()->operations.begin();
    std::advance(found, state.range(0));
    WorkerPool pool;
    Renderer renderer(pool);
    const RenderRequest request = bench::request_for(on_pictures(found->second.shown));
    (void)renderer.render(request, Cancel());
    const double copied = copied_frame_seconds();
    const auto begin = std::chrono::steady_clock::now();
    for (auto _ : state) benchmark::DoNotOptimize(renderer.render(request, Cancel())->steps.data());
    const double all = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
    state.counters["copied_frames"] = all / static_cast<double>(state.iterations()) / copied;
    state.SetLabel(found->first);
}

void each_operation(benchmark::internal::Benchmark* bench) {
    for (std::size_t i = 0; i < built_in_catalogue()->operations.size(); ++i) bench->Arg(static_cast<std::int64_t>(i));
}
BENCHMARK(operation)->Apply(each_operation)->Unit(benchmark::kMillisecond)->UseRealTime()->MinTime(0.05);

}  // namespace
