// How much faster than the fingers a take is replayed: `times_faster` is the take's own time by the time
// spent.
#include <benchmark/benchmark.h>

#include <algorithm>
#include <atomic>
#include <chrono>
#include <functional>
#include <thread>
#include <vector>

#include "../tests/support/files.hpp"
#include "ubbo/io/replay/replay.hpp"

using namespace ubbo;

namespace {

double timed(const std::function<void()>& work) {  // s
  const auto from = std::chrono::steady_clock::now();
  work();
  return std::chrono::duration<double>(std::chrono::steady_clock::now() - from).count();
}

double median(std::vector<double>& all) {
  std::nth_element(all.begin(), all.begin() + static_cast<std::ptrdiff_t>(all.size() / 2), all.end());
  return all[all.size() / 2];
}

void replay(benchmark::State& state) {
  const io::Plan plan(test::scene_at(test::demo + "inspection.scene.toml"));
  const io::Take take = test::take_at(test::demo + "inspection.drag.take.csv");
  Micros lasts{};
  for (auto _ : state) {
    io::SceneRun run(plan, static_cast<std::size_t>(state.range(0)));
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
  const io::Scene scene = test::scene_at(test::demo + "inspection.scene.toml");
  const io::Take once = test::take_at(test::demo + "inspection.drag.take.csv");
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

// A drag of one second on a scene of so many sliders: what it costs to make a stage for each run, one number
// varied each time, beside the same samples on a stage that stands. The counter `ratio` is of the two.
void varied(benchmark::State& state) {
  std::string text = "[screen]\nwidth = 360\nheight = 4000\n[cells]\n";
  std::string parts;
  for (int i = 0; i < state.range(0); ++i) {
    const std::string n = std::to_string(i);
    text += "value" + n + " = 4\n";
    parts += "[[part]]\nkind = \"slider\"\nid = \"slider" + n + "\"\nvalue = \"value" + n +
             "\"\nx = 40\ny = " + std::to_string(200 + 60 * i) + "\nw = 280\nh = 48\nto = 10\n";
  }
  const io::Plan plan(io::parse_scene(text + parts, "sliders"));
  io::Take drag;
  for (int i = 0; i < 120; ++i)
    drag.samples.push_back({.time = from_ms(i * 1000.0 / 120),
                            .contact = 1,
                            .phase = i == 0     ? Phase::down
                                     : i == 119 ? Phase::up
                                                : Phase::move,
                            .at = {120.0 + i, 224.0}});
  const io::ReadyTake ready(drag, plan.scene());
  io::SceneRun standing(plan);
  double step = 0.0;
  std::vector<double> varied_times;
  std::vector<double> standing_times;
  Micros later{};
  for (auto _ : state) {
    varied_times.push_back(timed([&] {
      step = step < 4.0 ? step + 0.01 : 0.01;
      const io::Variation variation = plan.vary("slider0", "large_step", step);
      io::SceneRun run(plan, 0, {&variation, 1});
      io::Replay replay(run, ready);
      replay.play_to(drag.samples.back().time);
      benchmark::DoNotOptimize(run.cells().front().value());
    }));
    later += std::chrono::seconds(2);
    io::Take same = drag;
    for (Sample& sample : same.samples) sample.time += later;
    const io::ReadyTake again(same, plan.scene());
    standing_times.push_back(timed([&] {
      io::Replay replay(standing, again);
      replay.play_to(same.samples.back().time);
    }));
  }
  state.counters["ratio"] = median(varied_times) / median(standing_times);
  state.counters["varied_us"] = median(varied_times) * 1e6;
  state.counters["standing_us"] = median(standing_times) * 1e6;
}

// One plan and one ready take, a stage of its own for each run: the takes a second of two threads by those of
// one, the two in turn so that whatever else the machine does meets both alike. The second thread stands from
// the first, as in a pool, and waits awake: else where and when it is woken would be measured. The counter
// `ratio` is of the medians.
void pool(benchmark::State& state) {
  const io::Plan plan(test::scene_at(test::demo + "inspection.scene.toml"));
  const io::Take take = test::take_at(test::demo + "inspection.drag.take.csv");
  const io::ReadyTake ready(take, plan.scene());
  constexpr int takes = 200;
  const auto work = [&] {
    for (int i = 0; i < takes; ++i) {
      io::SceneRun run(plan);
      io::Replay replay(run, ready);
      replay.finish();
      benchmark::DoNotOptimize(run.cells().front().value());
    }
  };
  std::atomic<int> asked{0};
  std::atomic<int> done{0};
  std::thread other([&] {
    for (int round = 1;; ++round) {
      while (asked.load() != round)
        if (asked.load() < 0) return;
      work();
      done.store(round);
    }
  });
  std::vector<double> alone;
  std::vector<double> together;
  int round = 0;
  for (auto _ : state) {
    alone.push_back(timed(work));
    together.push_back(timed([&] {
      asked.store(++round);
      work();
      while (done.load() != round) {
      }
    }));
  }
  asked.store(-1);
  other.join();
  state.counters["ratio"] = 2.0 * median(alone) / median(together);
  state.counters["takes_per_s"] = takes / median(alone);
}
BENCHMARK(pool)->MinTime(3.0);

BENCHMARK(varied)->ArgName("sliders")->Arg(1)->Arg(30);

}  // namespace
