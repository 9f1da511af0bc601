#pragma once

#include <optional>
#include <vector>

namespace ubbo {

/// One stop of a piecewise linear curve: the value, and at which share of the time if that is said.
struct CurveStop {
  double value = 0.0;
  std::optional<double> at{};
};

/// `linear(stop, …)` of CSS Easing Functions Level 2: straight lines between stops.
class Stops {
 public:
  struct Point {
    double at;
    double value;
  };

  /// Places the stops as the standard says: the first at 0 and the last at 1 (or at the largest place so far)
  /// unless they say otherwise; one that is not said evenly between its neighbours; one that goes back to the
  /// largest place so far. Throws `std::invalid_argument` for no stops, and for numbers that are not finite.
  explicit Stops(const std::vector<CurveStop>& stops);

  [[nodiscard]] const std::vector<Point>& points() const { return points_; }

  /// The value at `p`; outside the stops the outermost lines go on. Where several stops share the place, the
  /// last counts, or the first if that is the first of all and `before` is set (the standard's before flag).
  /// O(log stops).
  [[nodiscard]] double value(double p, bool before = false) const;
  /// The slope at `p`, to the right where it changes.
  [[nodiscard]] double slope(double p) const;

 private:
  struct Span {
    Point a, b;
  };
  [[nodiscard]] Span context(double p) const;

  std::vector<Point> points_;
};

}  // namespace ubbo
