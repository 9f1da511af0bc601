#pragma once

#include <cmath>

#include "ubbo/motion/mover.hpp"

namespace ubbo {

/// A reading of a mover at a rate of its own: layers behind it move slower (rate below 1), layers before it
/// faster, and a negative rate the other way.
struct Layer {
  double rate = 1.0;
  double from = 0.0;  ///< the mover's value at which the layer is at `at`
  double at = 0.0;
  double min = -HUGE_VAL;  ///< the layer stays within these
  double max = HUGE_VAL;

  [[nodiscard]] double value(double leader) const {
    return std::fmin(std::fmax(at + (leader - from) * rate, min), max);
  }
  [[nodiscard]] double value(const Mover& leader) const { return value(leader.value()); }
};

}  // namespace ubbo
