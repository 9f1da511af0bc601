#include "ubbo/show/traces.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <stdexcept>

#include "told.hpp"
#include "ubbo/io/replay/report.hpp"
#include "ubbo/io/text/harmless.hpp"
#include "ubbo/words/catalogue.hpp"

namespace ubbo::show {

namespace {

bool changes(const Trace& trace) {
  return std::any_of(trace.points.begin(), trace.points.end(),
                     [&](const auto& point) { return point.second != trace.points.front().second; });
}

// What is worth a line when nothing is asked for: where parts are.
std::vector<std::string> usual(io::SceneRun& run) {
  std::vector<std::string> names;
  for (const io::Reading& reading : io::readings_of(run))
    if (reading.usual) names.push_back(reading.name);
  return names;
}

}  // namespace

namespace {

// Which parts had each contact: the one it went down on, those that won it, and those it was handed to.
std::vector<Finger> fingers_of(const io::Take& take, const std::vector<Decision>& decisions) {
  constexpr std::size_t max_points = 20'000;  // more would not be seen
  const std::size_t step = take.samples.size() / max_points + 1;
  std::vector<Finger> fingers;
  std::map<std::pair<int, int>, std::size_t> open;
  std::size_t seen = 0;
  for (const Sample& sample : take.samples) {
    const std::pair contact{sample.device, sample.contact};
    if (sample.phase == Phase::down && !open.contains(contact)) {
      open[contact] = fingers.size();
      fingers.push_back({.tool = sample.tool});
    }
    if (!open.contains(contact)) continue;
    Finger& finger = fingers[open[contact]];
    if (sample.phase != Phase::move || seen++ % step == 0) finger.way.push_back(sample);
    if (sample.phase == Phase::up || sample.phase == Phase::cancel) open.erase(contact);
  }
  bool over = false;
  for (const Sample& sample : take.samples) {
    if (sample.phase == Phase::hover) {
      if (!std::exchange(over, true)) fingers.push_back({.tool = sample.tool, .hovers = true});
      fingers.back().way.push_back(sample);
    } else if (sample.phase == Phase::leave || sample.phase == Phase::down) {
      over = false;
    }
  }
  for (Finger& finger : fingers) {
    const Micros from = finger.way.front().time;
    const Micros to = finger.way.back().time;
    auto at = std::lower_bound(decisions.begin(), decisions.end(), from,
                               [](const Decision& one, Micros time) { return one.time < time; });
    for (; at != decisions.end() && at->time <= to; ++at) {
      const bool goes_down = at->asks(questions::owner) && at->answer->yes && at->time == from;
      if (finger.hovers ? at->says(answers::hover_enters)
                        : goes_down || at->says(answers::contest_won) ||
                              (at->asks(questions::hand_over) && at->answer->yes))
        finger.parts.emplace_back(at->part.view());
    }
  }
  return fingers;
}

}  // namespace

Traces follow(const io::Scene& scene, const io::Take& take, const std::vector<std::string>& of, int steps,
              const std::function<void(double)>& told) {
  constexpr std::size_t journal_room = 4096;
  io::SceneRun rehearsal(scene, journal_room);
  io::Replay whole(rehearsal, take, {.told = told_part(told, 0.0, 0.5)});
  whole.finish();
  Traces made{.title = scene.title.empty() ? std::string(io::file_name(scene.file)) : scene.title,
              .subtitle = take.note("label")};
  made.decisions = whole.decisions();
  made.fingers = fingers_of(take, made.decisions);
  made.length_ms = std::max(to_ms(whole.ends() - whole.begins()), 1.0);
  io::SceneRun run(scene);
  std::vector<io::Reading> readings;
  for (const std::string& name : of.empty() ? usual(rehearsal) : of)
    for (io::Reading& reading : io::find_readings(run, scene.file, name))
      readings.push_back(std::move(reading));
  for (const io::Reading& reading : readings)
    made.traces.push_back({reading.name,
                           reading.what,
                           reading.unit,
                           reading.part == nullptr ? std::string() : reading.part->id(),
                           {},
                           reading.snap_points ? reading.snap_points() : std::vector<double>{},
                           reading.thresholds ? reading.thresholds() : std::vector<Threshold>{}});
  std::set<Micros> times;
  for (int i = 0; i <= steps; ++i) times.insert(whole.begins() + (whole.ends() - whole.begins()) * i / steps);
  io::Replay replay(run, take, {.told = told_part(told, 0.5, 1.0)});
  for (const Micros time : times) {
    replay.play_to(time);
    for (std::size_t i = 0; i < readings.size(); ++i) {
      Trace& trace = made.traces[i];
      if (!trace.part.empty() && run.stage().find(trace.part) != readings[i].part) continue;
      trace.points.emplace_back(to_ms(time - whole.begins()), readings[i].now());
    }
  }
  if (of.empty()) std::erase_if(made.traces, [](const Trace& one) { return !changes(one); });
  if (made.traces.empty())
    throw std::invalid_argument(scene.file +
                                ": nothing moved; say by --of what to follow, such as cell.NAME");
  return made;
}

namespace {

// A place on the screen along an axis, beside which a finger can be drawn.
std::optional<Axis> axis_of(const Trace& trace) {
  if (trace.unit != "dp") return std::nullopt;
  if (trace.what.ends_with(".x")) return Axis::horizontal;
  if (trace.what.ends_with(".y")) return Axis::vertical;
  return std::nullopt;
}

// The fingers that the panel's parts had, beside their places, and how far they might go before they dragged.
void add_fingers(Panel& panel, const Traces& run, const std::vector<const Part*>& parts, Axis axis,
                 double begin, const skin::CombColours& colours) {
  Line trace{.name = "finger", .points = {}, .colour = colours.heather, .width = 2.0, .dash = 4};
  Line pointer{.name = "pointer", .points = {}, .colour = colours.heather, .width = 1.4, .dash = 3};
  std::set<std::pair<double, double>> pressed;  // where, and the threshold there
  for (const Finger& finger : run.fingers) {
    const auto had = std::find_if(parts.begin(), parts.end(), [&](const Part* part) {
      return std::find(finger.parts.begin(), finger.parts.end(), part->id()) != finger.parts.end();
    });
    if (had == parts.end()) continue;
    if (!finger.hovers)
      pressed.emplace(along(axis, finger.way.front().at), (*had)->feel_for(finger.tool).threshold(axis));
    Line& line = finger.hovers ? pointer : trace;
    for (const Sample& sample : finger.way)
      line.points.emplace_back(to_ms(sample.time) - begin, along(axis, sample.at));
    line.points.emplace_back(to_ms(finger.way.back().time) - begin, HUGE_VAL);
  }
  for (Line* line : {&trace, &pointer})
    if (!line->points.empty()) panel.lines.push_back(std::move(*line));
  constexpr std::size_t max_presses = 3;  // more lines than that are no help
  if (pressed.size() > max_presses) return;
  for (const auto& [at, threshold] : pressed) {
    panel.levels.push_back({.at = at - threshold, .colour = colours.brick, .words = {}, .dash = 2});
    panel.levels.push_back(
        {.at = at + threshold, .colour = colours.brick, .words = "drag threshold", .dash = 2});
  }
}

}  // namespace

Graph graph_of(const Traces& run, const io::Scene& scene, const io::Take& take,
               const skin::CombColours& colours) {
  const auto palette = line_colours(colours);
  Graph graph{.title = run.title, .subtitle = run.subtitle, .panels = {}, .columns = 1, .legend_columns = 4};
  std::vector<std::string> whats;
  for (const Trace& one : run.traces)
    if (std::find(whats.begin(), whats.end(), one.what) == whats.end()) whats.push_back(one.what);
  const io::SceneRun fresh(scene);
  const double begin = take.samples.empty() ? 0.0 : to_ms(take.samples.front().time);
  constexpr std::size_t max_thresholds = 8;  // more would hide what they are to explain
  std::size_t next_colour = 1;               // the first is the finger's
  for (const std::string& what : whats) {
    Panel panel{.title = what, .x_to = run.length_ms, .x_numbers = false};
    std::set<double> snap_points;
    std::set<double> thresholds;
    std::string unit;  // parts have a reading of one name in one unit
    std::optional<Axis> place;
    std::vector<const Part*> parts;
    for (const Trace& one : run.traces) {
      if (one.what != what) continue;
      if (const Part* part = fresh.stage().find(one.part)) parts.push_back(part);
      unit = one.unit;
      place = axis_of(one);
      panel.lines.push_back(
          {.name = one.name, .points = one.points, .colour = palette[next_colour++ % palette.size()]});
      snap_points.insert(one.snap_points.begin(), one.snap_points.end());
      for (const Threshold& threshold : one.thresholds) thresholds.insert(threshold.value);
    }
    if (!unit.empty()) panel.title += ", " + unit;
    for (const double rest : snap_points)
      panel.levels.push_back(
          {.at = rest, .colour = colours.moss.with_alpha(0.8), .words = {}, .dash = 3, .width = 1.4});
    if (!panel.levels.empty()) panel.levels.front().words = "snap points";
    if (!thresholds.empty() && thresholds.size() <= max_thresholds) {
      for (const double value : thresholds)
        panel.levels.push_back(
            {.at = value, .colour = colours.brick.with_alpha(0.8), .words = {}, .dash = 2, .width = 1.2});
      panel.levels.back().words = thresholds.size() > 1 ? "thresholds" : "threshold";
    }
    if (place) add_fingers(panel, run, parts, *place, begin, colours);
    graph.panels.push_back(std::move(panel));
  }
  // Long runs are told in seconds.
  constexpr double long_ms = 20'000.0;
  const double per_unit = run.length_ms >= long_ms ? 1e-3 : 1.0;
  graph.panels.back().x_numbers = true;
  graph.panels.back().x_label = per_unit == 1.0 ? "ms since the first touch" : "s since the first touch";
  std::vector<Rule> moments;
  for (const Decision& decision : run.decisions)
    if (std::string words = words::caption(decision); !words.empty())
      moments.push_back({.at = to_ms(decision.time) - begin,
                         .colour = colours.ink.with_alpha(0.8),
                         .words = std::move(words),
                         .dash = 1,
                         .width = 1.0});
  constexpr std::size_t max_moments = 60;  // more would hide what they are to explain
  if (moments.size() > max_moments) {
    graph.subtitle += (graph.subtitle.empty() ? "" : "; ") + std::to_string(moments.size()) +
                      " decisions are too many to be drawn: `ubbo why` tells them";
    moments.clear();
  }
  for (Panel& panel : graph.panels) {
    const bool first = &panel == graph.panels.data();
    panel.moments = moments;
    for (Rule& moment : panel.moments) {
      moment.at *= per_unit;
      if (!first) moment.words.clear();
    }
    panel.x_to *= per_unit;
    for (Line& trace : panel.lines)
      for (auto& point : trace.points) point.first *= per_unit;
  }
  return graph;
}

}  // namespace ubbo::show
