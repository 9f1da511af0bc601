#pragma once

#include "ubbo/base/geometry.hpp"

namespace ubbo {

/// What a part adds that comes and goes over others. A class of part derives from it beside `Part`. The stage
/// looks at it after every event: a layer that has opened goes above the others of its container, and if it
/// is modal the focus goes into it; when it has closed the focus returns.
class LayerPart {
 public:
  LayerPart() = default;
  LayerPart(const LayerPart&) = delete;
  LayerPart& operator=(const LayerPart&) = delete;

  /// It is present, or entering.
  [[nodiscard]] virtual bool is_open() const = 0;
  /// True while it is not on the screen, with all that lies in it.
  [[nodiscard]] virtual bool is_absent() const = 0;
  /// True while nothing that lies in it takes a contact, such as before it has come.
  [[nodiscard]] virtual bool is_shut() const { return false; }
  /// True while nothing below it, on the whole screen, takes contacts, the focus or back.
  [[nodiscard]] virtual bool is_modal() const { return false; }
  /// While it is absent: a contact that goes down at `at` is on it nevertheless, and may pull it in.
  [[nodiscard]] virtual bool pulls_in(Point /*at*/) const { return false; }
  /// It is to be removed: it starts to leave, if it has a way out.
  virtual void leave() = 0;
  /// It is on its way out: what holds it waits for that.
  [[nodiscard]] virtual bool is_leaving() const = 0;
  /// `count` layers have opened above it, up to 4; for layers that step back.
  virtual void covered(int /*layers*/) {}

 protected:
  ~LayerPart() = default;
};

/// What a part adds that the phone's back is for. The stage asks the topmost first.
class BackTaker {
 public:
  BackTaker() = default;
  BackTaker(const BackTaker&) = delete;
  BackTaker& operator=(const BackTaker&) = delete;

  /// True when `back` would use it now.
  [[nodiscard]] virtual bool wants_back() const = 0;
  /// Back was pressed, or a back gesture finished, and it wants it. No contact has the part any more.
  virtual void back() = 0;
  /// A back gesture that it wants has come so far, 0 to 1: what a back would do is shown as far as that.
  virtual void back_moves(double /*progress*/) {}
  /// The gesture was given up.
  virtual void back_cancelled() {}

 protected:
  ~BackTaker() = default;
};

}  // namespace ubbo
