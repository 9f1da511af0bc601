#pragma once

#include <vector>

#include "ubbo/motion/curve.hpp"

namespace ubbo {

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
