// Motion against the barest loop that does the same, in one run; the counter `ratio` is of the two.
#include <benchmark/benchmark.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <deque>
#include <string>
#include <vector>

#include "ubbo/ubbo.hpp"

using namespace ubbo;

namespace {

const Spring soft = Spring::natural(12, 0.6);

// Two pieces of work in turn, many times, and the ratio of their medians, since one benchmark cannot see
// another. `afresh` is not timed.
template <class Afresh, class Bare, class Ours>
void beside(benchmark::State& state, double items, Afresh&& afresh, Bare&& bare, Ours&& ours) {
  std::vector<double> bare_times;
  std::vector<double> our_times;
  const auto timed = [](auto&& work) {
    const auto from = std::chrono::steady_clock::now();
    work();
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - from).count();
  };
  for (auto _ : state) {
    afresh();
    bare_times.push_back(timed(bare));
    our_times.push_back(timed(ours));
  }
  const auto median = [](std::vector<double>& all) {
    std::nth_element(all.begin(), all.begin() + static_cast<std::ptrdiff_t>(all.size() / 2), all.end());
    return all[all.size() / 2];
  };
  state.counters["ratio"] = median(our_times) / median(bare_times);
  state.counters["bare_ns"] = median(bare_times) / items * 1e9;
  state.counters["ours_ns"] = median(our_times) / items * 1e9;
}

void bank(benchmark::State& state) {
  const auto count = static_cast<std::size_t>(state.range(0));
  std::vector<double> value(count);
  std::vector<double> velocity(count);
  std::vector<double> target(count);
  SpringBank springs(soft, count);
  const Spring::Step s = soft.step(1.0 / 120);
  int steps = 0;
  beside(
      state, 4.0 * static_cast<double>(count),  // four steps, since each fourth does more
      [&] {
        if (steps++ % 16 != 0) return;  // before all have come to rest
        for (std::size_t i = 0; i < count; ++i) {
          target[i] = static_cast<double>(i % 100 + 1);
          value[i] = velocity[i] = 0;
          springs.put(i, 0);
          springs.send(i, target[i]);
        }
      },
      [&] {
        double* x = value.data();
        double* v = velocity.data();
        const double* t = target.data();
        for (int step = 0; step < 4; ++step) {
          for (std::size_t i = 0; i < count; ++i) {
            const double d = x[i] - t[i];
            const double w = v[i];
            x[i] = t[i] + (s.a * d + s.b * w);
            v[i] = s.c * d + s.d * w;
          }
          benchmark::ClobberMemory();
        }
      },
      [&] {
        for (int step = 0; step < 4; ++step) {
          springs.step(1.0 / 120);
          benchmark::ClobberMemory();
        }
      });
}

// The formula for weak damping and nothing else.
struct Bare {
  double decay, swing, x, v;
  [[nodiscard]] SpringState at(double t) const {
    const double fade = std::exp(-decay * t);
    const double c = std::cos(swing * t);
    const double s = std::sin(swing * t);
    const double push = v + decay * x;
    const double distance = fade * (x * c + push / swing * s);
    return {distance, fade * (push * c - swing * x * s) - decay * distance};
  }
};

void spring(benchmark::State& state) {
  std::vector<double> times;  // so that neither loop can be worked out beforehand
  for (int i = 0; i < 1024; ++i) times.push_back(0.0007 * i + 0.001);
  Bare bare{0.6 * 12, 12 * 0.8, -300, 900};
  benchmark::DoNotOptimize(bare);
  beside(
      state, 1024, [] {},
      [&] {
        for (const double t : times) {
          SpringState now = bare.at(t);
          benchmark::DoNotOptimize(now);
        }
      },
      [&] {
        for (const double t : times) {
          SpringState now = soft.at({-300, 900}, t);
          benchmark::DoNotOptimize(now);
        }
      });
}

// 200 sliders on their way by springs: a frame, in which each thumb is read.
void sliders_on_springs(benchmark::State& state) {
  constexpr std::size_t count = 200;
  std::deque<Cell<double>> cells;
  Stage stage;
  for (std::size_t i = 0; i < count; ++i)
    stage.add<Slider>("slider" + std::to_string(i), {0, 4.0 * static_cast<double>(i), 300, 40},
                      {.value = cells.emplace_back(0.0), .to = 300, .transition = soft});
  std::vector<Bare> bare(count, {0.6 * 12, 12 * 0.8, -300, 900});
  benchmark::DoNotOptimize(bare.data());
  Micros now{};
  double seconds = 0.0;
  beside(
      state, static_cast<double>(count),
      [&] {
        if (!stage.settled()) return;
        seconds = 0.0;
        stage.at(now, [&] {
          for (auto& cell : cells) cell.set(300.0 - cell.get());
        });
      },
      [&] {
        seconds += 0.008;
        for (const Bare& one : bare) {
          SpringState here = one.at(seconds);
          benchmark::DoNotOptimize(here);
        }
      },
      [&] {
        stage.advance(now += Micros{8'000});
        for (const Part* part : stage.parts()) {
          Point thumb = static_cast<const Slider*>(part)->thumb();
          benchmark::DoNotOptimize(thumb);
        }
      });
}

// The elementary functions as a screen in motion asks for them, our own beside the standard library's.
void elementary(benchmark::State& state) {
  constexpr std::size_t count = 4096;
  std::vector<double> at(count);
  for (std::size_t i = 0; i < count; ++i) at[i] = static_cast<double>(i * 7919 % count) / count;
  double theirs = 0.0;
  double ours = 0.0;
  // Springs, coasts, curves, what yields at its ends, lengths and angles.
  beside(
      state, count, [] {},
      [&] {
        for (const double x : at)
          theirs += std::exp(-9.0 * x) * (std::cos(20.0 * x) + std::sin(20.0 * x)) + std::expm1(-3.0 * x) +
                    std::log1p(-0.9 * x) + std::log(0.1 + x) + std::exp2(10.0 * x) + std::hypot(x, 0.7) +
                    std::hypot(3.0, x) + std::atan2(x, 0.4);
        benchmark::DoNotOptimize(theirs);
      },
      [&] {
        for (const double x : at) {
          const auto [sin, cos] = maths::sin_cos(20.0 * x);
          ours += maths::exp(-9.0 * x) * (cos + sin) + maths::expm1(-3.0 * x) + maths::log1p(-0.9 * x) +
                  maths::log(0.1 + x) + maths::exp2(10.0 * x) + maths::hypot(x, 0.7) + maths::hypot(3.0, x) +
                  maths::atan2(x, 0.4);
        }
        benchmark::DoNotOptimize(ours);
      });
}

void cubic_bezier(benchmark::State& state) {
  const Curve curves[] = {Curve::ease(), Curve::ease_in_out(), Curve::cubic_bezier(0.35, 0.05, 0.15, 0.95),
                          Curve::cubic_bezier(0.9, 0.1, 0.1, 0.9)};
  const Curve& curve = curves[state.range(0)];
  for (auto _ : state)
    for (int i = 0; i < 1024; ++i) {
      double value = curve.value((i + 0.5) / 1024);
      benchmark::DoNotOptimize(value);
    }
  state.SetItemsProcessed(state.iterations() * 1024);
}

// A screen of 200 movers, 20 of which are sent elsewhere each frame. One item is one frame.
void screen(benchmark::State& state) {
  std::vector<Mover> movers(200);
  const Transition way = Spring::settling(Micros{400'000}, 0.05);
  Micros now{0};
  for (Mover& mover : movers) mover.send(300, way, now);
  std::size_t next = 0;
  double target = 0;
  for (auto _ : state) {
    now += Micros{8333};
    for (int i = 0; i < 20; ++i) {
      movers[next].send(target, way, now);
      next = (next + 1) % movers.size();
      target = target < 300 ? target + 7 : 0;
    }
    for (Mover& mover : movers) mover.advance(now);
    benchmark::ClobberMemory();
  }
}

void timeline_seek(benchmark::State& state) {
  Timeline timeline;
  std::vector<Timeline::Track> rows;
  for (int i = 0; i < 20; ++i) rows.push_back(timeline.add_track("row" + std::to_string(i), 40));
  timeline.cue(rows, 0, Timed{Curve::ease_out(), Micros{300'000}}, Stagger::by_order(20, Micros{40'000}));
  std::int64_t at = 0;
  for (auto _ : state) {
    at = (at + 7'919) % timeline.length().count();
    double sum = 0;
    for (const Timeline::Track row : rows) sum += timeline.at(row, Micros{at}).value;
    benchmark::DoNotOptimize(sum);
  }
  state.SetItemsProcessed(state.iterations() * 20);
}

BENCHMARK(bank)->Arg(100'000);
BENCHMARK(spring);
BENCHMARK(sliders_on_springs);
BENCHMARK(elementary);
BENCHMARK(cubic_bezier)->DenseRange(0, 3);
BENCHMARK(screen);
BENCHMARK(timeline_seek);

}  // namespace
