#include "ubbo/paint/film.hpp"

#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <cstdio>
#include <filesystem>
#include <memory>
#include <set>
#include <stdexcept>

#include "commands.hpp"
#include "ubbo/io/report.hpp"
#include "ubbo/paint/save.hpp"

namespace ubbo::tool {

namespace {

// A frame at the beginning, at the end, and at each decision while they are not too many; then the widest gap
// is halved until there are enough.
std::vector<Micros> frame_times(const io::Replay& replay, std::size_t count) {
  std::set<Micros> times{replay.begins(), replay.ends()};
  std::vector<Micros> decided;
  for (const Decision& decision : replay.decisions()) decided.push_back(decision.time);
  decided.erase(std::unique(decided.begin(), decided.end()), decided.end());
  const std::size_t step = decided.size() / count + 1;
  for (std::size_t i = 0; i < decided.size() && times.size() < count; i += step) times.insert(decided[i]);
  while (times.size() < count) {
    Micros widest{0};
    Micros from{};
    for (auto next = std::next(times.begin()); next != times.end(); ++next) {
      if (*next - *std::prev(next) <= widest) continue;
      widest = *next - *std::prev(next);
      from = *std::prev(next);
    }
    if (widest < Micros{2}) break;
    times.insert(from + widest / 2);
  }
  return {times.begin(), times.end()};
}

std::vector<std::vector<paint::TrailPoint>> trails_of(const io::Take& take) {
  constexpr std::size_t most_points = 4000;  // more would not be seen
  const std::size_t step = take.samples.size() / most_points + 1;
  std::vector<std::vector<paint::TrailPoint>> trails;
  std::map<int, std::size_t> open;
  std::size_t seen = 0;
  for (const Sample& sample : take.samples) {
    const bool ends = sample.phase == Phase::up || sample.phase == Phase::cancel;
    if (sample.phase == Phase::down) {
      open[sample.contact] = trails.size();
      trails.emplace_back();
    } else if (!open.contains(sample.contact) || (!ends && seen++ % step != 0)) {
      continue;
    }
    trails[open[sample.contact]].push_back({sample.time, sample.at, !ends});
    if (ends) open.erase(sample.contact);
  }
  return trails;
}

void grow(Box& box, const Box& by) {
  if (box.w <= 0.0) {
    box = by;
    return;
  }
  const double right = std::max(box.right(), by.right());
  const double bottom = std::max(box.bottom(), by.bottom());
  box.x = std::min(box.x, by.x);
  box.y = std::min(box.y, by.y);
  box.w = right - box.x;
  box.h = bottom - box.y;
}

bool touched(const io::Replay& replay, const Part& part) {
  return std::any_of(replay.decisions().begin(), replay.decisions().end(),
                     [&](const Decision& d) { return d.part == part.id() && d.answer.substr(0, 2) != "no"; });
}

// What of the screen is worth showing: the parts that were touched, their labels, and the way of the finger.
Box region_of(const Stage& before, const Stage& after, const io::Replay& replay, const io::Take& take) {
  constexpr double label_height = 26.0;
  constexpr double edge = 14.0;
  constexpr double finger = 18.0;
  Box region;
  for (const Stage* stage : {&before, &after})
    for (const auto& part : stage->parts()) {
      if (!touched(replay, *part)) continue;
      const Box box = part->box();
      grow(region, {box.x - edge, box.y - label_height, box.w + 2 * edge, box.h + label_height + edge});
    }
  const Box screen{0, 0, before.width(), before.height()};
  if (region.w <= 0.0) return screen;
  for (const Sample& sample : take.samples)
    if (screen.contains(sample.at))
      grow(region, {sample.at.x - finger, sample.at.y - finger, 2 * finger, 2 * finger});
  return common(region, screen);
}

paint::FilmFrame frame_at(const io::SceneRun& run, const io::Replay& replay, Micros after, Micros time,
                          const skin::CombColours& colours) {
  paint::FilmFrame frame{
      .time = time, .scene = skin::comb(run.stage(), colours), .captions = {}, .pressed_at = {}};
  for (const Decision& decision : replay.decisions())
    if (decision.time > after && decision.time <= time)
      if (std::string words = io::caption(decision); !words.empty())
        frame.captions.push_back(std::move(words));
  return frame;
}

}  // namespace

std::pair<int, int> picture_size(const std::string& text) {
  int width = 0;
  int height = 0;
  char rest = '\0';
  if (std::sscanf(text.c_str(), "%dx%d%c", &width, &height, &rest) != 2 || width < 200 || height < 200 ||
      width > 16384 || height > 16384)
    throw std::invalid_argument(
        fmt::format("--size {}: takes WIDTHxHEIGHT, each 200 to 16384, such as 1280x800", text));
  return {width, height};
}

void shoot_film(const FilmOrder& order) {
  const auto [width, height] = picture_size(order.size);
  const skin::CombColours& colours = order.dusk ? skin::dusk : skin::day;
  const io::Scene scene = io::read_scene(order.scene);
  const io::Take take = io::read_take(order.take);
  io::SceneRun rehearsal(scene, 4096);
  io::Replay whole(rehearsal, take);
  whole.finish();

  paint::FilmReel reel;
  reel.title = scene.title.empty() ? std::filesystem::path(order.scene).filename().string() : scene.title;
  const std::string label = take.note("label");
  reel.subtitle = label.empty() ? std::filesystem::path(order.take).filename().string() : label;
  reel.begins = whole.begins();
  reel.ends = whole.ends();
  reel.trails = trails_of(take);
  reel.region = region_of(io::SceneRun(scene).stage(), rehearsal.stage(), whole, take);
  for (const Decision& decision : whole.decisions()) reel.decided.push_back(decision.time);
  reel.threshold.distance = scene.stage.feel.drag_threshold;
  bool sliders_only = true;
  Axis axis = Axis::horizontal;
  for (const auto& part : rehearsal.stage().parts())
    if (touched(whole, *part))
      sliders_only = sliders_only && dynamic_cast<const Slider*>(part.get()) != nullptr;
  for (const auto& part : rehearsal.stage().parts()) {
    const auto* slider = dynamic_cast<const Slider*>(part.get());
    constexpr std::size_t most_marks = 60;
    if (slider == nullptr || slider->snaps().size() > most_marks) continue;
    axis = slider->settings().axis;
    for (std::size_t i = 0; i < slider->snaps().size(); ++i)
      reel.snap_places.push_back(slider->place_of(slider->snaps().at(i)));
  }

  using Shape = paint::FilmThreshold::Shape;
  if (sliders_only) reel.threshold.shape = axis == Axis::horizontal ? Shape::horizontal : Shape::vertical;

  io::SceneRun run(scene);
  io::Replay replay(run, take);
  Micros after = whole.begins() - Micros{1};
  for (const Micros time : frame_times(whole, static_cast<std::size_t>(order.frames))) {
    replay.play_to(time);
    reel.frames.push_back(frame_at(run, whole, after, time, colours));
    for (const auto& trail : reel.trails)
      if (!trail.empty() && trail.front().time <= time && (trail.back().down || trail.back().time > time))
        reel.frames.back().pressed_at.push_back(trail.front().at);
    after = time;
  }
  paint::save(paint::film(reel, width, height, colours), width, height, order.out);
}

void add_film(CLI::App& app, int& exit) {
  auto order = std::make_shared<FilmOrder>();
  CLI::App* verb = app.add_subcommand("film", "Draw a replay as one picture with its frames side by side");
  verb->add_option("SCENE", order->scene, "scene file (*.scene.toml)")->required();
  verb->add_option("TAKE", order->take, "recording of touches (*.take.csv)")->required();
  verb->add_option("-o,--out", order->out, "file to write, .png or .svg")->required();
  verb->add_option("--frames", order->frames, "how many frames, 2 to 100")
      ->check(CLI::Range(2, 100))
      ->capture_default_str();
  verb->add_option("--size", order->size, "width and height in pixels")->capture_default_str();
  verb->add_flag("--dusk", order->dusk, "dark colours");
  verb->footer(
      "Each decision has its own frame while there is room; the other frames fill the widest gaps.\n"
      "Example:  ubbo film inspection.scene.toml inspection.drag.take.csv -o film.png --frames 12");
  verb->callback([order, &exit] {
    shoot_film(*order);
    fmt::print("wrote {}\n", order->out);
    exit = done;
  });
}

}  // namespace ubbo::tool
