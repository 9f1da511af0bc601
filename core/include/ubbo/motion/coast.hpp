#pragma once

#include <optional>

#include "ubbo/base/time.hpp"

namespace ubbo {

/// Where a coast is, measured from where it set off: distance and velocity in the caller's unit (and that per
/// second).
struct CoastState {
  double distance = 0.0;
  double velocity = 0.0;
};

/// Unpowered motion that friction slows: v′ = -k·v. So v(t) = v₀·e^(-k·t), it has come v₀/k·(1 - e^(-k·t))
/// far, and comes v₀/k far in all.
class Coast {
 public:
  /// Counts as at rest once what is left is this share of the whole distance.
  static constexpr double rest_share = 0.001;

  /// By friction k (1/s, 0.001 to 10000). Throws `std::invalid_argument`.
  static Coast friction(double per_second);
  /// By the time in which the velocity halves, ln 2 / k (0.07 ms to 690 s). Throws `std::invalid_argument`.
  static Coast half_life(Micros time);
  /// The one that sets off with `velocity` and comes to rest exactly `distance` further: k = velocity /
  /// distance. None when they point apart, either is zero, or the friction would be out of range.
  static std::optional<Coast> landing(double distance, double velocity);

  [[nodiscard]] double friction() const { return friction_; }
  /// In seconds.
  [[nodiscard]] double half_life() const;

  /// Where a coast that sets off with `velocity` is `seconds` later (not negative).
  [[nodiscard]] CoastState at(double velocity, double seconds) const;
  /// How far it comes in all.
  [[nodiscard]] double distance(double velocity) const { return velocity / friction_; }
  /// With which velocity it comes `distance` far.
  [[nodiscard]] double velocity_for(double distance) const { return distance * friction_; }
  /// The time in seconds after which no more than `tolerance` (above zero) of the way is left.
  [[nodiscard]] double rest_time(double velocity, double tolerance) const;

 private:
  explicit Coast(double friction) : friction_(friction) {}

  double friction_;
};

}  // namespace ubbo
