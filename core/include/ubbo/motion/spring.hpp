#pragma once

#include "ubbo/base/time.hpp"

namespace ubbo {

/// Where a spring is, measured from its target: distance and velocity in the caller's unit (and that per
/// second).
struct SpringState {
  double distance = 0.0;
  double velocity = 0.0;
};

/// A damped spring, m·x″ + c·x′ + k·x = 0, with x the distance to the target, in closed form for weak (ζ <
/// 1), critical (ζ = 1) and strong (ζ > 1) damping.
class Spring {
 public:
  /// A spring from rest counts as settled once it stays within this share of the distance it was sent.
  static constexpr double rest_share = 0.001;

  /// By mass (kg), stiffness k (N/m) and damping c (N·s/m). Mass and stiffness above zero, damping above
  /// zero.
  static Spring physical(double mass, double stiffness, double damping);
  /// By natural frequency ω = √(k/m) (rad/s, above zero) and damping ratio ζ = c / (2·√(k·m)) (0.001 to
  /// 1000).
  static Spring natural(double frequency, double ratio);
  /// By what one sees: the time to settle from rest (above zero, at most an hour) and the overshoot as a
  /// share of the distance (0 to 0.95). Overshoot 0 is critical damping; else ζ = -ln M / √(π² + ln² M).
  static Spring settling(Micros time, double overshoot);
  // All three throw `std::invalid_argument` that says what was given and what is taken.

  [[nodiscard]] double frequency() const { return frequency_; }
  [[nodiscard]] double ratio() const { return ratio_; }

  /// How far it swings past its target when sent there from rest, as a share of the distance:
  /// e^(-πζ/√(1-ζ²)).
  [[nodiscard]] double overshoot() const;

  /// Where a spring that starts as `start` is `seconds` later (not negative). Exact; a few exp, sin, cos.
  [[nodiscard]] SpringState at(SpringState start, double seconds) const;

  /// What a step of `seconds` does to any state: distance ← a·distance + b·velocity, velocity ← c·distance +
  /// d·velocity. Exact, so steps of any size come to the same but for rounding.
  struct Step {
    double a, b, c, d;
  };
  [[nodiscard]] Step step(double seconds) const;

  /// The time in seconds after which the distance stays within `tolerance` (above zero): the moment at which
  /// a bound on the distance falls to it. Never too early.
  [[nodiscard]] double rest_time(SpringState start, double tolerance) const;

 private:
  Spring(double frequency, double ratio);

  double frequency_;
  double ratio_;
  double decay_;              // the slowest exponential rate, 1/s
  double swing_ = 0.0;        // ω_d = ω·√(1-ζ²) for ζ < 1, else 0; rad/s
  double per_swing_ = 0.0;    // 1/ω_d for ζ < 1
  double rates_apart_ = 0.0;  // ω·2·√(ζ²-1) for ζ > 1, else 0; 1/s
};

}  // namespace ubbo
