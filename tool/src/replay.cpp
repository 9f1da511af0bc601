#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <cstdio>
#include <memory>

#include "commands.hpp"
#include "say.hpp"
#include "ubbo/io/replay/expectation.hpp"
#include "ubbo/io/replay/report.hpp"

namespace ubbo::tool {

namespace {

struct ReplayOrder {
  std::string scene;
  std::string take;
  std::string part;
  double fps = 60.0;
  bool json = false;
};

// Reads, replays, hands the outcome to `print`, and says what the user should know.
template <class Print>
int replayed(const ReplayOrder& order, const Kit& kit, Print&& print) {
  const io::Scene scene = io::read_scene(order.scene, kit.kinds);
  const io::Take take = io::read_take(order.take);
  io::SceneRun run(scene, 4096);
  io::Replay replay(run, take, {.fps = order.fps});
  replay.finish();
  print(run, replay);
  for (const std::string& warning : replay.warnings()) warn("ubbo: {}: {}\n", order.take, warning);
  const auto unmet = io::unmet_expectations(run, take);
  for (const std::string& what : unmet) warn("ubbo: {}: expectation not met: {}\n", order.take, what);
  return unmet.empty() ? done : found_wrong;
}

CLI::App* add_verb(CLI::App& app, const char* name, const char* does,
                   const std::shared_ptr<ReplayOrder>& order) {
  CLI::App* verb = app.add_subcommand(name, does);
  verb->add_option("SCENE", order->scene, "scene file (*.scene.toml)")->required();
  verb->add_option("TAKE", order->take, "recording of touches (*.take.csv)")->required();
  verb->add_flag("--json", order->json, "print JSON (docs/formats/replay-json.md)");
  return verb;
}

}  // namespace

void add_replay(CLI::App& app, int& exit, const Kit& kit) {
  auto order = std::make_shared<ReplayOrder>();
  CLI::App* verb = add_verb(app, "replay", "Replay a take on a scene: final values and outcomes", order);
  verb->add_option("--fps", order->fps, "frames a second, 1 to 1000; outcomes do not depend on it")
      ->capture_default_str();
  verb->footer(
      "Example:  ubbo replay inspection.scene.toml inspection.drag.take.csv --fps 120\n"
      "Exit code 1 when the take holds an expectation that is not met.");
  verb->callback([order, &exit, &kit] {
    exit = replayed(*order, kit, [&](const io::SceneRun& run, const io::Replay& replay) {
      say("{}", order->json ? io::replay_json(run, replay) : io::replay_text(run, replay));
    });
  });
}

void add_why(CLI::App& app, int& exit, const Kit& kit) {
  auto order = std::make_shared<ReplayOrder>();
  CLI::App* verb = add_verb(app, "why", "Say every decision of a replay, with its numbers", order);
  verb->add_option("--part", order->part, "only the decisions of the part with this id");
  verb->footer("Example:  ubbo why inspection.scene.toml inspection.drag.take.csv --part frames");
  verb->callback([order, &exit, &kit] {
    exit = replayed(*order, kit, [&](io::SceneRun& run, const io::Replay& replay) {
      io::demand_part(run, order->scene, order->part);
      say("{}", order->json ? io::why_json(replay, order->part) : io::why_text(replay, order->part));
    });
  });
}

}  // namespace ubbo::tool
