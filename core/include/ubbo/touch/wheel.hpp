#pragma once

#include <array>
#include <cstdint>
#include <span>

#include "ubbo/base/geometry.hpp"
#include "ubbo/base/settings.hpp"
#include "ubbo/base/time.hpp"
#include "ubbo/motion/transition.hpp"

namespace ubbo {

/// In what a wheel or trackpad says how far it was turned.
enum class WheelUnit : std::uint8_t {
  dp,     ///< a trackpad, or a wheel that turns without notches
  line,   ///< lines of text
  page,   ///< what is seen of the content
  notch,  ///< the steps that a finger feels in a wheel
};

/// What the platform says of a turn.
enum class WheelPhase : std::uint8_t {
  none,      ///< nothing: a wheel, or a platform that does not tell
  begin,     ///< fingers were laid on the trackpad
  change,    ///< they move
  end,       ///< they were lifted
  momentum,  ///< the platform's own coasting after that
};

/// One report of a wheel or trackpad. It scrolls, steps or zooms what is under the pointer.
struct WheelTurn {
  Micros time{};
  Point at{};  ///< where the pointer is, dp
  Point by{};  ///< how far, in `unit`; right and down are positive: what lies there comes into view
  WheelUnit unit = WheelUnit::dp;
  WheelPhase phase = WheelPhase::none;
  bool zooms = false;  ///< the control key is down: `by.y` zooms, upwards means closer
  double scale = 1.0;  ///< two fingers on the trackpad have moved apart by this factor; 1: they have not
};

/// "dp", "line", "page", "notch".
inline constexpr std::array wheel_unit_names{"dp", "line", "page", "notch"};
[[nodiscard]] inline const char* name_of(WheelUnit unit) {
  return wheel_unit_names[static_cast<std::size_t>(unit)];
}
/// "none", "begin", "change", "end", "momentum".
inline constexpr std::array wheel_phase_names{"none", "begin", "change", "end", "momentum"};
[[nodiscard]] inline const char* name_of(WheelPhase phase) {
  return wheel_phase_names[static_cast<std::size_t>(phase)];
}

/// The thresholds of wheels and trackpads. Units, ranges and meanings stand in the settings table.
struct WheelFeel {
  double notch = 66.0;  ///< dp
  double line = 22.0;   ///< dp
  double page = 0.85;   ///< of what is seen
  double step = 32.0;   ///< dp
  double zoom = 1.2;    ///< a notch
  Micros rest{170'000};
  Transition transition = Spring::settling(Micros{140'000}, 0.0);
};

template <>
std::span<const Setting<WheelFeel>> settings_of<WheelFeel>();

/// What a part does with a wheel that turns over it.
enum class WheelUse : std::uint8_t {
  none,     ///< nothing: what lies around it gets it
  scrolls,  ///< it is dragged along, as by a finger
  steps,    ///< a notch is a step, as by an arrow key
  both      ///< a notch is a step, and a trackpad drags it
};

}  // namespace ubbo
