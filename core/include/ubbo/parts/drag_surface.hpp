#pragma once

#include "ubbo/touch/contacts.hpp"
#include "ubbo/touch/gesture.hpp"

namespace ubbo {

/// What a part adds that hands a finger on at its ends, and takes one over: within one touch a list at its
/// end moves the sheet around it, and back. A class of part derives from it beside `Part`.
class DragSurface {
 public:
  DragSurface() = default;
  DragSurface(const DragSurface&) = delete;
  DragSurface& operator=(const DragSurface&) = delete;

  /// True when a drag towards `side` would move it now; a list at its end says no.
  [[nodiscard]] virtual bool can_go(Side side) const = 0;
  /// Its contact has moved: follows as far as it goes without overscroll, and returns what is left, dp.
  virtual Point drag_to(const Contact& contact, const Sample& sample) = 0;
  /// Nobody else takes what was left over: its bound may yield.
  virtual void overscroll() = 0;
  /// Gets a contact in the middle of a drag; the drag counts from `anchor`, so that nothing jumps. False when
  /// it cannot.
  virtual bool take_over(const Contact& contact, Point anchor) = 0;
  /// Gives its contact away in the middle of a drag, and stays where it is.
  virtual void hand_over() = 0;
  /// A contact that it had a part in has ended with another part.
  virtual void left_behind() = 0;
  /// Gets what is left of a flick, dp/s, from a part that is at its bound. False when it cannot go on with
  /// it.
  virtual bool take_momentum(Point velocity) = 0;
  /// Shows itself ahead by as much of `ahead` (dp) as it can, since the contact will be there when the screen
  /// is lit; returns what it cannot show. Decides nothing.
  virtual Point predict(Point ahead) = 0;

 protected:
  ~DragSurface() = default;
};

}  // namespace ubbo
