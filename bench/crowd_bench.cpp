// What a frame costs on stages of many parts: idle, one dragged, many under way, many that end at once; and
// how long adding them takes. `bare` is a loop over as many numbers, for the ratio.
#include <benchmark/benchmark.h>

#include <deque>

#include "ubbo/ubbo.hpp"

using namespace ubbo;
using namespace std::chrono_literals;

namespace {

struct Crowd {
  explicit Crowd(int parts) {
    for (int i = 0; i < parts; ++i) {
      cells.emplace_back(0.5);
      stage.add<Slider>("s" + std::to_string(i), {0, 4.0 * i, 300, 40},
                        {.value = cells.back(), .transition = Timed{Curve::ease_out(), 300ms}});
    }
    stage.advance(0ms);
  }
  std::deque<Cell<double>> cells;
  Stage stage;
};

void bare(benchmark::State& state) {
  std::vector<double> numbers(static_cast<std::size_t>(state.range(0)), 1.0);
  for (auto _ : state) {
    for (double& number : numbers) number = number * 0.999 + 0.001;
    benchmark::DoNotOptimize(numbers.data());
  }
}
BENCHMARK(bare)->Arg(200)->Arg(1000)->Arg(10'000);

void frame_idle(benchmark::State& state) {
  Crowd crowd(static_cast<int>(state.range(0)));
  Micros now{};
  for (auto _ : state) crowd.stage.advance(now += 16ms);
}
BENCHMARK(frame_idle)->Arg(200)->Arg(1000)->Arg(10'000);

// A frame with two samples of a finger that drags one of them.
void frame_one_dragged(benchmark::State& state) {
  Crowd crowd(static_cast<int>(state.range(0)));
  Micros now{};
  crowd.stage.touch({.time = now, .contact = 1, .phase = Phase::down, .at = {150, 20}});
  double x = 150.0;
  for (auto _ : state) {
    for (int i = 0; i < 2; ++i) {
      now += 8ms;
      x = x > 280.0 ? 20.0 : x + 1.0;
      crowd.stage.touch({.time = now, .contact = 1, .phase = Phase::move, .at = {x, 20}});
    }
    crowd.stage.advance(now);
  }
}
BENCHMARK(frame_one_dragged)->Arg(200)->Arg(10'000);

// All under way; the thumbs of all are read, as a renderer would.
void frame_all_moving(benchmark::State& state) {
  Crowd crowd(static_cast<int>(state.range(0)));
  Micros now{};
  double target = 0.0;
  for (auto _ : state) {
    state.PauseTiming();
    crowd.stage.at(now, [&] {
      for (auto& cell : crowd.cells) cell.set(target);
    });
    target = 1.0 - target;
    now += 100ms;
    state.ResumeTiming();
    crowd.stage.advance(now);
    for (const Part* part : crowd.stage.parts())
      benchmark::DoNotOptimize(static_cast<const Slider*>(part)->thumb());
    state.PauseTiming();
    crowd.stage.advance(now += 1s);
    state.ResumeTiming();
  }
}
BENCHMARK(frame_all_moving)->Arg(200)->Iterations(2000);

void frame_all_ending(benchmark::State& state) {
  Crowd crowd(static_cast<int>(state.range(0)));
  Micros now{};
  double target = 0.0;
  for (auto _ : state) {
    state.PauseTiming();
    crowd.stage.at(now, [&] {
      for (auto& cell : crowd.cells) cell.set(target);
    });
    target = 1.0 - target;
    crowd.stage.advance(now += 299ms);
    state.ResumeTiming();
    crowd.stage.advance(now += 2ms);
  }
}
BENCHMARK(frame_all_ending)->Arg(200)->Iterations(2000);

void add_parts(benchmark::State& state) {
  for (auto _ : state) {
    Crowd crowd(static_cast<int>(state.range(0)));
    benchmark::DoNotOptimize(crowd.stage.find("s7"));
  }
}
BENCHMARK(add_parts)->Arg(1000)->Arg(10'000)->Unit(benchmark::kMillisecond);

void find_part(benchmark::State& state) {
  Crowd crowd(static_cast<int>(state.range(0)));
  for (auto _ : state) benchmark::DoNotOptimize(crowd.stage.find("s77"));
}
BENCHMARK(find_part)->Arg(200)->Arg(10'000);

}  // namespace
