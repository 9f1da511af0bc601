#include "ubbo/motion/through.hpp"

#include <algorithm>
#include <cmath>
#include <string>

#include "ubbo/base/settings.hpp"

namespace ubbo {

namespace {

// The slope at an end: that of the parabola through the end and its two neighbours.
double parabola_slope(double near_step, double far_step, double near, double far) {
  return near + near_step * (near - far) / (near_step + far_step);
}

}  // namespace

Through::Through(std::vector<Stops::Point> points, Between between) : points_(std::move(points)) {
  const std::size_t n = points_.size();
  if (n < 2) refuse("through: a curve through points takes two or more");
  std::vector<double> step;
  std::vector<double> secant;
  for (std::size_t i = 0; i < n; ++i) {
    if (!std::isfinite(points_[i].at) || !std::isfinite(points_[i].value))
      refuse("through: a point is not finite; it takes finite numbers");
    if (i == 0) continue;
    step.push_back(points_[i].at - points_[i - 1].at);
    if (!(step.back() > 0.0))
      refuse("through: a point at " + plain_number(points_[i].at) + " after one at " +
             plain_number(points_[i - 1].at) + "; places must grow");
    secant.push_back((points_[i].value - points_[i - 1].value) / step.back());
  }
  const bool monotone = between == Between::monotone;
  // Steffen's limit: at most twice the flatter neighbour's slope, and level where they differ in sign.
  const auto limited = [](double slope, double a, double b) {
    if (a * b <= 0.0) return 0.0;
    const double max = 2.0 * std::min(std::fabs(a), std::fabs(b));
    return std::copysign(std::min(std::fabs(slope), max), a);
  };
  if (n == 2) {
    slopes_.assign(2, secant[0]);
    return;
  }
  const auto ended = [&](double slope, double near) {
    if (!monotone) return slope;
    if (slope * near <= 0.0) return 0.0;
    return std::fabs(slope) > 2.0 * std::fabs(near) ? 2.0 * near : slope;
  };
  slopes_.push_back(ended(parabola_slope(step[0], step[1], secant[0], secant[1]), secant[0]));
  for (std::size_t i = 1; i + 1 < n; ++i) {
    const double slope = (secant[i - 1] * step[i] + secant[i] * step[i - 1]) / (step[i - 1] + step[i]);
    slopes_.push_back(monotone ? limited(slope, secant[i - 1], secant[i]) : slope);
  }
  slopes_.push_back(
      ended(parabola_slope(step[n - 2], step[n - 3], secant[n - 2], secant[n - 3]), secant[n - 2]));
}

std::size_t Through::piece(double p) const {
  const auto above =
      std::upper_bound(points_.begin() + 1, points_.end() - 1, p,
                       [](double place, const Stops::Point& point) { return place < point.at; });
  return static_cast<std::size_t>(above - points_.begin()) - 1;
}

double Through::value(double p) const {
  if (p <= points_.front().at) return points_.front().value + slopes_.front() * (p - points_.front().at);
  if (p >= points_.back().at) return points_.back().value + slopes_.back() * (p - points_.back().at);
  const std::size_t i = piece(p);
  const double h = points_[i + 1].at - points_[i].at;
  const double t = (p - points_[i].at) / h;
  const double rise = points_[i + 1].value - points_[i].value;
  // Hermite's cubic, from the left end.
  return points_[i].value + t * (h * slopes_[i] + t * (3.0 * rise - h * (2.0 * slopes_[i] + slopes_[i + 1]) +
                                                       t * (h * (slopes_[i] + slopes_[i + 1]) - 2.0 * rise)));
}

double Through::slope(double p) const {
  if (p <= points_.front().at) return slopes_.front();
  if (p >= points_.back().at) return slopes_.back();
  const std::size_t i = piece(p);
  const double h = points_[i + 1].at - points_[i].at;
  const double t = (p - points_[i].at) / h;
  const double rise = points_[i + 1].value - points_[i].value;
  return slopes_[i] + t * (2.0 * (3.0 * rise / h - 2.0 * slopes_[i] - slopes_[i + 1]) +
                           3.0 * t * (slopes_[i] + slopes_[i + 1] - 2.0 * rise / h));
}

}  // namespace ubbo
