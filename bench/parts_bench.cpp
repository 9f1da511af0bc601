// A frame of a stage of 200 parts of all kinds, one of them dragged, one coasting; what a carousel costs by
// the count of its items. `bare` is a loop over as many numbers, for the ratio.
#include <benchmark/benchmark.h>

#include <deque>

#include "ubbo/skin/comb.hpp"
#include "ubbo/ubbo.hpp"

using namespace ubbo;
using namespace std::chrono_literals;

namespace {

// Parts of all shipped kinds in turn, each linked to cells of its own.
struct AllKinds {
  explicit AllKinds(int parts) {
    for (int i = 0; i < parts; ++i) {
      const PartKind& kind = *shipped_kinds()[static_cast<std::size_t>(i) % shipped_kinds().size()];
      AnySettings settings = kind.fresh();
      for (std::size_t s = 0; s < kind.settings(); ++s)
        if (kind.setting(s).kind == SettingKind::cell &&
            kind.setting(s).name !=
                std::string_view("snap_point"))  // names snap points; these panes have none
          (void)kind.put(settings, s, cell(kind.setting(s).cell_kind));
      for (const auto& [name, value] : {std::pair{"leading", 60.0}, {"count", 9.0}})
        if (const std::size_t at = find_setting(kind, name); at < kind.settings())
          (void)kind.put(settings, at, value);
      stage.add(kind, "part" + std::to_string(i), Placement::of({0, 60.0 * i, 300, 48}), settings);
    }
    stage.add<Slider>("dragged", {0, -100, 300, 40}, {.value = dragged});
    stage.add<Pane>("coasting", {0, -400, 300, 200},
                    {.offset = coasting, .min = -1e5, .max = 1e5, .half_life = 2000ms});
    stage.advance(0ms);
  }
  AnyCell cell(CellKind kind) {
    switch (kind) {
      case CellKind::number:
        return &numbers.emplace_back(0.0);
      case CellKind::whole:
        return &wholes.emplace_back(0);
      case CellKind::flag:
        return &flags.emplace_back(false);
      case CellKind::choice:
        return &choices.emplace_back(Choice({"Notes", "Treatment", "Harvest"}));
      default:
        return &texts.emplace_back("");
    }
  }
  std::deque<Cell<double>> numbers;
  std::deque<Cell<int>> wholes;
  std::deque<Cell<bool>> flags;
  std::deque<Cell<Choice>> choices;
  std::deque<Cell<std::string>> texts;
  Cell<double> dragged{0.5}, coasting{0};
  Stage stage{{.width = 400, .height = 20'000}};
};

void bare(benchmark::State& state) {
  std::vector<double> numbers(200, 1.0);
  for (auto _ : state) {
    for (double& number : numbers) number = number * 0.999 + 0.001;
    benchmark::DoNotOptimize(numbers.data());
  }
}
BENCHMARK(bare)->Name("parts/bare/200");

// Two samples of the finger and a frame; the pane is flicked again whenever it has come to rest.
void frame_of_all_kinds(benchmark::State& state) {
  AllKinds all(200);
  Micros now{};
  all.stage.touch({.time = now, .contact = 1, .phase = Phase::down, .at = {150, -80}});
  double x = 150.0;
  for (auto _ : state) {
    if (!all.stage.find("coasting")->catches()) {
      state.PauseTiming();
      for (int i = 0; i <= 6; ++i)
        all.stage.touch({.time = now += 8ms,
                         .contact = 2,
                         .phase = i == 0   ? Phase::down
                                  : i == 6 ? Phase::up
                                           : Phase::move,
                         .at = {100, -380.0 + 20.0 * i}});
      state.ResumeTiming();
    }
    for (int i = 0; i < 2; ++i) {
      x = x > 280.0 ? 20.0 : x + 1.0;
      all.stage.touch({.time = now += 8ms, .contact = 1, .phase = Phase::move, .at = {x, -80}});
    }
    all.stage.advance(now);
  }
}
BENCHMARK(frame_of_all_kinds)->Name("parts/frame/200_of_all_kinds");

// A frame of a carousel on its way, with the pieces a renderer would ask for.
void carousel_frame(benchmark::State& state) {
  Stage stage;
  Cell<int> index{0};
  Carousel& photos =
      stage.add<Carousel>("photos", {0, 200, 360, 300},
                          {.selected = index, .count = static_cast<double>(state.range(0)), .peek = 40});
  Micros now{};
  stage.advance(now);
  int at = 0;
  for (auto _ : state) {
    if (stage.settled()) stage.at(now, [&] { index.set(at = 1 - at); });
    stage.advance(now += 16ms);
    photos.kind().pieces(photos, [](const Piece& piece) { benchmark::DoNotOptimize(piece.box); });
  }
}
BENCHMARK(carousel_frame)->Name("parts/carousel")->Arg(10)->Arg(1'000'000);

}  // namespace

namespace {

// A frame in which the topmost of so many dialogs on one another moves, with the pieces a renderer would ask
// for.
void frame_of_dialogs(benchmark::State& state) {
  Stage stage;
  std::vector<Dialog*> dialogs;
  for (int i = 0; i < state.range(0); ++i)
    dialogs.push_back(&stage.add<Dialog>("dialog" + std::to_string(i), {30, 200, 300, 200}, {}));
  Micros now{};
  for (Dialog* dialog : dialogs) stage.act(*dialog, "open", now += 20ms);
  for (auto _ : state) {
    if (stage.settled()) {
      state.PauseTiming();
      stage.act(*dialogs.back(), "toggle", now += 1ms);
      state.ResumeTiming();
    }
    stage.advance(now += 16ms);
    benchmark::DoNotOptimize(skin::comb(stage));
  }
}
BENCHMARK(frame_of_dialogs)->Name("parts/frame/dialogs_open")->Arg(2)->Arg(30);

// Layers that are away beside a slider that moves.
void frame_beside_layers(benchmark::State& state) {
  Cell<double> frames{0};
  Stage stage;
  stage.add<Slider>("frames", {40, 200, 280, 48}, {.value = frames, .transition = Timed{Curve{}, 3600s}});
  for (int i = 0; i < state.range(0); ++i)
    stage.add<Dialog>("dialog" + std::to_string(i), {30, 200, 300, 200}, {});
  stage.advance(0ms);
  frames.set(1);
  Micros now{};
  for (auto _ : state) stage.advance(now += 1ms);
}
BENCHMARK(frame_beside_layers)->Name("parts/frame/layers_away")->Arg(0)->Arg(100);

// A frame of a list that glides, with its parts' boxes.
void frame_of_list(benchmark::State& state) {
  Stage stage;
  int made = 0;
  Cell<double> offset{0};
  auto& list = stage.add<List>("list", {0, 100, 360, 620},
                               {.offset = offset,
                                .count = static_cast<double>(state.range(0)),
                                .transition = Timed{Curve{}, 3600s},
                                .on_near = [&](std::size_t, Part* spare) -> Part& {
                                  return spare != nullptr
                                             ? *spare
                                             : stage.add<Pad>("row" + std::to_string(made++), {0, 0, 360, 64},
                                                              {}, {.inside = "list"});
                                }});
  list.measure(state.range(0) / 2, 90);
  stage.advance(0ms);
  offset.set(-50.0 * static_cast<double>(state.range(0)));
  Micros now{};
  for (auto _ : state) {
    stage.advance(now += 1ms);
    for (const Part* part : stage.parts()) benchmark::DoNotOptimize(part->box());
  }
}
BENCHMARK(frame_of_list)->Name("parts/frame/list")->Arg(100)->Arg(100'000);

}  // namespace
