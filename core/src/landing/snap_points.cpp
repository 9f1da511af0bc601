#include "ubbo/landing/snap_points.hpp"

#include <algorithm>
#include <cmath>

#include "ubbo/base/settings.hpp"

namespace ubbo {

namespace {

// The power of ten that makes both whole, up to 1e12, or 0.
double decimal_scale(double a, double b) {
  for (double scale = 1.0; scale <= 1e12; scale *= 10.0) {
    auto whole = [scale](double v) {
      const double scaled = v * scale;
      return std::fabs(scaled) < 9e15 && std::round(scaled) / scale == v;
    };
    if (whole(a) && whole(b)) return scale;
  }
  return 0.0;
}

}  // namespace

SnapPoints SnapPoints::even(double from, double to, double step) {
  if (!std::isfinite(from) || !std::isfinite(to) || !(from < to))
    refuse("snap points: from " + plain_number(from) + " to " + plain_number(to) +
           " is no range; it takes two finite numbers, the smaller first");
  if (!(step > 0.0) || !((to - from) / step <= 1e9))
    refuse("snap points: step = " + plain_number(step) +
           " is not taken; it takes more than 0, and at most 1e9 steps in the range");
  SnapPoints made;
  made.from_ = from;
  made.to_ = to;
  made.step_ = step;
  made.scale_ = decimal_scale(from, step);
  // A last step shorter than a millionth of a step is rounding, not a step.
  made.size_ = static_cast<std::size_t>(std::ceil((to - from) / step - 1e-6)) + 1;
  made.set_around(made.size_ < 2 ? step : std::min(step, to - made.at(made.size_ - 2)));
  return made;
}

SnapPoints SnapPoints::list(std::span<const double> places) {
  for (const double place : places)
    if (!std::isfinite(place)) refuse("snap points: a place is not a finite number");
  SnapPoints made;
  const auto sorted = [&](auto begin, auto end) {
    std::sort(begin, end);
    return static_cast<std::size_t>(std::unique(begin, end) - begin);
  };
  if (places.size() <= made.few_.size()) {
    const auto end = std::copy(places.begin(), places.end(), made.few_.begin());
    made.size_ = made.listed_ = sorted(made.few_.begin(), end);
  } else {
    made.many_.assign(places.begin(), places.end());
    made.size_ = sorted(made.many_.begin(), made.many_.end());
    made.many_.resize(made.size_);
  }
  double gap = HUGE_VAL;
  for (std::size_t i = 1; i < made.size_; ++i) gap = std::min(gap, made.at(i) - made.at(i - 1));
  if (made.size_ > 1) made.set_around(gap);
  return made;
}

void SnapPoints::set_around(double smallest_gap) {
  // Gaps not far above what doubles of this size can tell apart are looked at anew each time.
  const double farthest = std::fmax(std::fabs(at(0)), std::fabs(at(size_ - 1)));
  if (smallest_gap > 1e-9 * farthest) around_ = 0.49 * smallest_gap;
}

double SnapPoints::at(std::size_t index) const {
  if (step_ == 0.0) return listed()[index];
  if (index + 1 >= size_) return to_;
  const double steps = static_cast<double>(index);
  if (scale_ == 0.0 || scale_ == 1.0) return from_ + steps * step_;  // whole numbers add up to whole ones
  return std::round((from_ + steps * step_) * scale_) / scale_;
}

void SnapPoints::look(double place, Found& found) const {
  std::size_t below = 0;
  if (step_ == 0.0) {
    const std::span<const double> places = listed();
    const auto past = std::upper_bound(places.begin(), places.end(), place);
    below = past == places.begin() ? 0 : static_cast<std::size_t>(past - places.begin()) - 1;
  } else if (place > from_) {
    below = static_cast<std::size_t>(std::min((place - from_) / step_, static_cast<double>(size_ - 1)));
  }
  const double lower = at(below);  // by rounding it may lie a hair above the place, and is the nearest then
  found = {below, lower, around_};
  if (below + 1 >= size_) return;
  const double upper = at(below + 1);
  if (!(place - lower < upper - place)) found = {below + 1, upper, around_};
}

}  // namespace ubbo
