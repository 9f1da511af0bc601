#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <array>
#include <cstdio>
#include <filesystem>
#include <memory>

#include "commands.hpp"
#include "demo_files.hpp"
#include "progress.hpp"
#include "say.hpp"
#include "ubbo/file/read.hpp"
#include "ubbo/file/whole_file.hpp"
#include "ubbo/io/replay/expectation.hpp"
#include "ubbo/io/replay/report.hpp"
#include "ubbo/io/text/input_error.hpp"

namespace ubbo::tool {

namespace {

std::string scene_of(const std::string& folder, const io::Take& take) {
  return folder + "/" + take.note("scene");
}

// A table of the takes: what was meant, what the cells came to, whether that was expected.
int replay_demo(const std::string& folder, const std::vector<std::string>& takes, Kinds kinds) {
  struct Row {
    std::string take, meant, came, unmet;
    bool expects = false;
  };
  std::vector<Row> rows{{"take", "what was meant", "came to", {}, false}};
  for (const std::string& path : takes) {
    const io::Take take = take_at(path);
    const io::Scene scene = scene_at(scene_of(folder, take), kinds);
    io::SceneRun run(scene, 4096);
    io::Replay replay(run, take);
    const auto unmet = io::play_and_check(run, replay, io::expectations_of(take));
    std::string name = std::filesystem::path(path).filename().string();
    name.resize(name.size() - std::string_view(".take.csv").size());
    std::string came = io::changed_cells(scene, run);
    rows.push_back({std::move(name), take.note("label"), came.empty() ? "no cell changed" : std::move(came),
                    fmt::format("{}", fmt::join(unmet, "; ")), !take.note("expectation").empty()});
  }
  std::array<std::size_t, 3> widths{};
  for (const Row& row : rows) {
    const std::array<const std::string*, 3> columns{&row.take, &row.meant, &row.came};
    for (std::size_t i = 0; i < columns.size(); ++i) widths[i] = std::max(widths[i], columns[i]->size());
  }
  int exit = done;
  for (const Row& row : rows) {
    say("{:<{}}  {:<{}}  {:<{}}  ", row.take, widths[0], row.meant, widths[1], row.came, widths[2]);
    if (&row == rows.data()) {
      say("outcome\n");
    } else if (!row.unmet.empty()) {
      exit = found_wrong;
      say_in(Ink::bad, "not as expected: {}\n", row.unmet);
    } else if (row.expects) {
      say_in(Ink::good, "as expected\n");
    } else {
      say_in(Ink::quiet, "expects nothing\n");
    }
  }
  return exit;
}

int run_demo(const std::string& folder, const Kit& kit) {
  std::error_code failed;
  std::filesystem::create_directories(folder, failed);
  if (failed) throw io::InputError({.file = folder, .found = "cannot be made: " + failed.message()});

  std::vector<std::string> takes;
  std::vector<std::string> kept;  // what the user has changed
  for (const demo::File& file : demo::files()) {
    const std::string path = folder + "/" + std::string(file.name);
    if (std::filesystem::exists(path) && file::read(path) != file.text)
      kept.emplace_back(file.name);
    else
      file::write_whole(path, file.text);
    if (path.ends_with(".take.csv")) takes.push_back(path);
  }

  if (!kept.empty()) say("kept as you changed them: {}\n\n", fmt::join(kept, ", "));

  // What passed, then one of them in full, then where it stands drawn, then what to try.
  const int exit = replay_demo(folder, takes, kit.kinds);
  const std::string drag = folder + "/inspection.scene.toml " + folder + "/inspection.drag.take.csv";
  say("\nwhy inspection.drag came to that (ubbo why {}):\n\n", drag);
  const io::Scene scene = scene_at(folder + "/inspection.scene.toml", kit.kinds);
  const io::Take take = take_at(folder + "/inspection.drag.take.csv");
  io::SceneRun run(scene, 4096);
  io::Replay replay(run, take);
  replay.finish();
  say_why(replay, "");
  finish_saying();

  Progress progress("pictures");
  std::vector<std::string> pictures;
  for (const std::string& path : takes) {
    const std::string stem = path.substr(0, path.size() - std::string_view(".take.csv").size());
    pictures.push_back(stem + ".film.png");
    shoot_film({.on = {.path = scene_of(folder, take_at(path))}, .take = path, .out = pictures.back()}, kit);
    progress.tell(static_cast<double>(pictures.size()) / static_cast<double>(takes.size() + 4));
  }
  pictures.push_back(folder + "/inspection.drag.graph.png");
  shoot_graph({.path = folder + "/inspection.scene.toml"}, folder + "/inspection.drag.take.csv",
              {"frames.thumb.x", "frames.velocity"}, pictures.back(), kit);
  for (std::string& picture : shoot_motions(folder)) pictures.push_back(std::move(picture));
  std::vector<std::string> scenes;
  for (const demo::File& file : demo::files())
    if (file.name.ends_with(".scene.toml")) scenes.push_back(folder + "/" + std::string(file.name));
  pictures.push_back(folder + "/overview.png");
  shoot_overview(scenes, pictures.back(), false, kit);
  say("\npictures:\n  {}\n", fmt::join(pictures, "\n  "));
  say("\nNow try another number, without touching a file:\n"
      "  ubbo why {0} --set feel.drag_threshold=40\n"
      "or change one in {1}/inspection.scene.toml and see what became of all takes:\n"
      "  ubbo watch replay {1}/inspection.scene.toml {1}\n",
      drag, folder);
  return exit;
}

}  // namespace

void add_demo(Verb app, int& exit, const Kit& kit) {
  auto folder = std::make_shared<std::string>("heather-ridge");
  const Verb verb =
      app.add_verb("demo", "Replay the shipped touches on the shipped scenes, say why, draw films");
  verb.add_option("-o,--out", *folder, "folder for the scenes, the takes and the pictures").with_default();
  verb.footer(
      "Example:  ubbo demo\n"
      "Exit codes:  0 done, 1 an expectation of a take is not met, 2 bad input or usage.");
  verb.when_called([folder, &exit, &kit] { exit = run_demo(*folder, kit); });
}

}  // namespace ubbo::tool
