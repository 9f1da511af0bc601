#pragma once

#include <algorithm>
#include <cmath>

#include "ubbo/base/maths.hpp"

namespace ubbo {

/// The nearest whole number, at most a billion either way; 0 for what is no number.
[[nodiscard]] inline int whole(double value) {
  return std::isnan(value) ? 0 : static_cast<int>(std::lround(std::clamp(value, -1e9, 1e9)));
}

/// A place or a distance on the screen, in dp (density-independent lengths, 160 to the inch); x grows to the
/// right, y grows downwards.
struct Point {
  double x = 0.0;
  double y = 0.0;

  friend constexpr Point operator+(Point a, Point b) { return {a.x + b.x, a.y + b.y}; }
  friend constexpr Point operator-(Point a, Point b) { return {a.x - b.x, a.y - b.y}; }
  friend constexpr Point operator*(Point a, double k) { return {a.x * k, a.y * k}; }
  friend constexpr bool operator==(Point, Point) = default;
};

/// The length of `p` in dp.
[[nodiscard]] inline double length(Point p) { return maths::hypot(p.x, p.y); }

/// `p` turned clockwise about (0, 0), as a screen shows it.
[[nodiscard]] Point turned(Point p, double radians);

/// How wide and high something is, in dp.
struct Size {
  double w = 0.0;
  double h = 0.0;

  friend constexpr bool operator==(Size, Size) = default;
};

/// A direction or a turn, in radians.
struct Angle {
  double radians = 0.0;

  friend constexpr bool operator==(Angle, Angle) = default;
};

/// An upright rectangle in dp; `x`, `y` are its left and top.
struct Box {
  double x = 0.0;
  double y = 0.0;
  double w = 0.0;
  double h = 0.0;

  [[nodiscard]] constexpr double right() const { return x + w; }
  [[nodiscard]] constexpr double bottom() const { return y + h; }
  [[nodiscard]] constexpr Point centre() const { return {x + w / 2, y + h / 2}; }
  /// How far inside the nearest edge `p` lies, in dp; negative outside, zero on an edge.
  [[nodiscard]] constexpr double depth(Point p) const {
    return std::min(std::min(p.x - x, right() - p.x), std::min(p.y - y, bottom() - p.y));
  }
  /// True inside and on the left and top edges, so that boxes side by side never share a place.
  [[nodiscard]] constexpr bool contains(Point p) const {
    return p.x >= x && p.x < right() && p.y >= y && p.y < bottom();
  }
  /// The same box, moved.
  friend constexpr Box operator+(const Box& b, Point by) { return {b.x + by.x, b.y + by.y, b.w, b.h}; }
  friend constexpr bool operator==(const Box&, const Box&) = default;
};

/// What is taken off a box at each side, dp.
struct Insets {
  double left = 0.0;
  double top = 0.0;
  double right = 0.0;
  double bottom = 0.0;

  friend constexpr bool operator==(const Insets&, const Insets&) = default;
};

/// `box` without what `by` takes off.
[[nodiscard]] constexpr Box inner(const Box& box, const Insets& by) {
  return {box.x + by.left, box.y + by.top, std::max(0.0, box.w - by.left - by.right),
          std::max(0.0, box.h - by.top - by.bottom)};
}

/// What two boxes have in common; without size where they have nothing.
[[nodiscard]] constexpr Box common(const Box& a, const Box& b) {
  const double x = std::max(a.x, b.x);
  const double y = std::max(a.y, b.y);
  return {x, y, std::max(0.0, std::min(a.right(), b.right()) - x),
          std::max(0.0, std::min(a.bottom(), b.bottom()) - y)};
}

/// The direction along which a part works.
enum class Axis { horizontal, vertical };

/// A way of `length` dp along `axis`.
[[nodiscard]] constexpr Point way_along(Axis axis, double length) {
  return axis == Axis::horizontal ? Point{length, 0.0} : Point{0.0, length};
}
/// The share of `p` along `axis`, in dp.
[[nodiscard]] constexpr double along(Axis axis, Point p) { return axis == Axis::horizontal ? p.x : p.y; }
/// The share of `p` across `axis`, in dp.
[[nodiscard]] constexpr double across(Axis axis, Point p) { return axis == Axis::horizontal ? p.y : p.x; }

/// dp for a length of `px` pixels on a screen of `dots_per_inch`, which must be above zero.
[[nodiscard]] constexpr double dp_from_px(double px, double dots_per_inch) {
  return px * 160.0 / dots_per_inch;
}
/// Pixels for a length of `dp` on a screen of `dots_per_inch`.
[[nodiscard]] constexpr double px_from_dp(double dp, double dots_per_inch) {
  return dp * dots_per_inch / 160.0;
}

}  // namespace ubbo
