#pragma once

#include <cstdint>

namespace ubbo {

/// The families of easing curves that the field knows by these names.
enum class Family : std::uint8_t { sine, quad, cubic, quart, quint, expo, circ, back, elastic, bounce };

/// Which end of a motion is eased.
enum class Ease : std::uint8_t { in, out, in_out };

/// What can be set of a family; each number counts for the one family named.
struct FamilyShape {
  double overshoot = 0.1;    ///< back: how far it goes beyond, as a share of the distance; 0 to 10
  double swings = 10.0 / 3;  ///< elastic: how often it swings; 0.25 to 50
  double bounces = 3;        ///< bounce: how often it comes back up; whole, 0 to 12
  double keeps = 0.25;       ///< bounce: the height of each bounce as a share of the last one; 0.01 to 0.9
};

/// A curve of a family. `in` is the basic form f; `out` is 1 - f(1-p); `in_out` is f at half size, then its
/// turn.
///
/// With p the share of time, `in` is: sine 1 - cos(πp/2); quad … quint p², p³, p⁴, p⁵; expo
/// (2^(10p) - 1)/1023; circ 1 - √(1-p²); back p²((s+1)p - s), s such that its lowest point is -overshoot;
/// elastic d(1-p)·cos(2π·swings·(1-p)) with d(q) = (2^(-10q) - 2^-10)/(1 - 2^-10); bounce the heights of a
/// ball let fall, run backwards. Expo and elastic are stretched so that both ends are exact and nothing
/// jumps.
class FamilyCurve {
 public:
  /// Throws `std::invalid_argument` for a number of `shape` out of its range.
  FamilyCurve(Family family, Ease ease, const FamilyShape& shape = {});

  [[nodiscard]] Family family() const { return family_; }
  [[nodiscard]] Ease ease() const { return ease_; }
  /// The numbers it was made with; those of other families as they are by default.
  [[nodiscard]] FamilyShape shape() const;

  /// How far at the share `p` of the time; outside 0..1 straight on along the tangent of the end, level where
  /// that stands upright.
  [[nodiscard]] double value(double p) const;
  /// The slope at `p`; infinite where circ stands upright.
  [[nodiscard]] double slope(double p) const;

 private:
  [[nodiscard]] double in(double p) const;
  [[nodiscard]] double in_slope(double p) const;

  Family family_;
  Ease ease_;
  double first_ = 0.0;   // back: s; elastic: swings; bounce: bounces
  double second_ = 0.0;  // bounce: keeps
};

}  // namespace ubbo
