#pragma once

#include <cmath>

#include "ubbo/base/geometry.hpp"
#include "ubbo/touch/gesture.hpp"

namespace ubbo {

/// The way of a thumb along a track in a box, and where values stand on it. It grows to the right, to the
/// left where the reading direction is so, and upwards where it is vertical.
struct SliderTrack {
  Box box{};
  Axis axis = Axis::horizontal;
  bool right_to_left = false;
  double thumb = 0.0;      ///< dp; a thumb's middle keeps half of that from either end
  double thickness = 0.0;  ///< dp
  double from = 0.0;
  double to = 1.0;  ///< above `from`

  /// What a thumb's middle may take, dp; not above 0 where the box leaves it none.
  [[nodiscard]] double room() const { return along(axis, {box.w, box.h}) - thumb; }
  /// Negative where the value grows leftwards or upwards. A box that leaves no room still has a little.
  [[nodiscard]] double dp_per_unit() const {
    const double size = std::fmax(room(), 0.001) / (to - from);
    return axis == Axis::vertical || right_to_left ? -size : size;
  }
  /// The middle of a thumb at `value`.
  [[nodiscard]] Point place_of(double value) const {
    const double main = start() + (value - from) * dp_per_unit();
    const Point middle = box.centre();
    return axis == Axis::horizontal ? Point{main, middle.y} : Point{middle.x, main};
  }
  /// The value whose place is nearest to `at`; beyond the ends too.
  [[nodiscard]] double value_at(Point at) const { return from + (along(axis, at) - start()) / dp_per_unit(); }
  /// How far two places are from each other along the track, dp.
  [[nodiscard]] double apart(Point a, Point b) const { return std::fabs(along(axis, a - b)); }
  /// The whole of it.
  [[nodiscard]] Box bar() const {
    const Point middle = box.centre();
    const double length = std::fmax(room(), 0.0);
    return axis == Axis::horizontal ? Box{box.x + thumb / 2, middle.y - thickness / 2, length, thickness}
                                    : Box{middle.x - thickness / 2, box.y + thumb / 2, thickness, length};
  }
  /// What of it lies between two values.
  [[nodiscard]] Box between(double a, double b) const {
    Box part = bar();
    const Point one = place_of(a);
    const Point other = place_of(b);
    if (axis == Axis::horizontal) {
      part.x = std::fmin(one.x, other.x);
      part.w = std::fabs(other.x - one.x);
    } else {
      part.y = std::fmin(one.y, other.y);
      part.h = std::fabs(other.y - one.y);
    }
    return part;
  }

 private:
  [[nodiscard]] double start() const {
    const double inset = thumb / 2;
    if (axis == Axis::vertical) return box.bottom() - inset;
    return right_to_left ? box.right() - inset : box.x + inset;
  }
};

/// The track of a slider of either kind, by its settings, in a box.
template <class S>
[[nodiscard]] SliderTrack slider_track(const Box& box, const S& settings, bool right_to_left) {
  return {.box = box,
          .axis = settings.axis,
          .right_to_left = right_to_left,
          .thumb = settings.thumb,
          .thickness = settings.thickness,
          .from = settings.from,
          .to = settings.to};
}

}  // namespace ubbo
