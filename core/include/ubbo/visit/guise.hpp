#pragma once

#include <cstddef>
#include <cstdint>

#include "ubbo/base/geometry.hpp"
#include "ubbo/touch/gesture.hpp"

namespace ubbo {

/// How a thing shows at one moment, held against how it lies: the default changes nothing.
struct Guise {
  Point offset{};        ///< dp it is moved by
  double scale = 1.0;    ///< about its middle
  double turn = 0.0;     ///< radians, clockwise about its middle
  double opacity = 1.0;  ///< 0 to 1
  Size grown{};          ///< dp it is wider and higher than it lies, at its right and its bottom
  Insets covered{};      ///< how much of it is hidden from each side, shares of its size, 0 to 1

  friend bool operator==(const Guise&, const Guise&) = default;
};

/// One property of a guise.
enum class Trait : std::uint8_t { x, y, scale, turn, opacity, width, height, left, top, right, bottom };

inline constexpr std::size_t trait_count = 11;

[[nodiscard]] constexpr double& trait(Guise& guise, Trait which) {
  switch (which) {
    case Trait::x:
      return guise.offset.x;
    case Trait::y:
      return guise.offset.y;
    case Trait::scale:
      return guise.scale;
    case Trait::turn:
      return guise.turn;
    case Trait::opacity:
      return guise.opacity;
    case Trait::width:
      return guise.grown.w;
    case Trait::height:
      return guise.grown.h;
    case Trait::left:
      return guise.covered.left;
    case Trait::top:
      return guise.covered.top;
    case Trait::right:
      return guise.covered.right;
    case Trait::bottom:
      break;
  }
  return guise.covered.bottom;
}
[[nodiscard]] constexpr double trait(const Guise& guise, Trait which) {
  Guise copy = guise;
  return trait(copy, which);
}

/// Moved by `distance` dp towards `side`; a negative one the other way.
[[nodiscard]] constexpr Point towards(Side side, double distance) {
  switch (side) {
    case Side::left:
      return {-distance, 0.0};
    case Side::up:
      return {0.0, -distance};
    case Side::right:
      return {distance, 0.0};
    case Side::down:
      break;
  }
  return {0.0, distance};
}

/// How far `box` must go towards `side` until it is just off `container`, dp; 0 where it is off already.
[[nodiscard]] constexpr double way_off(const Box& box, const Box& container, Side side) {
  const double way = side == Side::left    ? box.right() - container.x
                     : side == Side::up    ? box.bottom() - container.y
                     : side == Side::right ? container.right() - box.x
                                           : container.bottom() - box.y;
  return way > 0.0 ? way : 0.0;
}

}  // namespace ubbo
