#include "ubbo/motion/curve.hpp"

#include <cmath>
#include <limits>
#include <stdexcept>
#include <string>

#include "ubbo/base/settings.hpp"

namespace ubbo {

namespace {

// The standard's end tangents: towards the nearer control point, or the other one where they coincide, or
// level with the diagonal where both do.
double tangent(double dx, double dy, double other_dx, double other_dy) {
  if (dx > 0.0) return dy / dx;
  if (dy == 0.0 && other_dx > 0.0) return other_dy / other_dx;
  if (dy == 0.0 && other_dy == 0.0) return 1.0;
  return 0.0;  // an upright tangent: CSS Easing Level 2 continues it level
}

}  // namespace

Curve Curve::cubic_bezier(double x1, double y1, double x2, double y2) {
  auto demand = [](const char* name, double got, double least, double most) {
    if (!(got >= least && got <= most))
      throw std::invalid_argument(std::string("cubic-bezier: ") + name + " = " + plain_number(got) +
                                  " is not taken; it takes " + plain_number(least) + " to " +
                                  plain_number(most));
  };
  demand("x1", x1, 0.0, 1.0);
  demand("x2", x2, 0.0, 1.0);
  demand("y1", y1, -1e6, 1e6);
  demand("y2", y2, -1e6, 1e6);
  Curve made;
  made.cx_ = 3.0 * x1;
  made.bx_ = 3.0 * (x2 - x1) - made.cx_;
  made.ax_ = 1.0 - made.cx_ - made.bx_;
  made.cy_ = 3.0 * y1;
  made.by_ = 3.0 * (y2 - y1) - made.cy_;
  made.ay_ = 1.0 - made.cy_ - made.by_;
  made.slope_at_0_ = tangent(x1, y1, x2, y2);
  made.slope_at_1_ = tangent(1.0 - x2, 1.0 - y2, 1.0 - x1, 1.0 - y1);
  return made;
}

// Solves x(s) = p. x(s) never decreases on 0..1, so a bracket always holds the root; Newton's step is taken
// where it stays inside the bracket and halving where it does not, which also copes with a level tangent.
double Curve::parameter(double p) const {
  double low = 0.0;
  double high = 1.0;
  double s = p;
  for (int i = 0; i < 64; ++i) {
    const double off = ((ax_ * s + bx_) * s + cx_) * s - p;
    if (std::fabs(off) < 1e-15) break;
    (off < 0.0 ? low : high) = s;
    const double rate = (3.0 * ax_ * s + 2.0 * bx_) * s + cx_;
    const double next = rate > 0.0 ? s - off / rate : -1.0;
    const double previous = s;
    s = next > low && next < high ? next : 0.5 * (low + high);
    if (std::fabs(s - previous) < 1e-15) break;
  }
  return s;
}

double Curve::value(double p) const {
  if (p <= 0.0) return slope_at_0_ * p;
  if (p >= 1.0) return 1.0 + slope_at_1_ * (p - 1.0);
  const double s = parameter(p);
  return ((ay_ * s + by_) * s + cy_) * s;
}

double Curve::slope(double p) const {
  if (p < 0.0) return slope_at_0_;
  if (p > 1.0) return slope_at_1_;
  const double s = p == 0.0 || p == 1.0 ? p : parameter(p);
  const double dx = (3.0 * ax_ * s + 2.0 * bx_) * s + cx_;
  const double dy = (3.0 * ay_ * s + 2.0 * by_) * s + cy_;
  if (dx > 1e-12) return dy / dx;
  if (std::fabs(dy) > 1e-12) return std::copysign(std::numeric_limits<double>::infinity(), dy);
  return s < 0.5 ? slope_at_0_ : slope_at_1_;
}

}  // namespace ubbo
