#pragma once

#include <map>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

#include "ubbo/io/motion/motion_spec.hpp"
#include "ubbo/io/scene/cell_value.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/parts/kinds.hpp"
#include "ubbo/stage/stage.hpp"

namespace ubbo::io {

/// Where something stands in a file, from 1; 0: nowhere.
struct FilePlace {
  std::size_t line = 0;
  std::size_t column = 0;
};

/// A finding of `check_scene` that the scene's author knows of and accepts.
struct Silence {
  std::string rule{};
  std::string of{};  ///< the part, cell or feel it is about; "": any
  std::string reason{};
  FilePlace place{};
};

/// One part as a scene file describes it.
struct PartPlan {
  std::string id;
  const PartKind* kind = nullptr;
  AnySettings settings{};                      ///< of its kind; cells not linked
  std::map<std::string, std::string> cells{};  ///< setting name to cell name
  Placement placement{};
  ContactRules contact_rules{};  ///< how it stands to the others
  Content content{};
  bool hidden = false;
  bool disabled = false;
  std::optional<Feels> feels{};  ///< of its own; none: the scene's
  std::size_t line = 0;          ///< where it stands in the file
  std::size_t column = 0;
  std::map<std::string, FilePlace> places{};  ///< where each setting stands that the scene says
};

/// What a scene file says.
struct Scene {
  std::string title{};
  std::string file{};
  StageSettings stage{};
  std::vector<std::pair<std::string, CellValue>> cells{};
  std::map<std::string, FilePlace> cell_places{};
  std::vector<PartPlan> parts{};
  std::vector<Silence> silences{};
  FilePlace feel_place{};
  Kinds kinds = shipped_kinds();  ///< the kinds of part its reader knew
};

/// A scene as far as it could be read, without the parts that are wrong and what lies in them, and all that
/// is wrong.
struct SceneRead {
  Scene scene{};
  std::vector<InputError::Facts> wrong{};
};

/// Whether a scene may hold this setting of a stage: the journal is up to the program that runs it.
[[nodiscard]] inline bool is_scene_setting(std::string_view name) {
  return name != "journal" && name != "keep";
}

/// Reads a scene (docs/formats/scene.md) with parts of these kinds. `name` stands for the file in errors.
/// Throws `InputError` with line and column for anything the format does not know or a part would refuse.
///
/// `changes` count before what the scene says, with the same checks: `frames.step=2`,
/// `feel.drag_threshold=8`, `feel.stylus.tap_reach=3`, `screen.width=411`, `cells.frames=3`. A value stands
/// as in a scene; text needs no quotes.
///
/// `curves` are curves of the app's own that transitions may name: `enter = "settle-in 240ms"`.
///
/// `measure` is asked where a part in a `layout = "row"` is as wide as its text; without one, that is
/// refused.
[[nodiscard]] Scene parse_scene(std::string_view text, const std::string& name, Kinds kinds = shipped_kinds(),
                                std::span<const std::string> changes = {}, const TextWidth& measure = {},
                                std::span<const NamedCurve> curves = {});
/// Reads a scene as far as it can be read; throws nothing for what is wrong. Each of the parts in it can be
/// made.
[[nodiscard]] SceneRead read_scene(std::string_view text, const std::string& name,
                                   Kinds kinds = shipped_kinds(), std::span<const std::string> changes = {},
                                   const TextWidth& measure = {}, std::span<const NamedCurve> curves = {});

}  // namespace ubbo::io
