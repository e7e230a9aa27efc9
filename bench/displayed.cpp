// Whole frames up to displayed pixels, which is what people wait for: every demo, and what the last step of that takes
// by itself. Compare the rows of one run.
#include <benchmark/benchmark.h>

#include <algorithm>
#include <filesystem>
#include <string>
#include <vector>

#include "bench/material.h"
#include "core/finish/file.h"
#include "core/finish/play.h"
#include "core/render/view.h"

namespace {

using namespace lacquer;

RenderRequest request_for_file(const std::string& path) {
    RenderRequest request;
    Result<OpenedFinish> opened = load_finish(path);
    if (!opened) return request;
    auto shared = std::make_shared<const Finish>(std::move(opened->finish));
    request.time = shared->length * 0.4;
    request.checked = std::make_shared<const CheckedFinish>(check_finish(shared));
    request.finish_path = path;
    request.steps = {""};
    request.seen = ViewStyle();
    return request;
}

void displayed(benchmark::State& state, const std::string& path) {
    const RenderRequest request = request_for_file(path);
    if (request.checked == nullptr) return state.SkipWithError("the demo cannot be read");
    WorkerPool pool;
    Renderer renderer(pool);
    (void)renderer.render(request, Cancel());  // reads the pictures
    for (auto _ : state) {
        const Result<Frame> frame = renderer.render(request, Cancel());
        if (!frame || frame->steps.empty()) return state.SkipWithError("the demo cannot be drawn");
        benchmark::DoNotOptimize(frame->steps[0].image.data.data());
    }
}

void display_alone(benchmark::State& state) {
    WorkerPool pool;
    Picture picture(1920, 1080, 4);
    for (std::size_t i = 0; i < picture.data.size(); ++i) picture.data[i] = static_cast<float>(i % 1021) / 1000.0F;
    for (auto _ : state) {
        const Image8 image = to_image(picture, Type::vec4, pool);
        benchmark::DoNotOptimize(image.data.data());
    }
}
BENCHMARK(display_alone)->Unit(benchmark::kMillisecond)->UseRealTime();

const bool demos_are_registered = [] {
    std::vector<std::string> paths;
    for (const auto& entry : std::filesystem::directory_iterator(LACQUER_DEMO "/finishes"))
        if (entry.path().extension() == ".lacquer") paths.push_back(entry.path().string());
    std::sort(paths.begin(), paths.end());
    for (const std::string& path : paths)
        benchmark::RegisterBenchmark(("displayed/" + std::filesystem::path(path).stem().string()).c_str(), displayed,
                                     path)
            ->Unit(benchmark::kMillisecond)
            ->UseRealTime();
    return true;
}();

}  // namespace
