#include "ubbo/motion/spring.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>
#include <string>

#include "ubbo/base/maths.hpp"
#include "ubbo/base/settings.hpp"

// Derivation. With ω = √(k/m) and ζ = c/(2√(km)) the spring is x″ + 2ζω·x′ + ω²·x = 0. Let -a be the slowest
// root of s² + 2ζω·s + ω² = 0 (its real part where the roots are complex). Then all three cases read
//
//     x(t) = e^(-a·t) · (x₀·C(t) + (v₀ + a·x₀)·S(t))
//
//     ζ < 1:  a = ζω,             C = cos(w·t),  S = sin(w·t)/w,         w = ω√(1-ζ²)
//     ζ = 1:  a = ω,              C = 1,         S = t
//     ζ > 1:  a = ω(ζ-√(ζ²-1)),   C = 1,         S = (1-e^(-d·t))/d,     d = 2ω√(ζ²-1)
//
// which is checked by substitution, and which goes over smoothly from one case to the next. Since |C| ≤ 1 and
// |S| ≤ t in each case, |x(t)| ≤ e^(-a·t)·(|x₀| + |v₀ + a·x₀|·t). For ζ < 1 also |x(t)| ≤ e^(-a·t)·√(x₀² +
// ((v₀+a·x₀)/w)²), and for ζ > 1 |x(t)| ≤ e^(-a·t)·(|x₀| + |v₀+a·x₀|/d). Rest is when the better of the two
// bounds reaches the tolerance.

namespace ubbo {

Spring::Spring(double frequency, double ratio) : frequency_(frequency), ratio_(ratio) {
  // Written with (1-ζ)(1+ζ) so that nothing cancels near ζ = 1.
  const double root = std::sqrt(std::fabs((1.0 - ratio) * (1.0 + ratio)));
  if (ratio <= 1.0) {
    decay_ = ratio * frequency;
    swing_ = frequency * root;
    per_swing_ = swing_ > 0.0 ? 1.0 / swing_ : 0.0;
  } else {
    decay_ = frequency / (ratio + root);
    rates_apart_ = 2.0 * frequency * root;
  }
}

Spring Spring::natural(double frequency, double ratio) {
  demand("spring: frequency", frequency, 1e-3, 1e5);
  demand("spring: ratio", ratio, 1e-3, 1e3);
  return {frequency, ratio};
}

Spring Spring::physical(double mass, double stiffness, double damping) {
  demand("spring: mass", mass, 1e-6, 1e6);
  demand("spring: stiffness", stiffness, 1e-6, 1e9);
  demand("spring: damping", damping, 1e-9, 1e9);
  return natural(std::sqrt(stiffness / mass), damping / (2.0 * std::sqrt(stiffness * mass)));
}

Spring Spring::settling(Micros time, double overshoot) {
  demand("spring: settling time in ms", to_ms(time), 1e-3, 3.6e6);
  demand("spring: overshoot", overshoot, 0.0, 0.95);
  double ratio = 1.0;
  if (overshoot > 0.0) {
    const double log = maths::log(overshoot);
    ratio = -log / maths::hypot(std::numbers::pi, log);
  }
  // Time scales with 1/ω, so one spring of ω = 1 tells all.
  const double unit_time = Spring{1.0, ratio}.rest_time({1.0, 0.0}, rest_share);
  return {unit_time / to_seconds(time), ratio};
}

SpringState Spring::at(SpringState start, double seconds) const {
  const double fade = maths::exp(-decay_ * seconds);
  const double push = start.velocity + decay_ * start.distance;
  if (swing_ > 0.0) {
    const auto [s, c] = maths::sin_cos(swing_ * seconds);
    const double distance = fade * (start.distance * c + push * per_swing_ * s);
    return {distance, fade * (push * c - swing_ * start.distance * s) - decay_ * distance};
  }
  double s = seconds;
  double s_rate = 1.0;
  if (rates_apart_ > 0.0) {
    s_rate = maths::exp(-rates_apart_ * seconds);
    s = -maths::expm1(-rates_apart_ * seconds) / rates_apart_;
  }
  const double distance = fade * (start.distance + push * s);
  return {distance, fade * push * s_rate - decay_ * distance};
}

Spring::Step Spring::step(double seconds) const {
  const SpringState by_distance = at({1.0, 0.0}, seconds);
  const SpringState by_velocity = at({0.0, 1.0}, seconds);
  return {by_distance.distance, by_velocity.distance, by_distance.velocity, by_velocity.velocity};
}

double Spring::overshoot() const {
  if (ratio_ >= 1.0) return 0.0;
  return maths::exp(-std::numbers::pi * ratio_ / std::sqrt((1.0 - ratio_) * (1.0 + ratio_)));
}

double Spring::rest_time(SpringState start, double tolerance) const {
  const double x = std::fabs(start.distance);
  const double push = std::fabs(start.velocity + decay_ * start.distance);
  if (x <= tolerance && push == 0.0) return 0.0;

  // The bound e^(-a·t)·B: t = ln(B/tolerance)/a.
  double flat = std::numeric_limits<double>::infinity();
  if (swing_ > 0.0) flat = maths::hypot(x, push / swing_);
  if (rates_apart_ > 0.0) flat = x + push / rates_apart_;
  const double by_flat = flat < std::numeric_limits<double>::infinity()
                             ? std::max(0.0, maths::log(flat / tolerance) / decay_)
                             : flat;

  // The bound e^(-a·t)·(x + push·t): the root of h(t) = a·t - ln((x + push·t)/tolerance) past its lowest
  // point. h is convex, so Newton from the right of the root comes down to it without stepping over.
  auto h = [&](double t) { return decay_ * t - maths::log((x + push * t) / tolerance); };
  const double lowest = push > 0.0 ? std::max(0.0, 1.0 / decay_ - x / push) : 0.0;
  // Where the other bound falls to the tolerance before this one does, there is nothing to look for.
  if (by_flat < std::numeric_limits<double>::infinity() && by_flat >= lowest && h(by_flat) < 0.0)
    return by_flat;
  if (h(lowest) >= 0.0) return std::min(by_flat, 0.0);
  double t = lowest + 1.0 / decay_;
  while (h(t) < 0.0) t *= 2.0;
  for (int i = 0; i < 20; ++i) {
    const double step = h(t) / (decay_ - push / (x + push * t));
    t -= step;
    if (step < 1e-9 * t) break;
  }
  return std::min(by_flat, t);
}

}  // namespace ubbo
