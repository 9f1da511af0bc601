#include "ubbo/touch/feel.hpp"

#include <array>

namespace ubbo {

template <>
std::span<const Setting<Feel>> settings_of<Feel>() {
  using declare::number;
  static const std::array table{
      number<&Feel::drag_threshold>("drag_threshold", "dp", 0.0, 200.0,
                                    "travel at which a press becomes a drag"),
      number<&Feel::drag_threshold_vertical>("drag_threshold_vertical", "dp", 0.0, 200.0,
                                             "how far a vertical drag must go; 0: as drag_threshold"),
      number<&Feel::axis_lock_angle>(
          "axis_lock_angle", "degrees", 0.0, 45.0,
          "a free drag that begins within this angle of an axis keeps to it; 0: never"),
      number<&Feel::tap_reach>("tap_reach", "dp", 0.0, 200.0,
                               "how far a contact may stray from where it went down and still be a tap"),
      number<&Feel::tap_time>("tap_time", "ms", 10.0, 10000.0, "the longest contact that is a tap"),
      number<&Feel::multi_tap_gap>("multi_tap_gap", "ms", 10.0, 5000.0,
                                   "the longest time from a lift to the next down within a double tap"),
      number<&Feel::multi_tap_reach>(
          "multi_tap_reach", "dp", 0.0, 400.0,
          "the largest distance between the first and any later tap of a double tap"),
      number<&Feel::hold_delay>("hold_delay", "ms", 10.0, 10000.0,
                                "how long a still contact is down for a long press"),
      number<&Feel::flick_speed>("flick_speed", "dp/s", 0.0, 20000.0,
                                 "speed at the lift that makes a drag a flick"),
      number<&Feel::edge_width>("edge_width", "dp", 0.0, 200.0,
                                "a drag inwards that began this close to an edge is an edge swipe"),
      number<&Feel::pinch_threshold>("pinch_threshold", "dp", 0.0, 200.0,
                                     "change of the distance between two contacts that begins a pinch"),
      number<&Feel::rotate_threshold>(
          "rotate_threshold", "dp", 0.0, 200.0,
          "way of two contacts around their middle, each, that begins a rotation"),
      number<&Feel::smoothing>(
          "smoothing", "ms", 0.0, 100.0,
          "time constant of the low-pass over places, which is late by about as much; 0: none"),
      number<&Feel::prediction>("prediction", "ms", 0.0, 50.0,
                                "how far ahead of its last sample a dragged pane is shown; 0: not at all"),
      number<&Feel::palm_size>("palm_size", "dp", 0.0, 2000.0,
                               "contacts this wide or wider are refused as palms; 0: none is"),
      number<&Feel::bezel>("bezel", "dp", 0.0, 200.0,
                           "contacts that begin this close to the screen's edge are refused"),
      number<&Feel::velocity_window>("velocity_window", "ms", 5.0, 500.0,
                                     "how far back samples count for the velocity at release"),
      number<&Feel::staleness>("staleness", "ms", 1.0, 1000.0,
                               "a contact that rested this long before it lifted has no velocity"),
      number<&Feel::rest_radius>("rest_radius", "dp", 0.0, 50.0,
                                 "a contact that stays this close to its last place is resting"),
  };
  return table;
}

void check_feels(const Feels& feels) {
  check_settings("feel", feels.finger);
  check_settings("feel.stylus", feels.stylus);
  check_settings("feel.mouse", feels.mouse);
  check_settings("feel.wheel", feels.wheel);
}

std::span<const NamedFeel> shipped_feels() {
  static constexpr std::array list{
      NamedFeel{"bare-finger", feels::bare_finger},
      NamedFeel{"gloved", feels::gloved},
      NamedFeel{"stylus", feels::stylus},
      NamedFeel{"mouse", feels::mouse},
  };
  return list;
}

}  // namespace ubbo
