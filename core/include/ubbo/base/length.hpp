#pragma once

namespace ubbo {

/// A length in dp, plus a share of some whole: of the container a part lies in, of the way to the next snap
/// point.
struct Length {
  double dp = 0.0;
  double fraction = 0.0;  ///< of the whole; 1: all of it

  constexpr Length() = default;
  constexpr Length(double dp_, double share_ = 0.0) : dp(dp_), fraction(share_) {}
  /// A share of the whole: `Length::of(0.5)` is half of it.
  static constexpr Length of(double fraction) { return {0.0, fraction}; }
  [[nodiscard]] constexpr double in(double whole) const { return dp + fraction * whole; }
  friend constexpr bool operator==(const Length&, const Length&) = default;
};

}  // namespace ubbo
