#include "ubbo/paint/graph.hpp"

#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <cstdio>
#include <filesystem>
#include <memory>
#include <nlohmann/json.hpp>
#include <set>
#include <stdexcept>

#include "commands.hpp"
#include "ubbo/io/reading.hpp"
#include "ubbo/io/report.hpp"

namespace ubbo::tool {

namespace {

struct Order {
  std::string scene;
  std::string take;
  std::vector<std::string> of;
  int samples = 20;
  std::string out;
  std::string size = "1280x800";
  bool json = false;
  bool dusk = false;
};

// A reading followed over the whole replay.
struct Followed {
  io::Reading reading;
  std::vector<std::pair<double, double>> points;  // ms since the take began, value
};

struct Run {
  io::Scene scene;
  io::Take take;
  std::vector<Followed> followed{};
  std::vector<Decision> decisions{};
  double length_ms = 0.0;
  std::unique_ptr<io::SceneRun> stage{};      // what the readings read
  std::unique_ptr<io::SceneRun> rehearsal{};  // whose parts the decisions name
};

// What is worth a line when nothing is asked for: where parts are, if that changes.
std::vector<std::string> usual(const io::SceneRun& run) {
  std::vector<std::string> names;
  for (const io::Reading& reading : io::readings_of(run))
    for (const char* what : {"thumb.x", "thumb.y", "offset", "angle", "scale"})
      if (reading.what == what) names.push_back(reading.name);
  return names;
}

bool changes(const Followed& one) {
  return std::any_of(one.points.begin(), one.points.end(),
                     [&](const auto& point) { return point.second != one.points.front().second; });
}

Run follow(const Order& order, int moments) {
  Run run{.scene = io::read_scene(order.scene), .take = io::read_take(order.take)};
  run.rehearsal = std::make_unique<io::SceneRun>(run.scene, 4096);
  io::Replay whole(*run.rehearsal, run.take);
  whole.finish();
  run.decisions = whole.decisions();
  run.length_ms = std::max(to_ms(whole.ends() - whole.begins()), 1.0);
  run.stage = std::make_unique<io::SceneRun>(run.scene);
  for (const std::string& name : order.of.empty() ? usual(*run.rehearsal) : order.of)
    for (io::Reading& reading : io::find_readings(*run.stage, order.scene, name))
      run.followed.push_back({std::move(reading), {}});
  std::set<Micros> times;
  for (int i = 0; i <= moments; ++i)
    times.insert(whole.begins() + (whole.ends() - whole.begins()) * i / moments);
  io::Replay replay(*run.stage, run.take);
  for (const Micros time : times) {
    replay.play_to(time);
    for (Followed& one : run.followed)
      one.points.emplace_back(to_ms(time - whole.begins()), one.reading.now());
  }
  if (order.of.empty()) std::erase_if(run.followed, [](const Followed& one) { return !changes(one); });
  if (run.followed.empty())
    throw std::invalid_argument(order.scene +
                                ": nothing moved; say by --of what to follow, such as cell.NAME");
  return run;
}

std::string run_json(const Run& run) {
  using Json = nlohmann::ordered_json;
  Json series = Json::array();
  for (const Followed& one : run.followed) {
    Json points = Json::array();
    for (const auto& [t, value] : one.points) points.push_back({t, value});
    series.push_back(
        {{"name", one.reading.name}, {"unit", one.reading.unit}, {"points_ms", std::move(points)}});
  }
  return Json{{"series", std::move(series)}}.dump(2) + "\n";
}

std::string run_text(const Run& run) {
  std::string text = fmt::format("{:>9}", "ms");
  for (const Followed& one : run.followed)
    text += fmt::format("  {:>{}}", one.reading.name, std::max<std::size_t>(one.reading.name.size(), 10));
  text += "\n";
  for (std::size_t i = 0; i < run.followed[0].points.size(); ++i) {
    text += fmt::format("{:>9.1f}", run.followed[0].points[i].first);
    for (const Followed& one : run.followed)
      text += fmt::format("  {:>{}.6g}", one.points[i].second,
                          std::max<std::size_t>(one.reading.name.size(), 10));
    text += "\n";
  }
  return text;
}

bool is_place(const io::Reading& reading) { return reading.what == "thumb.x" || reading.what == "thumb.y"; }

// The finger beside a thumb, and how far it may go before it drags.
void add_finger(paint::Panel& panel, const Run& run, Axis axis, const skin::CombColours& colours) {
  const double begin = run.take.samples.empty() ? 0.0 : to_ms(run.take.samples.front().time);
  paint::Trace finger{
      .name = "finger", .points = {}, .colour = colours.ink.with_alpha(0.75), .width = 1.6, .dash = 3};
  std::set<double> pressed;
  const double threshold = run.scene.stage.feel.threshold(axis);
  for (const Sample& sample : run.take.samples) {
    const double at = along(axis, sample.at);
    if (sample.phase == Phase::down) pressed.insert(at);
    finger.points.emplace_back(to_ms(sample.time) - begin, at);
    if (sample.phase == Phase::up || sample.phase == Phase::cancel)
      finger.points.emplace_back(to_ms(sample.time) - begin, HUGE_VAL);
  }
  panel.traces.push_back(std::move(finger));
  constexpr std::size_t most_presses = 3;  // more lines than that are no help
  if (pressed.size() > most_presses) return;
  for (const double at : pressed) {
    panel.levels.push_back({.at = at - threshold, .colour = colours.brick, .words = {}, .dash = 2});
    panel.levels.push_back(
        {.at = at + threshold, .colour = colours.brick, .words = "drag threshold", .dash = 2});
  }
}

paint::Graph graph_of(const Run& run, const Order& order, const skin::CombColours& colours) {
  const auto palette = paint::trace_colours(colours);
  paint::Graph graph{.title = run.scene.title.empty() ? std::filesystem::path(order.scene).filename().string()
                                                      : run.scene.title,
                     .subtitle = run.take.note("label"),
                     .panels = {},
                     .columns = 1,
                     .legend_columns = 4};
  std::vector<std::string> whats;
  for (const Followed& one : run.followed)
    if (std::find(whats.begin(), whats.end(), one.reading.what) == whats.end())
      whats.push_back(one.reading.what);
  std::size_t next_colour = 0;
  for (const std::string& what : whats) {
    paint::Panel panel{.title = what, .x_to = run.length_ms, .x_numbers = false};
    std::set<double> rests;
    std::string unit;  // parts have a reading of one name in one unit
    bool place = false;
    for (const Followed& one : run.followed) {
      if (one.reading.what != what) continue;
      unit = one.reading.unit;
      place = is_place(one.reading);
      panel.traces.push_back({.name = one.reading.name,
                              .points = one.points,
                              .colour = palette[next_colour++ % palette.size()]});
      if (one.reading.rests)
        for (const double rest : one.reading.rests()) rests.insert(rest);
    }
    if (!unit.empty()) panel.title += ", " + unit;
    for (const double rest : rests)
      panel.levels.push_back(
          {.at = rest, .colour = colours.moss.with_alpha(0.8), .words = {}, .dash = 3, .width = 1.4});
    if (!panel.levels.empty()) panel.levels.front().words = "snap points";
    if (place) add_finger(panel, run, what == "thumb.x" ? Axis::horizontal : Axis::vertical, colours);
    graph.panels.push_back(std::move(panel));
  }
  graph.panels.back().x_numbers = true;
  graph.panels.back().x_label = "ms since the first touch";
  const double begin = run.take.samples.empty() ? 0.0 : to_ms(run.take.samples.front().time);
  for (const Decision& decision : run.decisions) {
    const std::string words = io::caption(decision);
    if (words.empty()) continue;
    for (std::size_t i = 0; i < graph.panels.size(); ++i)
      graph.panels[i].moments.push_back({.at = to_ms(decision.time) - begin,
                                         .colour = colours.ink.with_alpha(0.8),
                                         .words = i == 0 ? words : std::string(),
                                         .dash = 1,
                                         .width = 1.0});
  }
  return graph;
}

}  // namespace

void shoot_graph(const std::string& scene, const std::string& take, const std::vector<std::string>& of,
                 const std::string& out) {
  Order order;
  order.scene = scene;
  order.take = take;
  order.of = of;
  const auto [width, height] = picture_size(order.size);
  paint::plot(graph_of(follow(order, 800), order, skin::day), width, height, out);
}

void add_graph(CLI::App& app, int& exit) {
  auto order = std::make_shared<Order>();
  CLI::App* verb =
      app.add_subcommand("graph", "Follow values over a replay, with decisions, thresholds and snap points");
  verb->add_option("SCENE", order->scene, "scene file (*.scene.toml)")->required();
  verb->add_option("TAKE", order->take, "recording of touches (*.take.csv)")->required();
  verb->add_option("--of", order->of,
                   "what to follow, such as thumb.x, frames.velocity or cell.frames; without it, where parts "
                   "are, if that changes")
      ->delimiter(',');
  verb->add_option("-o,--out", order->out, "draw into this file, .png or .svg");
  verb->add_option("--samples", order->samples, "how many even steps are printed")
      ->check(CLI::Range(1, 100'000))
      ->capture_default_str();
  verb->add_option("--size", order->size, "width and height of the picture in pixels")->capture_default_str();
  verb->add_flag("--json", order->json, "print JSON: series of [ms, value]");
  verb->add_flag("--dusk", order->dusk, "dark colours");
  verb->footer(
      "Example:  ubbo graph inspection.scene.toml inspection.drag.take.csv --of thumb.x,velocity -o "
      "graph.png");
  verb->callback([order, &exit] {
    const auto [width, height] = picture_size(order->size);
    if (!order->out.empty()) {
      const skin::CombColours& colours = order->dusk ? skin::dusk : skin::day;
      paint::plot(graph_of(follow(*order, 800), *order, colours), width, height, order->out, colours);
      fmt::print(stderr, "wrote {}\n", order->out);
    }
    if (order->out.empty() || order->json) {
      const Run run = follow(*order, order->samples);
      fmt::print("{}", order->json ? run_json(run) : run_text(run));
    }
    exit = done;
  });
}

}  // namespace ubbo::tool
