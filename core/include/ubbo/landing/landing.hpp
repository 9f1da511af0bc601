#pragma once

#include <cstddef>

#include "ubbo/landing/snap_points.hpp"

namespace ubbo {

/// The choice of where a released part comes to rest, with the numbers it was made from. All places are in
/// the part's own unit.
struct Landing {
  double place = 0.0;     ///< where it comes to rest
  double aimed = 0.0;     ///< what the choice was made for: where it was let go, plus what the throw added
  std::size_t index = 0;  ///< which snap point; 0 when there are none
  double distance = 0.0;  ///< from `aimed` to `place`
  double other = 0.0;     ///< the runner-up
  double other_distance = 0.0;  ///< from `aimed` to `other`
  bool contested = false;       ///< there was a runner-up
};

/// Chooses where a part let go at `place` (unit) with `velocity` (unit/s) comes to rest. `carry` seconds of
/// the velocity are added before the nearest snap point is taken; the result is kept within `least`..`most`.
[[nodiscard]] Landing choose_landing(const SnapPoints& snaps, double place, double velocity, double carry,
                                     double least, double most);

}  // namespace ubbo
