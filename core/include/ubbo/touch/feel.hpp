#pragma once

#include <span>
#include <string_view>

#include "ubbo/base/settings.hpp"
#include "ubbo/touch/velocity.hpp"

namespace ubbo {

/// The set of touch thresholds. Every one has its unit, range and meaning in the settings table.
struct Feel {
  double drag_threshold = 8.0;  ///< dp
  double tap_reach = 12.0;      ///< dp
  Micros velocity_window{80'000};
  Micros staleness{50'000};
  double rest_radius = 1.5;  ///< dp

  /// The part of the feel that the velocity estimate needs.
  [[nodiscard]] VelocityRules velocity_rules() const { return {velocity_window, staleness, rest_radius}; }
};

template <>
std::span<const Setting<Feel>> settings_of<Feel>();

/// The shipped feels. Their numbers are our own choice, reasoned in docs/feels.md.
namespace feels {
inline constexpr Feel bare_finger{};
inline constexpr Feel gloved{.drag_threshold = 12.0, .tap_reach = 18.0, .rest_radius = 2.5};
inline constexpr Feel stylus{.drag_threshold = 4.0, .tap_reach = 6.0, .rest_radius = 0.8};
inline constexpr Feel mouse{.drag_threshold = 3.0, .tap_reach = 4.0, .rest_radius = 0.5};
}  // namespace feels

/// A shipped feel with the name scenes and the tool use for it.
struct NamedFeel {
  const char* name;
  Feel feel;
};

/// All shipped feels: `bare-finger`, `gloved`, `stylus`, `mouse`.
[[nodiscard]] std::span<const NamedFeel> shipped_feels();

}  // namespace ubbo
