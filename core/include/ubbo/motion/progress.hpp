#pragma once

#include "ubbo/motion/transition.hpp"

namespace ubbo {

/// How long one run of `way` takes over the whole way from rest, or from `velocity` (whole ways per second),
/// until no more than `rest_share` of the way is left. Delay and repeats do not count.
[[nodiscard]] Micros duration_of(const Transition::Way& way, double velocity = 0.0);

/// One run of `way` as a curve: progress (0: start, 1: target) over the share of `duration_of(way,
/// velocity)`. At 1 and beyond it is at the target, as a mover is. A curve is itself. Exact but for that last
/// step, which is at most `rest_share`.
[[nodiscard]] Curve progress_of(const Transition::Way& way, double velocity = 0.0);

}  // namespace ubbo
