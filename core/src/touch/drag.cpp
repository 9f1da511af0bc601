#include "ubbo/touch/drag.hpp"

#include <algorithm>
#include <cmath>

namespace ubbo {

void Drag::press(Point at) {
  state_ = State::pressed;
  from_ = at_ = anchor_ = at;
  strayed_squared_ = 0.0;
}

double Drag::travel() const {
  const Point moved = at_ - from_;
  return reach_ == Reach::plane ? length(moved) : std::fabs(along(axis_, moved));
}

bool Drag::move(const Point& at, double threshold) {
  if (state_ == State::idle) return false;
  at_ = at;
  // Places are bounded, so their squares are.
  const Point gone_by = at - from_;
  strayed_squared_ = std::max(strayed_squared_, gone_by.x * gone_by.x + gone_by.y * gone_by.y);
  if (state_ == State::dragging) return false;
  const double gone = travel();
  if (gone < threshold || gone == 0.0) return false;
  // Along an axis `gone` leaves out what lies across it, and so does `offset`.
  anchor_ = from_ + (at - from_) * (threshold / gone);
  state_ = State::dragging;
  return true;
}

void Drag::go_on(Point anchor, Point at) {
  press(anchor);
  anchor_ = anchor;
  at_ = at;
  strayed_squared_ = length(at - anchor) * length(at - anchor);
  state_ = State::dragging;
}

}  // namespace ubbo
