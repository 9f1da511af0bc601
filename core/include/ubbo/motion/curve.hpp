#pragma once

namespace ubbo {

/// An easing curve: how far a motion has come (0 to 1, or beyond where the curve overshoots) at each share of
/// its time (0 to 1). Now the `cubic-bezier()` of CSS Easing Functions Level 2 and its keywords.
class Curve {
 public:
  /// `linear`.
  constexpr Curve() = default;

  /// `cubic-bezier(x1, y1, x2, y2)`: the Bézier curve with the ends (0,0) and (1,1) and these control points.
  /// Throws `std::invalid_argument` unless x1 and x2 are in 0..1 and y1 and y2 within ±1e6.
  static Curve cubic_bezier(double x1, double y1, double x2, double y2);
  static Curve ease() { return cubic_bezier(0.25, 0.1, 0.25, 1.0); }
  static Curve ease_in() { return cubic_bezier(0.42, 0.0, 1.0, 1.0); }
  static Curve ease_out() { return cubic_bezier(0.0, 0.0, 0.58, 1.0); }
  static Curve ease_in_out() { return cubic_bezier(0.42, 0.0, 0.58, 1.0); }

  /// How far at the share `p` of the time. Before 0 and after 1 the curve goes on straight along its end
  /// tangents, as the standard says. Within 1e-9 of the exact curve.
  [[nodiscard]] double value(double p) const;
  /// The slope of `value` at `p`: progress per share of time. Infinite at an upright end tangent.
  [[nodiscard]] double slope(double p) const;

 private:
  [[nodiscard]] double parameter(double p) const;

  // x(s) = ((ax·s + bx)·s + cx)·s and likewise y; the default is the straight line.
  double ax_ = 0.0, bx_ = 0.0, cx_ = 1.0;
  double ay_ = 0.0, by_ = 0.0, cy_ = 1.0;
  double slope_at_0_ = 1.0, slope_at_1_ = 1.0;
};

}  // namespace ubbo
