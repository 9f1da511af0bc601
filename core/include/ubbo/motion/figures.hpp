#pragma once

#include "ubbo/motion/motion.hpp"

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

}  // namespace ubbo
