#pragma once

#include <optional>
#include <utility>

#include "rules.hpp"
#include "ubbo/io/scene/scene_run.hpp"

namespace ubbo::check {

/// A part of the scene, with what it comes to.
struct Looked {
  const io::PartPlan* plan;
  const Part* part;
  bool layer;   ///< it comes and goes
  bool target;  ///< people touch it, or reach it by keys
  Box box;      ///< where it stands when it is present
};

/// A scene as its parts stand before anybody touches them, and what was found wrong with it.
struct Look {
  /// `partial_`: parts were left out that could not be read, so that nothing is said of what is not there.
  Look(const io::Scene& scene_, const TextWidth& measure_, bool partial_);

  void say(RuleName rule, const std::string& of, io::FilePlace place, std::string found, std::string remedy);
  /// At the place of a setting of the part; where it is not in the file, at the part's.
  void say(RuleName rule, const Looked& one, const char* setting, std::string found, std::string remedy);
  /// What a cell holds at first; null: there is none of this name.
  [[nodiscard]] const io::CellValue* begins(const std::string& cell) const;

  const io::Scene* scene;
  const TextWidth* measure;
  bool partial;
  io::SceneRun run;
  std::vector<Looked> parts;
  std::vector<Finding> found;
};

/// A setting of the part by its name, as it holds it; nothing when its kind has none of that name.
[[nodiscard]] std::optional<SettingValue> value(const Looked& one, std::string_view name);
[[nodiscard]] std::optional<double> number(const Looked& one, std::string_view name);

/// How long a transition takes for 100 dp, ms.
[[nodiscard]] double length_of(const Transition& transition);

[[nodiscard]] std::string ms(double value);
[[nodiscard]] std::string dp(double value);
[[nodiscard]] bool any_of(std::string_view text, std::initializer_list<std::string_view> all);

/// Where parts stand: on the screen, off each other, large enough.
void check_places(Look& look);
/// What parts show, and what their actions are.
void check_content(Look& look);
/// What their settings say.
void check_settings(Look& look);
/// How layers come and go.
void check_layers(Look& look);
/// What cells begin with, and who uses them.
void check_cells(Look& look);
/// Touch thresholds that contradict each other.
void check_feels(Look& look);

}  // namespace ubbo::check
