#include "ubbo/paint/graph.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cstdio>
#include <memory>

#include "commands.hpp"
#include "progress.hpp"
#include "say.hpp"
#include "ubbo/io/text/json.hpp"
#include "ubbo/io/text/number.hpp"
#include "ubbo/show/traces.hpp"

namespace ubbo::tool {

namespace {

struct GraphOrder {
  OnScene on;
  std::string take;
  std::vector<std::string> of;
  int samples = 20;
  std::string out;
  std::string size = "1280x800";
  bool json = false;
  bool dark = false;
};

std::string run_json(const show::Traces& run) {
  using io::Json;
  Json series = Json::array();
  for (const show::Trace& one : run.traces) {
    Json points = Json::array();
    for (const auto& [t, value] : one.points) points.push_back({t, io::rounded(value)});
    series.push_back({{"name", one.name}, {"unit", one.unit}, {"points_ms", std::move(points)}});
  }
  return io::json_text(Json{{"series", std::move(series)}});
}

std::string run_text(const show::Traces& run) {
  std::string text = fmt::format("{:>9}", "ms");
  for (const show::Trace& one : run.traces)
    text += fmt::format("  {:>{}}", one.name, std::max<std::size_t>(one.name.size(), 10));
  text += "\n";
  for (std::size_t i = 0; i < run.traces[0].points.size(); ++i) {
    text += fmt::format("{:>9.1f}", run.traces[0].points[i].first);
    for (const show::Trace& one : run.traces)
      text += fmt::format("  {:>{}}", i < one.points.size() ? io::plain(one.points[i].second) : "-",
                          std::max<std::size_t>(one.name.size(), 10));
    text += "\n";
  }
  return text;
}

void draw(const GraphOrder& order, const Kit& kit) {
  const auto [width, height] = picture_size(order.size);
  const skin::CombColours& colours = order.dark ? skin::dark : skin::day;
  const io::Scene scene = order.on.read(kit);
  const io::Take take = read_take_on(scene, order.take);
  constexpr int steps = 800;
  Progress progress("graph");
  const show::Traces traces = show::follow(scene, take, order.of, steps, progress.part(0.0, 0.9));
  paint::plot(show::graph_of(traces, scene, take, colours), width, height, order.out, colours);
}

}  // namespace

void shoot_graph(const OnScene& on, const std::string& take, const std::vector<std::string>& of,
                 const std::string& out, const Kit& kit) {
  draw({.on = on, .take = take, .of = of, .out = out}, kit);
}

void add_graph(Verb app, int& exit, const Kit& kit) {
  auto order = std::make_shared<GraphOrder>();
  const Verb verb =
      app.add_verb("graph", "Follow values over a replay, with decisions, thresholds and snap points");
  order->on.add_to(verb);
  verb.add_option("TAKE", order->take, "a take (*.take.csv) or another recording of touches").required();
  verb.add_option("--of", order->of,
                  "what to follow, such as thumb.x, frames.velocity or cell.frames; without it, where parts "
                  "are, if that changes")
      .delimiter(',');
  verb.add_option("-o,--out", order->out, "draw into this file, .png or .svg");
  verb.add_option("--samples", order->samples, "how many even steps are printed")
      .between(1, 100'000)
      .with_default();
  verb.add_option("--size", order->size, "width and height of the picture in pixels").with_default();
  verb.add_flag("--json", order->json, "print JSON: series of [ms, value]");
  verb.add_flag("--dark", order->dark, "dark colours");
  verb.footer(
      "Example:  ubbo graph heather-ridge/inspection.scene.toml heather-ridge/inspection.drag.take.csv \\\n"
      "              --of frames.thumb.x,frames.velocity -o "
      "graph.png");
  verb.when_called([order, &exit, &kit] {
    if (!order->out.empty()) {
      draw(*order, kit);
      warn("wrote {}\n", order->out);
    }
    if (order->out.empty() || order->json) {
      const io::Scene scene = order->on.read(kit);
      const show::Traces run =
          show::follow(scene, read_take_on(scene, order->take), order->of, order->samples);
      say("{}", order->json ? run_json(run) : run_text(run));
    }
    exit = done;
  });
}

}  // namespace ubbo::tool
