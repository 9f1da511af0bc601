#pragma once

#include <variant>

#include "ubbo/motion/curve.hpp"
#include "ubbo/motion/spring.hpp"

namespace ubbo {

/// A way along a curve in a given time (zero: at once).
struct Timed {
  Curve curve;
  Micros duration;
};

/// A way from one value to another: by a spring, or along a curve in a given time. A spring takes over the
/// velocity a value already has; a curve starts from the value alone.
using Passage = std::variant<Spring, Timed>;

}  // namespace ubbo
