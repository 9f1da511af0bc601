#include "ubbo/touch/pair.hpp"

#include <cmath>
#include <numbers>

#include "ubbo/base/maths.hpp"

namespace ubbo {

void Pair::read(Point first, Point second) {
  const Point apart = second - first;
  centre_ = (first + second) * 0.5;
  spread_ = std::fmax(length(apart), min_spread);
  if (length(apart) < min_spread) return;
  const double heading = maths::atan2(apart.y, apart.x);
  angle_ += std::remainder(heading - heading_, 2.0 * std::numbers::pi);
  heading_ = heading;
}

void Pair::anchor() {
  centre_0_ = centre_;
  spread_0_ = spread_;
  angle_ = 0.0;
}

void Pair::press(Point first, Point second) {
  pressed_ = true;
  kind_ = PairKind::none;
  read(first, second);
  anchor();
}

bool Pair::move(Point first, Point second, const Feel& feel) {
  if (!pressed_) return false;
  read(first, second);
  if (kind_ != PairKind::none) return false;
  // Each against its own threshold: the one that is furthest past its own says what the pair is.
  double best = 1.0;
  const auto weigh = [&](double way, double threshold, PairKind kind) {
    const double fraction = std::fabs(way) / std::fmax(threshold, 1e-9);
    if (fraction < best) return;
    best = fraction;
    kind_ = kind;
  };
  weigh(length(offset()), feel.drag_threshold, PairKind::pan);
  weigh(spread_change(), feel.pinch_threshold, PairKind::pinch);
  weigh(arc(), feel.rotate_threshold, PairKind::rotate);
  return kind_ != PairKind::none;
}

}  // namespace ubbo
