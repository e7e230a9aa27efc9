// The stand-in scene at half a megapixel: 30 a second are asked for on two processors, so each may take 33 ms.
#include <benchmark/benchmark.h>

#include "core/scene/cast.h"
#include "core/scene/places.h"

namespace {

using namespace lacquer;

void cast_place(benchmark::State& state, const char* name, SceneLayerSet wanted) {
    WorkerPool pool;
    const ScenePlace* place = find_place(name);
    double seconds = 0;
    for (auto _ : state) {
        seconds += 1.0 / 30;
        const SceneLayers layers =
            cast_world(place->world(Hour::storm, seconds), place->camera, 960, 540, wanted, pool, Cancel());
        benchmark::DoNotOptimize(layers.colour.data.data());
    }
}

constexpr SceneLayerSet colours{true, false, false, false, false};
constexpr SceneLayerSet all{true, true, true, true, true};

void harbour_colours(benchmark::State& state) { cast_place(state, "harbour", colours); }
BENCHMARK(harbour_colours)->Unit(benchmark::kMillisecond)->UseRealTime();
void harbour_all_layers(benchmark::State& state) { cast_place(state, "harbour", all); }
BENCHMARK(harbour_all_layers)->Unit(benchmark::kMillisecond)->UseRealTime();
void lamp_room_colours(benchmark::State& state) { cast_place(state, "lamp_room", colours); }
BENCHMARK(lamp_room_colours)->Unit(benchmark::kMillisecond)->UseRealTime();
void lamp_room_all_layers(benchmark::State& state) { cast_place(state, "lamp_room", all); }
BENCHMARK(lamp_room_all_layers)->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
