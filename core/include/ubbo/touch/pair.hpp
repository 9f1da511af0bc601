#pragma once

#include "ubbo/base/geometry.hpp"
#include "ubbo/touch/feel.hpp"

namespace ubbo {

/// What two contacts do together.
enum class PairKind : std::uint8_t { none, pan, pinch, rotate };

/// Two contacts as one: how far their middle has moved, how their distance has grown, how they have turned.
///
/// With c the middle and d the vector from one contact to the other, each held against its value when the
/// pair began: offset = c - c₀, scale = |d| / |d₀|, angle = the turn from d₀ to d, followed past ±180°. The
/// pair begins as whatever passes its threshold; the three readings then start from zero, so nothing jumps.
class Pair {
 public:
  /// Contacts nearer than this, in dp, have no direction worth the name.
  static constexpr double min_spread = 1.0;

  /// Both contacts are down.
  void press(Point first, Point second);
  /// Either moved; returns true when this began the pair. The readings then still tell what began it; call
  /// `anchor` to start them from zero.
  bool move(Point first, Point second, const Feel& feel);
  /// From here on the readings count from zero.
  void anchor();
  void end() { pressed_ = false; }

  [[nodiscard]] bool pressed() const { return pressed_; }
  /// What it began as; none before it began.
  [[nodiscard]] PairKind kind() const { return kind_; }
  [[nodiscard]] Point centre() const { return centre_; }
  [[nodiscard]] Point offset() const { return centre_ - centre_0_; }  ///< dp
  [[nodiscard]] double scale() const { return spread_ / spread_0_; }  ///< 1: as it began
  [[nodiscard]] double angle() const { return angle_; }               ///< radians, clockwise on the screen
  [[nodiscard]] double spread_change() const { return spread_ - spread_0_; }  ///< dp
  /// How far each contact has gone around their middle, dp.
  [[nodiscard]] double arc() const { return angle_ * spread_0_ / 2.0; }

 private:
  void read(Point first, Point second);

  bool pressed_ = false;
  PairKind kind_ = PairKind::none;
  Point centre_{}, centre_0_{};
  double spread_ = 1.0, spread_0_ = 1.0;
  double heading_ = 0.0;  // of d, radians
  double angle_ = 0.0;
};

}  // namespace ubbo
