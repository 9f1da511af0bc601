#pragma once

#include <functional>
#include <string>
#include <string_view>
#include <vector>

#include "ubbo/file/read.hpp"
#include "ubbo/io/replay/replay.hpp"
#include "ubbo/io/scene/scene.hpp"
#include "ubbo/io/take/take.hpp"
#include "ubbo/parts/kind.hpp"
#include "ubbo/skin/comb.hpp"
#include "ubbo/skin/lettering.hpp"
#include "ubbo/tool/run.hpp"
#include "verb.hpp"

namespace ubbo::tool {

/// What the tool answers to the shell.
enum Exit : int { done = 0, found_wrong = 1, bad_input = 2 };

/// The parts that scenes may hold, and how they are drawn.
struct Kit {
  Kinds kinds;
  skin::Looks looks;
  Extras extras;

  /// Throws in words where the build carries no fit.
  [[nodiscard]] io::BezierFitter fitter() const;
};

/// Each adds its verb to the command line; running it sets `exit`. The kit must outlive the app.
void add_check(Verb app, int& exit, const Kit& kit);
void add_curve(Verb app, int& exit, const Kit& kit);
void add_decisions(Verb app, int& exit, const Kit& kit);
void add_demo(Verb app, int& exit, const Kit& kit);
void add_export(Verb app, int& exit, const Kit& kit);
void add_film(Verb app, int& exit, const Kit& kit);
void add_graph(Verb app, int& exit, const Kit& kit);
/// `live`, or where the build carries no page, how to get one.
void add_extras(Verb app, int& exit, const Kit& kit);
void add_parts(Verb app, int& exit, const Kit& kit);
void add_replay(Verb app, int& exit, const Kit& kit);
void add_settings(Verb app, int& exit, const Kit& kit);
void add_take(Verb app, int& exit, const Kit& kit);
void add_why(Verb app, int& exit, const Kit& kit);
/// Runs the command with these words once more.
using Again = std::function<int(const std::vector<std::string>&)>;
void add_watch(Verb app, int& exit, Again again);
/// Completions and the manual page.
void add_help(Verb app, int& exit);

/// Says what the value of each option is called, lets those with few values take no other, and says exit
/// codes where a verb has none of its own. After all verbs have been added.
void name_values(Verb app, const Kit& kit);

/// Whether a motion may be called so: letters, digits, `-`, `_` and dots.
[[nodiscard]] bool is_token_name(std::string_view text);

/// Width and height from `1280x800`, each 200 to 16384; throws `std::invalid_argument`.
std::pair<int, int> picture_size(const std::string& text);

/// What every verb that runs a scene is asked: which scene, and what is changed in it for this run.
struct OnScene {
  std::string path{};
  std::vector<std::string> changes{};

  void add_to(Verb verb);
  [[nodiscard]] io::Scene read(const Kit& kit) const {
    return io::parse_scene(file::read(path), path, kit.kinds, changes, skin::inter_width);
  }
};

/// A take, or any recording of touches with its panel mapped to the scene's screen.
/// A scene or a take from a file.
[[nodiscard]] io::Scene scene_at(const std::string& path, Kinds kinds);
[[nodiscard]] io::Take take_at(const std::string& path);
[[nodiscard]] io::Take read_take_on(const io::Scene& scene, const std::string& path);

/// Says the decisions of a replay, those of `part` only unless it is empty.
void say_why(const io::Replay& replay, std::string_view part);

/// What `film` is asked for.
struct FilmOrder {
  OnScene on;
  double moving = 0.0;  // frames a second; 0: a still picture
  double slow = 1.0;    // how many times slower that is shown
  std::string take;
  std::string out;
  int frames = 12;
  std::string size = "1280x800";
  bool dark = false;
  bool places = false;
};

/// Replays and draws a film; throws as reading, replaying and saving do.
void shoot_film(const FilmOrder& order, const Kit& kit);

/// Draws the screens of these scenes side by side, as they stand at first.
void shoot_overview(const std::vector<std::string>& scenes, const std::string& out, bool dark,
                    const Kit& kit);

/// Draws the demo's motions into `folder`: a gallery of curves, a card thrown with four springs, a list whose
/// rows come in. Returns the pictures' paths.
std::vector<std::string> shoot_motions(const std::string& folder);

/// Replays and draws a graph of these readings (none: the usual ones); throws likewise.
void shoot_graph(const OnScene& on, const std::string& take, const std::vector<std::string>& of,
                 const std::string& out, const Kit& kit);

}  // namespace ubbo::tool
