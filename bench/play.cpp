// Play: what a tape costs to be worked out, and a moment of it to be asked for.
#include <benchmark/benchmark.h>

#include "bench/material.h"
#include "core/finish/file.h"
#include "core/finish/play.h"

using namespace lacquer;

namespace {

// The strike demo with so many blows, twelve a second at most.
std::shared_ptr<const CheckedFinish> struck(int cues) {
    Finish finish = *bench::demo_request(0).checked->finish;
    finish.length = std::max(6.0, cues / 12.0);
    finish.tape.cues.clear();
    for (int i = 0; i < cues; ++i) finish.tape.cues.push_back({"hit", i * finish.length / cues, 0.7});
    return std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(std::move(finish))));
}

void work_out_a_tape(benchmark::State& state) {
    const auto checked = struck(static_cast<int>(state.range(0)));
    for (auto _ : state) benchmark::DoNotOptimize(Play(checked, checked->finish->tape));
}
BENCHMARK(work_out_a_tape)->Arg(3)->Arg(200)->Arg(20'000)->Unit(benchmark::kMicrosecond);

void ask_for_a_moment(benchmark::State& state) {
    const auto checked = struck(static_cast<int>(state.range(0)));
    const Play play(checked, checked->finish->tape);
    double time = 0;
    for (auto _ : state) {
        time = time > checked->finish->length ? 0 : time + 0.37;
        benchmark::DoNotOptimize(play.values(time));
    }
}
BENCHMARK(ask_for_a_moment)->Arg(3)->Arg(200)->Arg(20'000)->Unit(benchmark::kMicrosecond);

}  // namespace
