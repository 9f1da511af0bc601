#pragma once

#include <cstdint>

#include "ubbo/base/time.hpp"

namespace ubbo {

class Part;

/// Moments that a hand should feel or an ear hear.
enum class MomentKind : std::uint8_t {
  threshold_crossed,  ///< a press has become a drag
  step_passed,        ///< a finger has gone on to the next snap point, step or mark
  end_reached,        ///< a finger, or what coasts, has come to a bound
  snapped,            ///< what a finger let go has come to rest on a snap point
  long_press,         ///< a contact has been held still for as long as that takes
  committed           ///< a long swipe or a thrown card counts from here on
};

/// "threshold crossed", "step passed", …
[[nodiscard]] const char* name_of(MomentKind kind);

/// One of these, at its own time.
struct Moment {
  MomentKind kind{};
  Micros time{};
  const Part* part = nullptr;  ///< good while it is being told
};

}  // namespace ubbo
