#pragma once

#include <cstdint>

#include "ubbo/base/geometry.hpp"
#include "ubbo/base/time.hpp"

namespace ubbo {

/// What a touch can be taken for.
enum class GestureKind : std::uint8_t {
  press,       ///< a contact is down and still; began at once, withdrawn when it becomes something else
  tap,         ///< `count` taps in a row
  long_press,  ///< still for the hold delay
  drag,        ///< moved past the drag threshold
  hold_drag,   ///< moved past it after a long press
  flick,       ///< a drag that lifted fast
  pan,         ///< two contacts moving together
  pinch,       ///< two contacts moving apart or together
  rotate,      ///< two contacts turning about each other
  edge_swipe   ///< a drag inwards from an edge of the screen
};

/// Where a gesture is in its life. Each that began has exactly one end: ended or withdrawn.
enum class GesturePhase : std::uint8_t { began, moved, ended, withdrawn };

/// The four directions, as they are on the screen.
enum class Side : std::uint8_t { left, up, right, down };

/// News of a gesture.
struct Gesture {
  GestureKind kind = GestureKind::press;
  GesturePhase step = GesturePhase::began;
  Micros time{};
  Micros began{};      ///< when the first of its contacts went down
  Point at{};          ///< dp; of two contacts the middle
  int count = 1;       ///< taps in a row
  Point offset{};      ///< dp dragged so far, the threshold left out
  Point velocity{};    ///< dp/s, at the end
  Side side{};         ///< of a flick or drag: where to; of an edge swipe: the edge it came from
  double scale = 1.0;  ///< of two contacts: their distance by that when the gesture began
  double angle = 0.0;  ///< of two contacts: their turn since then, radians, clockwise on the screen
};

[[nodiscard]] const char* name_of(GestureKind kind);
[[nodiscard]] const char* name_of(GesturePhase step);
[[nodiscard]] const char* name_of(Side side);
/// The side `way` points to most.
[[nodiscard]] Side side_of(Point way);

}  // namespace ubbo
