#pragma once

namespace ubbo {

/// `cubic-bezier(x1, y1, x2, y2)` of CSS Easing Functions Level 2: the Bézier curve with the ends (0,0) and
/// (1,1) and these control points, as y over x.
class CubicBezier {
 public:
  /// Throws `std::invalid_argument` unless x1 and x2 are in 0..1 and y1 and y2 within ±1e6.
  CubicBezier(double x1, double y1, double x2, double y2);

  [[nodiscard]] double x1() const { return x1_; }
  [[nodiscard]] double y1() const { return y1_; }
  [[nodiscard]] double x2() const { return x2_; }
  [[nodiscard]] double y2() const { return y2_; }

  /// y at x = `p`, within 1e-9 of the exact curve. Outside 0..1 it goes on straight along the line from the
  /// end to the nearer control point, or to the other one where the nearer stands above or below the end, or
  /// level where both do; so says the standard.
  [[nodiscard]] double value(double p) const;
  /// dy/dx at x = `p`; infinite where the curve stands upright.
  [[nodiscard]] double slope(double p) const;

 private:
  double x1_, y1_, x2_, y2_;
};

}  // namespace ubbo
