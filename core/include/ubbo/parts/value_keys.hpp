#pragma once

#include <optional>

#include "ubbo/parts/accessible.hpp"

namespace ubbo {

/// What the keys of a part that holds a number do, as the WAI-ARIA practices have it.
struct ValueKeys {
  double small = 1.0;     ///< by the arrows
  double large = 0.0;     ///< by the page keys; 0: they do nothing
  double min = 0.0;       ///< by Home
  double max = 0.0;       ///< by End
  bool mirrored = false;  ///< left means more

  /// What `key` makes of `now`, which may lie beyond the bounds; none: it is no key for a number.
  [[nodiscard]] std::optional<double> apply(Key key, double now) const {
    const double right = mirrored ? -small : small;
    switch (key) {
      case Key::left:
        return now - right;
      case Key::right:
        return now + right;
      case Key::up:
        return now + small;
      case Key::down:
        return now - small;
      case Key::page_up:
        return large > 0.0 ? std::optional(now + large) : std::nullopt;
      case Key::page_down:
        return large > 0.0 ? std::optional(now - large) : std::nullopt;
      case Key::home:
        return min;
      case Key::end:
        return max;
      default:
        return std::nullopt;
    }
  }
};

}  // namespace ubbo
