// How time grows with pixels and with steps; and a wide Gaussian beside a plain one.
#include <benchmark/benchmark.h>

#include <cmath>
#include <opencv2/imgproc.hpp>
#include <string>

#include "bench/material.h"

namespace {

using namespace lacquer;

// One pass of so many steps on a square of so many pixels.
void draw_steps(benchmark::State& state, int steps, int side) {
    std::vector<std::pair<std::string, std::string>> list = {{"s_0", "uv.x * uv.y"}};
    for (int n = 1; n < steps; ++n) {
        const std::string before = "s_" + std::to_string(n - 1);
        list.emplace_back("s_" + std::to_string(n),
                          "sqrt(abs(" + before + " * 1.3 - uv.y)) + " + std::to_string(n) + " * 0.01");
    }
    RenderRequest request = bench::request_for(bench::finish_of(list));
    request.frame_width = request.frame_height = side;
    WorkerPool pool;
    Renderer renderer(pool);
    (void)renderer.render(request, Cancel());  // compiles
    for (auto _ : state) benchmark::DoNotOptimize(renderer.render(request, Cancel())->steps.data());
    state.SetComplexityN(state.range(0));
}

// The slope that is printed under these rows is time over pixels, and over steps.
void grows_with_pixels(benchmark::State& state) {
    draw_steps(state, 20, static_cast<int>(std::lround(std::sqrt(static_cast<double>(state.range(0))))));
}
BENCHMARK(grows_with_pixels)
    ->RangeMultiplier(4)
    ->Range(256 * 256, 4096 * 4096)
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime()
    ->Complexity(benchmark::oN);
void grows_with_steps(benchmark::State& state) { draw_steps(state, static_cast<int>(state.range(0)), 1024); }
BENCHMARK(grows_with_steps)
    ->RangeMultiplier(2)
    ->Range(8, 256)
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime()
    ->Complexity(benchmark::oN);

void gaussian_sigma_64(benchmark::State& state) {
    Finish finish = bench::finish_of({{"soft", "gaussian_blur(scene, 64)"}});
    bench::add_scene(finish, 1920, 1080);
    const RenderRequest request = bench::request_for(finish);
    WorkerPool pool;
    Renderer renderer(pool);
    (void)renderer.render(request, Cancel());  // reads the picture, compiles
    for (auto _ : state) benchmark::DoNotOptimize(renderer.render(request, Cancel())->steps.data());
}
BENCHMARK(gaussian_sigma_64)->Unit(benchmark::kMillisecond)->UseRealTime();

void gaussian_sigma_64_by_opencv(benchmark::State& state) {
    const cv::Mat scene(1080, 1920, CV_32FC4, cv::Scalar(0.2, 0.4, 0.6, 1));
    cv::Mat soft;
    for (auto _ : state) {
        cv::GaussianBlur(scene, soft, cv::Size(), 64, 64, cv::BORDER_REPLICATE);
        benchmark::DoNotOptimize(soft.data);
    }
}
BENCHMARK(gaussian_sigma_64_by_opencv)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(3);

}  // namespace
