// What is asked of the parts that a contact may go to.
#pragma once

#include <algorithm>
#include <cmath>
#include <optional>

#include "ubbo/parts/part.hpp"

namespace ubbo::chain {

inline Side side_along(Axis axis, Point way) {
  if (axis == Axis::horizontal) return way.x < 0.0 ? Side::left : Side::right;
  return way.y < 0.0 ? Side::up : Side::down;
}

inline Axis axis_of(Side side) {
  return side == Side::left || side == Side::right ? Axis::horizontal : Axis::vertical;
}

/// The side that a part yields towards; nothing where it does so towards all.
inline std::optional<Side> side_of(YieldDirection direction) {
  switch (direction) {
    case YieldDirection::left:
      return Side::left;
    case YieldDirection::up:
      return Side::up;
    case YieldDirection::right:
      return Side::right;
    case YieldDirection::down:
      return Side::down;
    case YieldDirection::any:
      break;
  }
  return {};
}

inline bool yields_towards(const ContactRules& contact_rules, Side side) {
  return side_of(contact_rules.yield_direction).value_or(side) == side;
}

inline bool follows(const Part& part, const Contact& contact, Axis axis) {
  return !part.contact_rules().observes && part.drag_interest(contact.down).follows(axis);
}

template <class Chain>
bool among(const Chain& chain, const Part* part) {
  return std::find(chain.begin(), chain.end(), part) != chain.end();
}

/// Inwards from the owner, then outwards: the order in which the others are asked. True when one took it.
template <class Chain, class F>
bool ask_others(const Chain& chain, const Part* owner, F&& take) {
  const auto found = std::find(chain.begin(), chain.end(), owner);
  if (found == chain.end()) return false;
  const auto position = static_cast<std::size_t>(found - chain.begin());
  for (std::size_t step = 1; step < chain.size(); ++step)
    if (take(*chain[step <= position ? position - step : step])) return true;
  return false;
}

}  // namespace ubbo::chain
