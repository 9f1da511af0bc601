#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <cstdio>
#include <filesystem>
#include <memory>

#include "commands.hpp"
#include "demo_files.hpp"
#include "say.hpp"
#include "ubbo/io/replay/expectation.hpp"
#include "ubbo/io/replay/report.hpp"
#include "ubbo/io/text/input_error.hpp"

namespace ubbo::tool {

namespace {

int run_demo(const std::string& folder, const Kit& kit) {
  std::error_code failed;
  std::filesystem::create_directories(folder, failed);
  if (failed) throw io::InputError({.file = folder, .found = "cannot be made: " + failed.message()});

  std::vector<std::string> takes;
  std::vector<std::string> kept;  // what the user has changed
  for (const DemoFile& file : demo_files()) {
    const std::string path = folder + "/" + std::string(file.name);
    if (std::filesystem::exists(path) && io::read_text(path) != file.text)
      kept.emplace_back(file.name);
    else
      io::write_text(path, file.text);
    if (path.ends_with(".take.csv")) takes.push_back(path);
  }

  if (!kept.empty()) say("kept as you changed them: {}\n\n", fmt::join(kept, ", "));

  std::vector<std::string> pictures;
  int exit = done;
  for (const std::string& take_path : takes) {
    const io::Take take = io::read_take(take_path);
    const std::string scene_path = folder + "/" + take.note("scene");
    const io::Scene scene = io::read_scene(scene_path, kit.kinds);
    io::SceneRun run(scene, 4096);
    io::Replay replay(run, take);
    const auto unmet = io::play_and_check(run, replay, io::expectations_of(take));
    say("{}: {}\n{}{}\n", scene.title, take.note("label"), io::why_text(replay, ""), io::cells_text(run));
    for (const std::string& what : unmet) {
      warn("ubbo: {}: expectation not met: {}\n", take_path, what);
      exit = found_wrong;
    }
    const std::string stem = take_path.substr(0, take_path.size() - std::string_view(".take.csv").size());
    pictures.push_back(stem + ".film.png");
    shoot_film({.on = {.path = scene_path}, .take = take_path, .out = pictures.back()}, kit);
  }
  pictures.push_back(folder + "/inspection.drag.graph.png");
  shoot_graph({.path = folder + "/inspection.scene.toml"}, folder + "/inspection.drag.take.csv",
              {"thumb.x", "velocity"}, pictures.back(), kit);
  for (std::string& picture : shoot_motions(folder)) pictures.push_back(std::move(picture));
  say("pictures:\n");
  for (const std::string& picture : pictures) say("  {}\n", picture);
  say("\nchange a number in {0}/inspection.scene.toml and look again, for example:\n"
      "  ubbo why {0}/inspection.scene.toml {0}/inspection.drag.take.csv\n",
      folder);
  return exit;
}

}  // namespace

void add_demo(CLI::App& app, int& exit, const Kit& kit) {
  auto folder = std::make_shared<std::string>("heather-ridge");
  CLI::App* verb =
      app.add_subcommand("demo", "Replay the shipped touches on the shipped scenes, say why, draw films");
  verb->add_option("-o,--out", *folder, "folder for the scenes, the takes and the pictures")
      ->capture_default_str();
  verb->footer(
      "Example:  ubbo demo\n"
      "Exit codes:  0 done, 1 an expectation of a take is not met, 2 bad input or usage.");
  verb->callback([folder, &exit, &kit] { exit = run_demo(*folder, kit); });
}

}  // namespace ubbo::tool
