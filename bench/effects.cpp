// Three effects at 1080p: by strips, by hand, and by the GL driver. The ratios of one run are what docs/performance.md
// has.
#include <benchmark/benchmark.h>

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <optional>

#include "bench/by_hand.h"
#include "bench/material.h"
#include "core/picture/files.h"

namespace {

using namespace lacquer;

constexpr int width = 1920;
constexpr int height = 1080;

void by_backend(benchmark::State& state, const Finish& finish, Backend backend,
                std::optional<KernelSet> kernels = std::nullopt) {
    WorkerPool pool;
    Renderer renderer(pool, std::move(kernels));
    if (renderer.use(backend)) return state.SkipWithError("there is no GL");
    const RenderRequest request = bench::request_for(finish);
    (void)renderer.render(request, Cancel());  // reads the picture, compiles
    for (auto _ : state) benchmark::DoNotOptimize(renderer.render(request, Cancel())->steps.data());
}

Picture scene_of(const Finish& finish) {
    Result<Picture> scene = read_picture(*path_of(finish.grounds[0]), PictureMeaning::colour);
    if (!scene) std::abort();
    return std::move(*scene);
}

// What was written by hand must draw what the strips draw, or there is nothing to compare. A tap that lies on the edge
// of 1/256 pixel may be rounded the other way.
bool draws_the_same(const Finish& finish, const Picture& by_hand) {
    WorkerPool pool;
    Renderer renderer(pool);
    const Result<Frame> frame = renderer.render(bench::request_for(finish), Cancel());
    if (!frame) return false;
    const Picture& by_strips = frame->steps[0].picture;
    std::size_t off = 0;
    for (std::size_t i = 0; i < by_strips.data.size(); ++i)
        off += std::fabs(by_strips.data[i] - by_hand.data[i]) <= 1e-3F ? 0 : 1;
    return by_strips.data.size() == by_hand.data.size() && off * 1000 < by_strips.data.size();
}

template <class Draw>
void by_hand(benchmark::State& state, const Finish& finish, int channels, Draw draw) {
    WorkerPool pool;
    Picture first(width, height, channels);
    draw(first, pool);
    if (!draws_the_same(finish, first)) return state.SkipWithError("it is another picture");
    for (auto _ : state) {
        Picture out(width, height, channels);
        draw(out, pool);
        benchmark::DoNotOptimize(out.data.data());
    }
}

Finish vignette() {
    Finish finish = bench::finish_of({{"closing", bench::noise_vignette_formula}});
    bench::add_dial(finish, "radius", 0.5);
    bench::add_dial(finish, "softness", 0.4);
    return finish;
}
void vignette_by_strips(benchmark::State& state) { by_backend(state, vignette(), Backend::cpu); }
void vignette_by_gl(benchmark::State& state) { by_backend(state, vignette(), Backend::gpu); }
void vignette_by_hand(benchmark::State& state) {
    by_hand(state, vignette(), 1,
            [](Picture& out, WorkerPool& pool) { bench::draw_noise_vignette(out, 0.5F, 0.4F, pool); });
}
std::optional<KernelSet> avx2_kernels() {
    const std::vector<KernelSet> sets = kernel_sets();
    const auto avx2 = std::find_if(sets.begin(), sets.end(), [](const KernelSet& set) { return set.name == "AVX2"; });
    return avx2 != sets.end() ? std::optional(*avx2) : std::nullopt;
}
void vignette_by_strips_of_avx2(benchmark::State& state) {
    const std::optional<KernelSet> kernels = avx2_kernels();
    if (!kernels) return state.SkipWithError("this processor has no AVX2");
    by_backend(state, vignette(), Backend::cpu, kernels);
}
void vignette_by_hand_for_avx2(benchmark::State& state) {
    if (!avx2_kernels()) return state.SkipWithError("this processor has no AVX2");
    by_hand(state, vignette(), 1,
            [](Picture& out, WorkerPool& pool) { bench::avx2::draw_noise_vignette(out, 0.5F, 0.4F, pool); });
}
BENCHMARK(vignette_by_hand)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(vignette_by_strips)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(vignette_by_hand_for_avx2)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(vignette_by_strips_of_avx2)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(vignette_by_gl)->Unit(benchmark::kMillisecond)->UseRealTime();

Finish dissolve() {
    Finish finish = bench::finish_of({{"burning", bench::dissolve_formula}});
    bench::add_scene(finish, width, height);
    bench::add_dial(finish, "gone", 0.45);
    bench::add_dial(finish, "rim", 0.08);
    return finish;
}
void dissolve_by_strips(benchmark::State& state) { by_backend(state, dissolve(), Backend::cpu); }
// Up to bytes for the eye, which by hand are not even made.
void dissolve_seen(benchmark::State& state) {
    WorkerPool pool;
    Renderer renderer(pool);
    RenderRequest request = bench::request_for(dissolve());
    request.seen = ViewStyle();
    (void)renderer.render(request, Cancel());
    for (auto _ : state) benchmark::DoNotOptimize(renderer.render(request, Cancel())->steps.data());
}
void dissolve_by_gl(benchmark::State& state) { by_backend(state, dissolve(), Backend::gpu); }
void dissolve_by_hand(benchmark::State& state) {
    const Picture scene = scene_of(dissolve());
    by_hand(state, dissolve(), 4,
            [&](Picture& out, WorkerPool& pool) { bench::draw_dissolve(out, scene, 0.45F, 0.08F, pool); });
}
BENCHMARK(dissolve_by_hand)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(dissolve_by_strips)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(dissolve_seen)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(dissolve_by_gl)->Unit(benchmark::kMillisecond)->UseRealTime();

Finish ring_blur() {
    Finish finish = bench::finish_of({{"soft", bench::ring_blur_formula}});
    bench::add_scene(finish, width, height);
    bench::add_dial(finish, "radius", 11.3);
    return finish;
}
void ring_blur_by_strips(benchmark::State& state) { by_backend(state, ring_blur(), Backend::cpu); }
void ring_blur_by_gl(benchmark::State& state) { by_backend(state, ring_blur(), Backend::gpu); }
void ring_blur_by_hand(benchmark::State& state) {
    const Picture scene = scene_of(ring_blur());
    by_hand(state, ring_blur(), 4,
            [&](Picture& out, WorkerPool& pool) { bench::draw_ring_blur(out, scene, 11.3F, pool); });
}
BENCHMARK(ring_blur_by_hand)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(ring_blur_by_strips)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(ring_blur_by_gl)->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace

BENCHMARK_MAIN();
