#include "ubbo/touch/gesture.hpp"

#include <array>
#include <cmath>

namespace ubbo {

const char* name_of(GestureKind kind) {
  static constexpr std::array names{"press", "tap", "long press", "drag",   "hold and drag",
                                    "flick", "pan", "pinch",      "rotate", "edge swipe"};
  return names[static_cast<std::size_t>(kind)];
}

const char* name_of(GesturePhase step) {
  static constexpr std::array names{"began", "moved", "ended", "withdrawn"};
  return names[static_cast<std::size_t>(step)];
}

const char* name_of(Side side) {
  static constexpr std::array names{"left", "up", "right", "down"};
  return names[static_cast<std::size_t>(side)];
}

Side side_of(Point way) {
  if (std::fabs(way.x) >= std::fabs(way.y)) return way.x < 0.0 ? Side::left : Side::right;
  return way.y < 0.0 ? Side::up : Side::down;
}

}  // namespace ubbo
