#pragma once

#include <cstdint>
#include <optional>

#include "ubbo/base/geometry.hpp"
#include "ubbo/enter_exit/visual_state.hpp"

namespace ubbo {

class Part;
struct Transition;

/// How a part is there by what holds it.
enum class ChildUse : std::uint8_t { gone, seen, used };

/// What a part adds that has a say in the parts that lie in it: where they are, how they show, whether they
/// are there. A class of part derives from it beside `Part`. It is told of parts that lie in it itself,
/// not deeper.
class Container {
 public:
  Container() = default;
  Container(const Container&) = delete;
  Container& operator=(const Container&) = delete;

  /// True where it gives each of the parts that lie in it a place of its own, or its own time to be seen.
  [[nodiscard]] virtual bool places_children() const { return false; }
  /// How far it carries `inner` from where that was put; dp.
  [[nodiscard]] virtual Point carries(const Part& inner) const = 0;
  /// How it shows `inner`, beside that offset: for drawing.
  [[nodiscard]] virtual VisualState shows(const Part& /*inner*/) const { return {}; }
  /// How `inner` is there by it: not at all, to be seen, or to be used.
  [[nodiscard]] virtual ChildUse child_use(const Part& /*inner*/) const { return ChildUse::used; }

  /// The box in which what lies in it is seen and takes contacts, dp on the screen; nothing: its own box.
  [[nodiscard]] virtual std::optional<Box> window() const { return {}; }

  virtual void child_added(Part& /*inner*/) {}
  /// `inner` is being removed.
  virtual void child_removed(Part& /*inner*/) {}
  virtual void child_shown(Part& /*inner*/, bool /*visible*/) {}
  /// `inner` has another box.
  virtual void child_laid_out(Part& /*inner*/) {}
  /// `inner` gives its place up, by this transition, or takes it again; it is removed when that is over.
  virtual void child_closing(Part& /*inner*/, const Transition& /*transition*/, bool /*closes*/) {}

 protected:
  ~Container() = default;
};

}  // namespace ubbo
