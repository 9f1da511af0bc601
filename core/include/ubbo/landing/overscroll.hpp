#pragma once

#include <array>
#include <cmath>
#include <cstdint>

#include "ubbo/base/maths.hpp"

namespace ubbo {

/// How a bound yields when it is dragged past. Distances are in the part's own unit and not negative.
///
/// `linear` follows by a share of what is dragged past it: s·p. `damped` yields less and less, and never
/// further than its reach: r·(1 - e^(-p/r)), which sets off as fast as the finger and has come 63 % of its
/// reach when the finger is a reach past the bound. Both are continuous at the bound, so nothing jumps there.
struct Overscroll {
  enum class How : std::uint8_t { none, linear, damped };

  How how = How::none;
  double amount = 0.0;  ///< the share, 0 to 1, or the reach, above zero

  /// How far it shows past the bound when it is dragged `past` it.
  [[nodiscard]] double shown(double past) const {
    if (how == How::linear) return amount * past;
    return how == How::damped && amount > 0.0 ? -amount * maths::expm1(-past / amount) : 0.0;
  }
  /// What `shown` of was that: how far it was dragged past the bound. What it could not show counts as the
  /// nearest it can.
  [[nodiscard]] double past(double shown) const {
    constexpr double max = 1.0 - 1e-9;  // of the reach
    if (how == How::linear) return amount > 0.0 ? shown / amount : 0.0;
    return how == How::damped && amount > 0.0 ? -amount * maths::log1p(-std::fmin(shown / amount, max)) : 0.0;
  }
  /// How much of the finger's speed shows when it is dragged `past` the bound, 0 to 1.
  [[nodiscard]] double slope(double past) const {
    if (how == How::linear) return amount;
    return how == How::damped && amount > 0.0 ? maths::exp(-past / amount) : 0.0;
  }
};

/// What the ways of yielding are called.
inline constexpr std::array overscroll_names{"none", "linear", "damped"};

}  // namespace ubbo
