#pragma once

#include <cstdint>

#include "ubbo/base/geometry.hpp"
#include "ubbo/base/time.hpp"

namespace ubbo {

/// What a contact did at a sample. A contact is one `down`, any number of `move`, and one `up` or `cancel`. A
/// mouse or pen over the screen that touches nothing says `hover` as it moves, and `leave` when it has gone.
enum class Phase : std::uint8_t { down, move, up, cancel, hover, leave };

/// What touched the screen. What a wheel or trackpad scrolls is dragged by a contact of its own, which the
/// stage makes.
enum class Tool : std::uint8_t { finger, stylus, mouse, wheel };

/// One report of one contact by the touch hardware.
struct Sample {
  Micros time{};
  int contact = 0;  ///< the platform's number for the contact; may be used again once the contact has ended
  Phase phase = Phase::down;
  Point at{};             ///< dp
  double pressure = 1.0;  ///< 0 to 1, as the hardware says; not used by decisions yet
  Tool tool = Tool::finger;
  int device = 0;     ///< which touch device, where there are several; each numbers its own contacts
  double size = 0.0;  ///< width of the contact in dp, where the hardware says it; 0: unknown
};

/// "down", "move", "up", "cancel", "hover", "leave".
[[nodiscard]] const char* name_of(Phase phase);
/// "finger", "stylus", "mouse", "wheel".
[[nodiscard]] const char* name_of(Tool tool);

}  // namespace ubbo
