#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <filesystem>
#include <memory>

#include "commands.hpp"
#include "say.hpp"
#include "ubbo/io/replay/expectation.hpp"
#include "ubbo/io/replay/report.hpp"
#include "ubbo/io/text/input_error.hpp"

namespace ubbo::tool {

namespace {

struct ReplayOrder {
  OnScene on;
  std::vector<std::string> takes;
  std::string part;
  double fps = 60.0;
  bool json = false;
};

// Folders stand for the takes in them, by name.
std::vector<std::string> takes_of(const std::vector<std::string>& given) {
  std::vector<std::string> paths;
  for (const std::string& path : given) {
    if (!std::filesystem::is_directory(path)) {
      paths.push_back(path);
      continue;
    }
    const std::size_t before = paths.size();
    for (const auto& entry : std::filesystem::directory_iterator(path))
      if (entry.path().string().ends_with(".take.csv")) paths.push_back(entry.path().string());
    if (paths.size() == before)
      throw io::InputError({.file = path, .found = "a folder without takes", .takes = "one with *.take.csv"});
    std::sort(paths.begin() + static_cast<std::ptrdiff_t>(before), paths.end());
  }
  return paths;
}

// One replay with what came of it.
struct Played {
  io::Take take;
  io::SceneRun run;
  io::Replay replay;
  std::vector<std::string> unmet;

  Played(const io::Scene& scene, const std::string& path, double fps)
      : take(read_take_on(scene, path)), run(scene, 4096), replay(run, take, {.fps = fps}) {
    unmet = io::play_and_check(run, replay, io::expectations_of(take));
  }
  [[nodiscard]] int warn_of() const {
    for (const std::string& note : io::unknown_notes(take)) warn("ubbo: {}: {}\n", take.file, note);
    for (const std::string& warning : replay.warnings()) warn("ubbo: {}: {}\n", take.file, warning);
    for (const std::string& what : unmet) warn("ubbo: {}: expectation not met: {}\n", take.file, what);
    return unmet.empty() ? done : found_wrong;
  }
};

int replay_all(const ReplayOrder& order, const Kit& kit) {
  const io::Scene scene = order.on.read(kit);
  const std::vector<std::string> paths = takes_of(order.takes);
  int exit = done;
  std::size_t widest = 4;
  for (const std::string& path : paths)
    widest = std::max(widest, std::filesystem::path(path).filename().string().size());
  std::vector<std::string> objects;
  if (paths.size() > 1 && !order.json)
    say("{:<{}}  {:>10}  {:>9}  {}\n", "take", widest, "ms", "decisions", "outcome");
  const std::string scene_name = std::filesystem::path(order.on.path).filename().string();
  for (const std::string& path : paths) {
    const std::string name = std::filesystem::path(path).filename().string();
    if (paths.size() > order.takes.size()) {  // found in a folder, where takes of other scenes may lie
      const std::string other = read_take_on(scene, path).note("scene");
      if (!other.empty() && other != scene_name) {
        if (!order.json) say("{:<{}}  {:>10}  {:>9}  made for {}\n", name, widest, "-", "-", other);
        continue;
      }
    }
    const Played one(scene, path, order.fps);
    if (order.json) {
      objects.push_back(io::replay_json(one.run, one.replay, one.unmet));
    } else if (paths.size() == 1) {
      say("{}", io::replay_text(one.run, one.replay));
    } else {
      const bool expects = !one.take.note("expectation").empty();
      say("{:<{}}  {:>10.0f}  {:>9}  ", name, widest, to_ms(one.replay.ends() - one.replay.begins()),
          one.replay.decisions().size());
      if (!expects)
        say_in(Ink::quiet, "expects nothing\n");
      else if (one.unmet.empty())
        say_in(Ink::good, "as expected\n");
      else
        say_in(Ink::bad, "not as expected\n");
    }
    exit = std::max(exit, one.warn_of());
  }
  if (order.json) say("{}", paths.size() == 1 ? objects[0] : fmt::format("[{}]\n", fmt::join(objects, ",")));
  return exit;
}

}  // namespace

void say_why(const io::Replay& replay, std::string_view part) {
  const auto lines = io::why_lines(replay, part);
  for (const io::WhyLine& line : lines) {
    say_text(line.when, Ink::quiet);
    say_text(line.who, Ink::name);
    say("{}\n", line.sentence);
  }
  if (lines.empty()) say("no decisions\n");
}

void add_replay(Verb app, int& exit, const Kit& kit) {
  auto order = std::make_shared<ReplayOrder>();
  const Verb verb = app.add_verb("replay", "Replay takes on a scene: final values and outcomes");
  order->on.add_to(verb);
  verb.add_option("TAKE", order->takes,
                  "takes (*.take.csv) or other recordings of touches, or folders of takes")
      .required();
  verb.add_flag("--json", order->json, "print JSON (docs/formats/replay-json.md)");
  verb.add_option("--fps", order->fps, "frames a second, 1 to 1000; outcomes do not depend on it")
      .with_default();
  verb.footer(
      "Example:  ubbo replay heather-ridge/inspection.scene.toml heather-ridge/inspection.drag.take.csv\n"
      "Example:  ubbo replay heather-ridge/inspection.scene.toml heather-ridge --set feel.drag_threshold=10\n"
      "Exit codes:  0 done, 1 an expectation of a take is not met, 2 bad input or usage.");
  verb.when_called([order, &exit, &kit] { exit = replay_all(*order, kit); });
}

void add_why(Verb app, int& exit, const Kit& kit) {
  auto order = std::make_shared<ReplayOrder>();
  const Verb verb = app.add_verb("why", "Say every decision of a replay, with its numbers");
  order->on.add_to(verb);
  verb.add_option("TAKE", order->takes, "a take (*.take.csv) or another recording of touches")
      .required()
      .once();
  verb.add_flag("--json", order->json, "print JSON (docs/formats/replay-json.md)");
  verb.add_option("--part", order->part, "only the decisions of the part with this id");
  verb.footer(
      "Example:  ubbo why heather-ridge/inspection.scene.toml heather-ridge/inspection.drag.take.csv --part "
      "frames\n"
      "Exit codes:  0 done, 1 an expectation of the take is not met, 2 bad input or usage.");
  verb.when_called([order, &exit, &kit] {
    const io::Scene scene = order->on.read(kit);
    io::SceneRun fresh(scene);
    io::demand_part(fresh, order->on.path, order->part);
    const Played one(scene, order->takes[0], order->fps);
    if (order->json)
      say("{}", io::why_json(one.replay, order->part));
    else
      say_why(one.replay, order->part);
    exit = one.warn_of();
  });
}

}  // namespace ubbo::tool
