#include "ubbo/touch/feel.hpp"

#include <array>

namespace ubbo {

template <>
std::span<const Setting<Feel>> settings_of<Feel>() {
  using detail::setting;
  static const std::array table{
      setting<&Feel::drag_threshold>("drag_threshold", "dp", 0.0, 200.0,
                                     "travel at which a press becomes a drag"),
      setting<&Feel::tap_reach>("tap_reach", "dp", 0.0, 200.0,
                                "how far a contact may stray from where it went down and still be a tap"),
      setting<&Feel::velocity_window>("velocity_window", "ms", 5.0, 500.0,
                                      "how far back samples count for the velocity at release"),
      setting<&Feel::staleness>("staleness", "ms", 1.0, 1000.0,
                                "a contact that rested this long before it lifted has no velocity"),
      setting<&Feel::rest_radius>("rest_radius", "dp", 0.0, 50.0,
                                  "a contact that stays this close to its last place is resting"),
  };
  return table;
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
