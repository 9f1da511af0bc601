#include "ubbo/motion/figures.hpp"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "ubbo/base/settings.hpp"

namespace ubbo {

namespace {

// The moment between `low` and `high`, seconds, at which `reached` turns true.
template <class Reached>
double turning(double low, double high, Reached&& reached) {
  for (int i = 0; i < 60; ++i) {
    const double middle = 0.5 * (low + high);
    (reached(middle) ? high : low) = middle;
  }
  return high;
}

// The moment between `low` and `high` at which `of` is largest; it has one peak there.
template <class Of>
double peak(double low, double high, Of&& of) {
  for (int i = 0; i < 100; ++i) {
    const double a = low + (high - low) / 3.0;
    const double b = high - (high - low) / 3.0;
    (of(a) < of(b) ? low : high) = of(a) < of(b) ? a : b;
  }
  return 0.5 * (low + high);
}

Micros nearest(double seconds) { return Micros{std::llround(seconds * 1e6)}; }

}  // namespace

MotionFigures figures_of(const Motion& motion) {
  MotionFigures figures;
  const double way = motion.to() - motion.from();
  if (motion.ends() == never || way == 0.0) return figures;
  const Micros run = motion.transition().runs == 1 ? motion.ends() - motion.begins() : motion.run();
  figures.duration = motion.ends() - motion.begins();
  constexpr int looks = 2000;
  const double whole = to_seconds(run);
  // Just before the end, where the last step to the exact target is not yet taken.
  const auto state = [&](double seconds) {
    return motion.at(motion.begins() + std::min(nearest(seconds), run - Micros{1}));
  };
  const auto fraction = [&](double seconds) { return (state(seconds).value - motion.from()) / way; };
  const auto speed = [&](double seconds) { return std::fabs(state(seconds).velocity); };
  if (run <= Micros{0}) return figures;

  const double step = whole / looks;
  int highest = 0;
  int lowest = 0;
  int fastest = 0;
  int loose = -1;
  int half = -1;
  int max = -1;
  const auto away = [&](double seconds) { return std::fabs(fraction(seconds) - 1.0) > 0.02; };
  for (int i = 0; i <= looks; ++i) {
    const double t = step * i;
    if (fraction(t) > fraction(step * highest)) highest = i;
    if (fraction(t) < fraction(step * lowest)) lowest = i;
    if (speed(t) > speed(step * fastest)) fastest = i;
    if (away(t)) loose = i;
    if (half < 0 && fraction(t) >= 0.5) half = i;
    if (max < 0 && fraction(t) >= 0.9) max = i;
  }
  const auto context = [&](int i, auto&& of) {
    return peak(step * std::max(0, i - 1), step * std::min(looks, i + 1), of);
  };
  const auto first = [&](int i, double level) {
    if (i < 0) return run;
    return nearest(
        turning(step * std::max(0, i - 1), step * i, [&](double t) { return fraction(t) >= level; }));
  };
  constexpr double seen = 1e-6;  // less than that is rounding
  if (fraction(step * highest) > 1.0) figures.overshoot = fraction(context(highest, fraction)) - 1.0;
  if (fraction(step * lowest) < 0.0)
    figures.undershoot = -fraction(context(lowest, [&](double t) { return -fraction(t); }));
  if (figures.overshoot < seen) figures.overshoot = 0.0;
  if (figures.undershoot < seen) figures.undershoot = 0.0;
  const double fast = context(fastest, speed);
  figures.peak_at = nearest(speed(fast) > speed(step * fastest) ? fast : step * fastest);
  figures.peak_speed = std::max(speed(fast), speed(step * fastest));
  if (loose >= looks)
    figures.settled = run;
  else if (loose >= 0)
    figures.settled = nearest(turning(step * loose, step * (loose + 1), [&](double t) { return !away(t); }));
  figures.half = first(half, 0.5);
  figures.nine_tenths = first(max, 0.9);
  return figures;
}

}  // namespace ubbo
