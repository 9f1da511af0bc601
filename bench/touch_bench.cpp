// What a sample costs on a crowded stage, and how fast a recording is read.
#include <benchmark/benchmark.h>

#include <cmath>
#include <ubbo/ubbo.hpp>

#include "ubbo/io/take/recording.hpp"

using namespace ubbo;
using namespace std::chrono_literals;

namespace {

// Fifty parts: a sheet with a list of 24 rows, each with a pad on it.
struct Crowd {
  Crowd() {
    stage.add<Pane>("sheet", {0, 0, 360, 720}, {.min = 0, .max = 300});
    stage.add<Pane>("list", {0, 0, 360, 720}, {.min = -1000, .max = 0}, {.inside = "sheet"});
    for (int i = 0; i < 24; ++i) {
      const std::string id = "row" + std::to_string(i);
      const Box box{0, 30.0 * i, 360, 30};
      stage.add<Pane>(id, box, {.min = -90, .max = 90, .axis = Axis::horizontal}, {.inside = "list"});
      stage.add<Pad>(id + "pad", {0, 0, 360, 30}, {.gestures = {.drags = Drags::none}}, {.inside = id});
    }
  }
  Stage stage;
};

// Fingers go down, move 60 times and lift; the time a sample is the time divided by their number.
void stage_of_50(benchmark::State& state) {
  Crowd crowd;
  const int fingers = static_cast<int>(state.range(0));
  Micros now{};
  for (auto _ : state) {
    for (int i = 0; i < 62; ++i) {
      now += 8ms;
      const Phase phase = i == 0 ? Phase::down : i == 61 ? Phase::up : Phase::move;
      for (int f = 0; f < fingers; ++f)
        crowd.stage.touch({.time = now, .contact = f, .phase = phase, .at = {100.0 + i, 15.0 + 60.0 * f}});
    }
    crowd.stage.advance(now += 1s);
  }
  state.counters["per_sample"] = benchmark::Counter(
      62.0 * fingers, benchmark::Counter::kIsIterationInvariantRate | benchmark::Counter::kInvert);
}
BENCHMARK(stage_of_50)->ArgName("fingers")->Arg(1)->Arg(10)->Unit(benchmark::kMicrosecond);

// A recording of some 45,000 kernel events, as text.
void kernel_recording(benchmark::State& state) {
  std::string text = "# ABS_MT_POSITION_X min 0 max 1079\n# ABS_MT_POSITION_Y min 0 max 2159\n";
  char line[64];
  long events = 0;
  const auto add = [&](long us, int type, int code, int value) {
    std::snprintf(line, sizeof line, "E: %ld.%06ld %04x %04x %d\n", us / 1'000'000, us % 1'000'000, type,
                  code, value);
    text += line;
    ++events;
  };
  for (long i = 0, us = 0; events < 45'000; ++i, us += 8'333) {
    if (i % 100 == 0) add(us, 3, 0x39, static_cast<int>(i / 100));
    add(us, 3, 0x35, 300 + static_cast<int>(i % 100));
    add(us, 3, 0x36, 900);
    if (i % 100 == 99) add(us, 3, 0x39, -1);
    add(us, 0, 0, 0);
  }
  for (auto _ : state) benchmark::DoNotOptimize(io::parse_kernel_text(text, "bench", {.screen = {360, 720}}));
  state.counters["events"] = static_cast<double>(events);
}
BENCHMARK(kernel_recording)->Unit(benchmark::kMillisecond);

}  // namespace
