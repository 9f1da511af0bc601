#pragma once

#include <array>
#include <cstddef>
#include <cstdint>

#include "ubbo/base/geometry.hpp"
#include "ubbo/touch/gesture.hpp"

namespace ubbo {

/// How a thing shows at one moment, held against how it lies: the default changes nothing.
struct VisualState {
  Point offset{};        ///< dp it is moved by
  double scale = 1.0;    ///< about its middle
  double turn = 0.0;     ///< radians, clockwise about its middle
  double opacity = 1.0;  ///< 0 to 1
  Size grown{};          ///< dp it is wider and higher than it lies, at its right and its bottom
  Insets covered{};      ///< how much of it is hidden from each side, shares of its size, 0 to 1

  friend bool operator==(const VisualState&, const VisualState&) = default;
};

/// One property of a visual state.
enum class Property : std::uint8_t { x, y, scale, turn, opacity, width, height, left, top, right, bottom };

inline constexpr std::size_t property_count = 11;

[[nodiscard]] constexpr double& property(VisualState& visual_state, Property which) {
  switch (which) {
    case Property::x:
      return visual_state.offset.x;
    case Property::y:
      return visual_state.offset.y;
    case Property::scale:
      return visual_state.scale;
    case Property::turn:
      return visual_state.turn;
    case Property::opacity:
      return visual_state.opacity;
    case Property::width:
      return visual_state.grown.w;
    case Property::height:
      return visual_state.grown.h;
    case Property::left:
      return visual_state.covered.left;
    case Property::top:
      return visual_state.covered.top;
    case Property::right:
      return visual_state.covered.right;
    case Property::bottom:
      break;
  }
  return visual_state.covered.bottom;
}
[[nodiscard]] constexpr double property(const VisualState& visual_state, Property which) {
  VisualState copy = visual_state;
  return property(copy, which);
}

/// Properties that move together unless they are told apart.
enum class PropertyGroup : std::uint8_t { offset, scale, turn, opacity, size, uncovering };

inline constexpr std::array property_group_names{"offset", "scale", "turn", "opacity", "size", "uncovering"};

[[nodiscard]] constexpr PropertyGroup group_of(Property which) {
  switch (which) {
    case Property::x:
    case Property::y:
      return PropertyGroup::offset;
    case Property::scale:
      return PropertyGroup::scale;
    case Property::turn:
      return PropertyGroup::turn;
    case Property::opacity:
      return PropertyGroup::opacity;
    case Property::width:
    case Property::height:
      return PropertyGroup::size;
    default:
      return PropertyGroup::uncovering;
  }
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
