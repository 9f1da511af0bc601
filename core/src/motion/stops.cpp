#include "ubbo/motion/stops.hpp"

#include <algorithm>
#include <cmath>

#include "ubbo/base/refuse.hpp"

namespace ubbo {

Stops::Stops(const std::vector<CurveStop>& stops) {
  if (stops.empty()) refuse("linear: no stops; it takes one or more");
  double largest = -HUGE_VAL;
  std::vector<bool> said;
  for (std::size_t i = 0; i < stops.size(); ++i) {
    std::optional<double> at = stops[i].at;
    if (!at && i == 0) at = 0.0;
    if (!at && i + 1 == stops.size()) at = std::max(1.0, largest);
    if (!std::isfinite(stops[i].value) || !std::isfinite(at.value_or(0.0)))
      refuse("linear: a stop is not finite; it takes finite numbers");
    if (at) largest = std::max(largest, *at);
    said.push_back(at.has_value());
    points_.push_back({largest, stops[i].value});
  }
  for (std::size_t i = 1; i + 1 < points_.size(); ++i) {
    if (said[i]) continue;
    const std::size_t from = i - 1;
    std::size_t to = i;
    while (!said[to]) ++to;
    const double step = (points_[to].at - points_[from].at) / static_cast<double>(to - from);
    for (; i < to; ++i) points_[i].at = points_[from].at + step * static_cast<double>(i - from);
  }
}

// The two stops whose line counts at `p`.
Stops::Span Stops::context(double p) const {
  const auto above = std::upper_bound(points_.begin(), points_.end(), p,
                                      [](double place, const Point& point) { return place < point.at; });
  if (above == points_.begin()) return {points_[0], points_[1]};
  if (above == points_.end()) return {points_[points_.size() - 2], points_.back()};
  return {above[-1], above[0]};
}

double Stops::value(double p, bool before) const {
  if (points_.size() == 1) return points_[0].value;
  if (before && p == points_[0].at) return points_[0].value;
  const auto [a, b] = context(p);
  if (p == b.at) return b.value;
  if (a.at == b.at) return p < a.at ? a.value : b.value;
  return a.value + (b.value - a.value) * ((p - a.at) / (b.at - a.at));
}

double Stops::slope(double p) const {
  if (points_.size() == 1) return 0.0;
  const auto [a, b] = context(p);
  return a.at == b.at ? 0.0 : (b.value - a.value) / (b.at - a.at);
}

}  // namespace ubbo
