#pragma once

#include <deque>
#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "ubbo/io/scene/plan.hpp"

namespace ubbo::io {

/// A scene at work: its cells, and a stage with its parts linked to them. It belongs to one thread; many runs
/// of one plan, each on a thread of its own, do not hear of each other.
class SceneRun {
 public:
  /// A cell with its name.
  struct Named {
    template <class T>
    Named(std::string called, const T& value)
        : name(std::move(called)), cell(std::in_place_type<Cell<T>>, value) {}
    std::string name;
    std::variant<Cell<double>, Cell<int>, Cell<bool>, Cell<Choice>, Cell<std::string>,
                 Cell<std::vector<std::string>>>
        cell;
    [[nodiscard]] AnyCell any();
    [[nodiscard]] CellValue value() const;
  };

  /// `journal_room`: decisions the journal has room for; 0: off. `variations` count before what the scene
  /// says. Throws `InputError` for what a part refuses. A few microseconds a part.
  explicit SceneRun(const Plan& plan, std::size_t journal_room = 0,
                    std::span<const Variation> variations = {});
  explicit SceneRun(const Scene& scene, std::size_t journal_room = 0) : SceneRun(Plan(scene), journal_room) {}

  /// What it was made of.
  [[nodiscard]] const Scene& scene() const { return *scene_; }
  [[nodiscard]] Stage& stage() { return *stage_; }
  [[nodiscard]] const Stage& stage() const { return *stage_; }
  /// The cells, as the scene lists them.
  [[nodiscard]] const std::deque<Named>& cells() const { return cells_; }
  /// The cell at an index in them.
  [[nodiscard]] AnyCell cell_at(std::size_t index) { return cells_.at(index).any(); }
  /// The cell of a handle that this run's plan made.
  template <class T>
  [[nodiscard]] Cell<T>& cell(CellHandle<T> handle) {
    return std::get<Cell<T>>(cells_.at(handle.index).cell);
  }
  /// The cell with this name, or null.
  [[nodiscard]] Named* find_cell(std::string_view name);
  /// The cell with this name that holds a `T`, or null.
  template <class T = double>
  [[nodiscard]] Cell<T>* cell(std::string_view name) {
    Named* found = find_cell(name);
    return found == nullptr ? nullptr : std::get_if<Cell<T>>(&found->cell);
  }

 private:
  std::shared_ptr<const Scene> scene_;
  std::deque<Named> cells_;
  std::unique_ptr<Stage> stage_;
};

}  // namespace ubbo::io
