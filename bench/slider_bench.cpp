// What one slider costs a frame and a sample, beside a bare closed-form spring as the measure of this
// machine.
#include <benchmark/benchmark.h>

#include <cmath>
#include <ubbo/ubbo.hpp>

using namespace ubbo;
using namespace std::chrono_literals;

namespace {

struct App {
  explicit App(double journal) : stage({.journal = journal}) {
    slider =
        &stage.add<Slider>("frames", {.x = 40, .y = 200, .w = 280, .h = 48},
                           {.value = frames, .to = 10, .step = 1, .transition = Spring::settling(10s, 0)});
  }
  Cell<double> frames{4};
  Stage stage;
  Slider* slider = nullptr;
};

void bare_spring(benchmark::State& state) {
  double t = 0, sum = 0;
  for (auto _ : state) {
    t += 0.001;
    sum += std::exp(-3.0 * t) * (1.0 + 2.0 * t);
    benchmark::DoNotOptimize(sum);
  }
}
BENCHMARK(bare_spring);

void advance_at_rest(benchmark::State& state) {
  App app(0);
  Micros now{};
  for (auto _ : state) app.stage.advance(now += 16ms);
}
BENCHMARK(advance_at_rest);

void advance_moving(benchmark::State& state) {
  App app(0);
  Micros now{};
  double to = 0;
  for (auto _ : state) {
    if (app.stage.settled()) app.frames.set(to = 10 - to);
    app.stage.advance(now += 16ms);
  }
}
BENCHMARK(advance_moving);

// One press, a hundred moves, one lift; the time a sample is the time divided by 102.
void touch(benchmark::State& state) {
  App app(static_cast<double>(state.range(0)));
  Micros now{};
  for (auto _ : state) {
    app.stage.touch({.time = now += 8ms, .contact = 1, .phase = Phase::down, .at = {150, 224}});
    for (int i = 0; i < 100; ++i)
      app.stage.touch({.time = now += 8ms, .contact = 1, .phase = Phase::move, .at = {150.0 + i, 224}});
    app.stage.touch({.time = now += 8ms, .contact = 1, .phase = Phase::up, .at = {250, 224}});
    app.stage.journal().clear();
  }
  state.counters["per_sample"] =
      benchmark::Counter(102, benchmark::Counter::kIsIterationInvariantRate | benchmark::Counter::kInvert);
}
BENCHMARK(touch)->ArgName("journal")->Arg(0)->Arg(1000);

}  // namespace
