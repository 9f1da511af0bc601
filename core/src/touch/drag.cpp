#include "ubbo/touch/drag.hpp"

#include <algorithm>
#include <cmath>

namespace ubbo {

void Drag::press(Point at) {
  state_ = State::pressed;
  from_ = at_ = anchor_ = at;
  strayed_ = 0.0;
}

double Drag::travel() const {
  const Point moved = at_ - from_;
  return reach_ == Reach::plane ? length(moved) : std::fabs(along(axis_, moved));
}

bool Drag::move(Point at, double threshold) {
  if (state_ == State::idle) return false;
  at_ = at;
  strayed_ = std::max(strayed_, length(at - from_));
  if (state_ == State::dragging) return false;
  const double gone = travel();
  if (gone < threshold || gone == 0.0) return false;
  const Point moved = at - from_;
  if (reach_ == Reach::plane)
    anchor_ = from_ + moved * (threshold / gone);
  else if (axis_ == Axis::horizontal)
    anchor_ = {from_.x + std::copysign(threshold, moved.x), from_.y};
  else
    anchor_ = {from_.x, from_.y + std::copysign(threshold, moved.y)};
  state_ = State::dragging;
  return true;
}

}  // namespace ubbo
