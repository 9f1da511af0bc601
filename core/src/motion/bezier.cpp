#include "ubbo/motion/bezier.hpp"

#include <cmath>
#include <limits>
#include <string>

#include "ubbo/base/settings.hpp"

namespace ubbo {

namespace {

// One coordinate over the parameter s: ((a·s + b)·s + c)·s, with the ends 0 and 1.
struct Cubic {
  Cubic(double p1, double p2) : c(3.0 * p1), b(3.0 * (p2 - p1) - c), a(1.0 - c - b) {}
  [[nodiscard]] double at(double s) const { return ((a * s + b) * s + c) * s; }
  [[nodiscard]] double rate(double s) const { return (3.0 * a * s + 2.0 * b) * s + c; }
  [[nodiscard]] double bend(double s) const { return 6.0 * a * s + 2.0 * b; }

  double c, b, a;
};

// Solves x(s) = p. x(s) never decreases on 0..1, so a bracket always holds the root; Halley's step is taken
// where it stays inside the bracket and halving where it does not, which also copes with a level tangent.
// Halley's step cubes the error, so a short one on a good slope is the last one needed.
double parameter(const Cubic& x, double p) {
  double low = 0.0;
  double high = 1.0;
  double s = p;
  for (int i = 0; i < 80; ++i) {
    const double off = x.at(s) - p;
    if (off == 0.0) break;
    (off < 0.0 ? low : high) = s;
    const double rate = x.rate(s);
    const double halley = s - 2.0 * off * rate / (2.0 * rate * rate - off * x.bend(s));
    const double next = halley > low && halley < high ? halley : 0.5 * (low + high);
    const double step = std::fabs(next - s);
    s = next;
    if (step == 0.0 || (step < 1e-5 && rate > 0.1)) break;
  }
  return s;
}

// The slope outside an end, the control points given as seen from it.
double end_slope(double near_x, double near_y, double far_x, double far_y) {
  if (near_x > 0.0) return near_y / near_x;
  if (far_x > 0.0) return far_y / far_x;
  return 0.0;
}

}  // namespace

CubicBezier::CubicBezier(double x1, double y1, double x2, double y2) : x1_(x1), y1_(y1), x2_(x2), y2_(y2) {
  demand("cubic-bezier: x1", x1, 0.0, 1.0);
  demand("cubic-bezier: y1", y1, -1e6, 1e6);
  demand("cubic-bezier: x2", x2, 0.0, 1.0);
  demand("cubic-bezier: y2", y2, -1e6, 1e6);
}

double CubicBezier::value(double p) const {
  if (p <= 0.0) return p == 0.0 ? 0.0 : p * end_slope(x1_, y1_, x2_, y2_);
  if (p >= 1.0) return p == 1.0 ? 1.0 : 1.0 + (p - 1.0) * end_slope(1 - x2_, 1 - y2_, 1 - x1_, 1 - y1_);
  return Cubic(y1_, y2_).at(parameter(Cubic(x1_, x2_), p));
}

double CubicBezier::slope(double p) const {
  if (p < 0.0) return end_slope(x1_, y1_, x2_, y2_);
  if (p > 1.0) return end_slope(1 - x2_, 1 - y2_, 1 - x1_, 1 - y1_);
  const Cubic x(x1_, x2_);
  const Cubic y(y1_, y2_);
  const double s = p == 0.0 || p == 1.0 ? p : parameter(x, p);
  const double dx = x.rate(s);
  const double dy = y.rate(s);
  if (dx > 1e-12) return dy / dx;
  if (std::fabs(dy) > 1e-12) return std::copysign(std::numeric_limits<double>::infinity(), dy);
  // Both rates vanish where a control point lies on the end; the other one gives the tangent.
  const double rise = s < 0.5 ? y2_ : 1 - y1_;
  const double run = s < 0.5 ? x2_ : 1 - x1_;
  if (run > 0.0) return rise / run;
  return rise == 0.0 ? 1.0 : std::copysign(std::numeric_limits<double>::infinity(), rise);
}

}  // namespace ubbo
