#pragma once

#include <cstdint>
#include <vector>

#include "ubbo/motion/stops.hpp"

namespace ubbo {

/// How a curve runs through given points.
enum class Between : std::uint8_t {
  monotone,  ///< never beyond the two points it runs between
  free,      ///< rounder, and beyond them where that is smoother
};

/// A smooth curve through points: cubic pieces with one slope at each point.
///
/// The slopes are those of M. Steffen, "A simple method for monotonic interpolation in one dimension" (1990),
/// which never overshoot, or those of the parabola through each point and its neighbours.
class Through {
 public:
  /// Throws `std::invalid_argument` for fewer than two points, for places that do not grow, and for numbers
  /// that are not finite.
  explicit Through(std::vector<Stops::Point> points, Between between = Between::monotone);

  /// The value at `p`; outside the points straight on along the end's slope. O(log points).
  [[nodiscard]] double value(double p) const;
  [[nodiscard]] double slope(double p) const;

 private:
  [[nodiscard]] std::size_t piece(double p) const;

  std::vector<Stops::Point> points_;
  std::vector<double> slopes_;
};

}  // namespace ubbo
