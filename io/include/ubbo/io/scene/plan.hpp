#pragma once

#include <cstddef>
#include <memory>
#include <string_view>
#include <vector>

#include "ubbo/io/scene/scene.hpp"

namespace ubbo::io {

/// One setting of one part as it is to be in a run, unlike the scene says. Made by `Plan::vary`.
struct Variation {
  std::size_t part = 0;     ///< index in `Scene::parts`
  std::size_t setting = 0;  ///< index in its kind's settings
  SettingValue value{};
};

/// Where a cell that holds a `T` stands among a plan's. Made by `Plan::cell`.
template <class T>
struct CellHandle {
  std::size_t index = 0;
};

/// A scene made ready to be run, once; it never changes, so that many runs, on many threads, may be made of
/// it. It need not outlive them.
class Plan {
 public:
  explicit Plan(Scene scene);
  [[nodiscard]] const Scene& scene() const { return *scene_; }

  /// `plan.vary("frames", "step", 2.0)`: checked against what the setting takes. Throws
  /// `std::invalid_argument` that names part, setting, what was given and what is taken. What only several
  /// settings together show is refused when the run is made.
  [[nodiscard]] Variation vary(std::string_view part, std::string_view setting, SettingValue value) const;

  /// A handle of the cell with this name, good for every run of this plan: `run.cell(handle).set(3)`. Throws
  /// `std::invalid_argument` where there is none, or it holds another kind of value.
  template <class T>
  [[nodiscard]] CellHandle<T> cell(std::string_view name) const {
    return {cell_at(name, cell_kind_of<T>)};
  }

  /// A setting of a part that is linked to a cell of the scene.
  struct Linked {
    std::size_t setting = 0;
    std::size_t cell = 0;
  };
  /// Those of the part at this index.
  [[nodiscard]] const std::vector<Linked>& links(std::size_t part) const { return links_[part]; }

 private:
  [[nodiscard]] std::size_t cell_at(std::string_view name, CellKind kind) const;

  friend class SceneRun;
  std::shared_ptr<const Scene> scene_;
  std::vector<std::vector<Linked>> links_;
};

}  // namespace ubbo::io
