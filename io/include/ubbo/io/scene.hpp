#pragma once

#include <deque>
#include <map>
#include <memory>
#include <string>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

#include "ubbo/parts/pad.hpp"
#include "ubbo/parts/pane.hpp"
#include "ubbo/parts/slider.hpp"
#include "ubbo/stage/stage.hpp"

namespace ubbo::io {

/// One part as a scene file describes it.
struct PartPlan {
  std::string id;
  Box box;
  std::variant<SliderSettings, PadSettings, PaneSettings>
      settings;                                ///< one alternative a kind of part; cells not linked yet
  std::map<std::string, std::string> cells{};  ///< setting name to cell name
  Standing standing{};                         ///< how it stands to the others
  std::size_t line = 0;                        ///< where it stands in the file
  std::size_t column = 0;
};

/// What a scene file says.
struct Scene {
  std::string title;
  std::string file;
  StageSettings stage;
  std::vector<std::pair<std::string, double>> cells;
  std::vector<PartPlan> parts;
};

/// Reads a scene (docs/formats/scene.md). `name` stands for the file in errors. Throws `InputError` with line
/// and column for anything the format does not know or a part would refuse.
[[nodiscard]] Scene parse_scene(std::string_view text, const std::string& name);
/// Reads a scene from a file.
[[nodiscard]] Scene read_scene(const std::string& path);

/// A scene at work: its cells, and a stage with its parts linked to them.
class SceneRun {
 public:
  /// `journal_room`: decisions the journal has room for; 0: off.
  explicit SceneRun(const Scene& scene, std::size_t journal_room = 0);

  [[nodiscard]] Stage& stage() { return *stage_; }
  [[nodiscard]] const Stage& stage() const { return *stage_; }
  /// Name and cell, sorted by name.
  [[nodiscard]] const std::deque<std::pair<std::string, Cell<double>>>& cells() const { return cells_; }
  /// The cell with this name, or null.
  [[nodiscard]] Cell<double>* cell(std::string_view name);

 private:
  std::deque<std::pair<std::string, Cell<double>>> cells_;
  std::unique_ptr<Stage> stage_;
};

}  // namespace ubbo::io
