// How much faster than the fingers a take is replayed: `times_faster` is the take's own time by the time
// spent.
#include <benchmark/benchmark.h>

#include "../tests/support/files.hpp"
#include "ubbo/io/replay/replay.hpp"

using namespace ubbo;

namespace {

const std::string demo = UBBO_SOURCE_DIR "/demo/";

void replay(benchmark::State& state) {
  const io::Scene scene = test::scene_at(demo + "inspection.scene.toml");
  const io::Take take = test::take_at(demo + "inspection.drag.take.csv");
  Micros lasts{};
  for (auto _ : state) {
    io::SceneRun run(scene, static_cast<std::size_t>(state.range(0)));
    io::Replay replay(run, take);
    replay.finish();
    lasts = replay.ends() - replay.begins();
    benchmark::DoNotOptimize(run.cell("frames")->get());
  }
  state.counters["times_faster"] =
      benchmark::Counter(to_seconds(lasts), benchmark::Counter::kIsIterationInvariantRate);
}
BENCHMARK(replay)->ArgName("journal")->Arg(0)->Arg(512)->Unit(benchmark::kMicrosecond);

// The same take a thousand times over on one stage, so that making the stage and the journal does not count.
void replay_only(benchmark::State& state) {
  const io::Scene scene = test::scene_at(demo + "inspection.scene.toml");
  const io::Take once = test::take_at(demo + "inspection.drag.take.csv");
  io::Take take;
  Micros shift{};
  for (int i = 0; i < 1000; ++i, shift += std::chrono::seconds(2))
    for (Sample sample : once.samples) {
      sample.time += shift;
      if (i % 2 == 1) sample.at.x = 360 - sample.at.x;
      take.samples.push_back(sample);
    }
  Micros lasts{};
  for (auto _ : state) {
    io::SceneRun run(scene, static_cast<std::size_t>(state.range(0)));
    io::Replay replay(run, take);
    replay.finish();
    lasts = replay.ends() - replay.begins();
  }
  state.counters["times_faster"] =
      benchmark::Counter(to_seconds(lasts), benchmark::Counter::kIsIterationInvariantRate);
}
BENCHMARK(replay_only)->ArgName("journal")->Arg(0)->Arg(512)->Unit(benchmark::kMillisecond);

}  // namespace
