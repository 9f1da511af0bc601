#pragma once

#include <cmath>
#include <span>
#include <string_view>

#include "ubbo/base/settings.hpp"
#include "ubbo/touch/sample.hpp"
#include "ubbo/touch/velocity.hpp"
#include "ubbo/touch/wheel.hpp"

namespace ubbo {

/// The set of touch thresholds. Every one has its unit, range and meaning in the settings table.
struct Feel {
  double drag_threshold = 8.0;           ///< dp
  double drag_threshold_vertical = 0.0;  ///< dp; 0: as drag_threshold
  double axis_lock_angle = 30.0;         ///< degrees
  double tap_reach = 12.0;               ///< dp
  Micros tap_time{400'000};
  Micros multi_tap_gap{300'000};
  double multi_tap_reach = 36.0;  ///< dp
  Micros hold_delay{450'000};
  double flick_speed = 300.0;      ///< dp/s
  double edge_width = 18.0;        ///< dp
  double pinch_threshold = 10.0;   ///< dp
  double rotate_threshold = 10.0;  ///< dp
  Micros smoothing{0};
  Micros prediction{0};
  double palm_size = 0.0;  ///< dp; 0: any size is taken
  double bezel = 0.0;      ///< dp
  Micros velocity_window{80'000};
  Micros staleness{50'000};
  double rest_radius = 1.5;  ///< dp

  /// The threshold along `axis`, dp.
  [[nodiscard]] double threshold(Axis axis) const {
    return axis == Axis::vertical && drag_threshold_vertical > 0.0 ? drag_threshold_vertical : drag_threshold;
  }
  /// The axis along which a movement has come furthest of its threshold: where it has passed one, the axis of
  /// the drag.
  [[nodiscard]] Axis main_axis(Point moved) const {
    // |x| / threshold of x against |y| / threshold of y, without dividing by what may be nothing.
    constexpr double min = 1e-6;
    return std::fabs(moved.x) * std::fmax(threshold(Axis::vertical), min) >=
                   std::fabs(moved.y) * std::fmax(threshold(Axis::horizontal), min)
               ? Axis::horizontal
               : Axis::vertical;
  }
  /// The part of the feel that the velocity estimate needs.
  [[nodiscard]] VelocityRules velocity_rules() const {
    return {.window = velocity_window, .staleness = staleness, .rest_radius = rest_radius};
  }
};

template <>
std::span<const Setting<Feel>> settings_of<Feel>();

/// The shipped feels. Their numbers are our own choice, reasoned in docs/feels.md.
namespace feels {
inline constexpr Feel bare_finger{};
inline constexpr Feel gloved{.drag_threshold = 12.0,
                             .tap_reach = 18.0,
                             .tap_time = Micros{650'000},
                             .multi_tap_gap = Micros{450'000},
                             .multi_tap_reach = 56.0,
                             .hold_delay = Micros{700'000},
                             .flick_speed = 220.0,
                             .edge_width = 26.0,
                             .pinch_threshold = 16.0,
                             .rotate_threshold = 16.0,
                             .rest_radius = 2.5};
inline constexpr Feel stylus{
    .drag_threshold = 4.0, .tap_reach = 6.0, .multi_tap_reach = 16.0, .edge_width = 10.0, .rest_radius = 0.8};
inline constexpr Feel mouse{.drag_threshold = 3.0,
                            .tap_reach = 4.0,
                            .multi_tap_gap = Micros{350'000},
                            .multi_tap_reach = 8.0,
                            .edge_width = 4.0,
                            .rest_radius = 0.5};
/// What a wheel scrolls follows it from the first dp on, and is neither tapped nor held.
inline constexpr Feel wheel_contact{.drag_threshold = 0.0,
                                    .tap_reach = 0.0,
                                    .tap_time = Micros{10'000},
                                    .hold_delay = Micros{10'000'000},
                                    .edge_width = 0.0,
                                    .pinch_threshold = 0.0,
                                    .rotate_threshold = 200.0};
}  // namespace feels

/// A feel for each tool. The tool that touches tells which one counts.
struct Feels {
  Feel finger{};
  Feel stylus = feels::stylus;
  Feel mouse = feels::mouse;
  WheelFeel wheel{};

  [[nodiscard]] const Feel& of(Tool tool) const {
    if (tool == Tool::wheel) return feels::wheel_contact;
    if (tool == Tool::stylus) return stylus;
    return tool == Tool::mouse ? mouse : finger;
  }
};

/// Throws `std::invalid_argument` when a number of one of the feels lies out of its range.
void check_feels(const Feels& feels);

/// A shipped feel with the name scenes and the tool use for it.
struct NamedFeel {
  const char* name;
  Feel feel;
};

/// All shipped feels: `bare-finger`, `gloved`, `stylus`, `mouse`.
[[nodiscard]] std::span<const NamedFeel> shipped_feels();

}  // namespace ubbo
