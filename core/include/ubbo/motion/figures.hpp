#pragma once

#include <vector>

#include "ubbo/motion/motion.hpp"
#include "ubbo/motion/stops.hpp"

namespace ubbo {

/// The figures by which ways of moving are compared; distances as shares of the way from start to target.
/// Found by looking at 2,000 moments and closing in between them, so a feature shorter than a 2,000th of the
/// duration can be missed.
struct MotionFigures {
  Micros duration{};        ///< until it is at rest at its goal
  Micros settled{};         ///< from when on it stays within 2 % of the way around the target
  double overshoot = 0.0;   ///< how far it goes beyond the target; 0: not at all
  double undershoot = 0.0;  ///< how far it first goes the other way
  double peak_speed = 0.0;  ///< the largest speed, the value's unit per second; infinite on an upright curve
  Micros peak_at{};         ///< when that is
  Micros half{};            ///< when 50 % of the way is first reached
  Micros nine_tenths{};     ///< when 90 % of the way is first reached
};

/// The figures of one run of `motion`, which must end and go somewhere (`from` and `to` differ); else all are
/// zero.
[[nodiscard]] MotionFigures figures_of(const Motion& motion);

/// A curve as straight lines, and how far these are from it at most.
struct FittedStops {
  std::vector<Stops::Point> points;  ///< values to five decimals, places to five, or seven where it is steep
  double error = 0.0;                ///< no difference is larger
};

/// The straight lines with the fewest stops that stay within `max_error` (1e-4 to 1) of `curve` over 0..1,
/// exact at both ends. Throws `std::invalid_argument`.
///
/// H. Imai and M. Iri, "An optimal algorithm for approximating a piecewise linear function" (1986): stops lie
/// anywhere in the tube around the curve, and each line reaches as far as one that crosses the line before it
/// can. The tube is known at 4,001 places, and closer about corners. O(places² / stops) time, some
/// milliseconds. Beside a jump the error comes out larger than asked, as the places of stops are rounded; it
/// is told.
[[nodiscard]] FittedStops fewest_stops(const Curve& curve, double max_error);

}  // namespace ubbo
