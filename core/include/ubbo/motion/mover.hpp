#pragma once

#include "ubbo/motion/passage.hpp"

namespace ubbo {

/// A number in motion: it has a value and a velocity, and can be sent elsewhere at any time without a jump.
///
/// Every motion is evaluated in closed form from its beginning, so it matters not how often it is looked at.
/// A motion ends at a known microsecond, and from then on the value is the target exactly.
class Mover {
 public:
  /// At rest at `value`. `rest_floor` (the value's unit, above zero) is the distance below which it counts as
  /// arrived; a spring otherwise rests within `Spring::rest_share` of the distance it was sent.
  explicit Mover(double value = 0.0, double rest_floor = 1e-6)
      : value_(value), target_(value), floor_(rest_floor) {}

  [[nodiscard]] double value() const { return value_; }
  /// The value's unit per second.
  [[nodiscard]] double velocity() const { return velocity_; }
  /// Where the motion goes; the value itself when there is none.
  [[nodiscard]] double target() const { return target_; }
  [[nodiscard]] bool moving() const { return ends_ != never; }
  /// When the present motion ends; `never` when nothing moves.
  [[nodiscard]] Micros ends() const { return ends_; }

  /// Is at `value`, at rest. What a finger does, and what the first layout does.
  void put(double value);
  /// Goes from the present value to `target` by `passage`, from `now` on. A spring starts with the present
  /// velocity.
  void send(double target, const Passage& passage, Micros now);
  /// The same, but a spring starts with `velocity`, as from a finger that let go.
  void send(double target, const Passage& passage, Micros now, double velocity);
  /// Lets time pass to `now`. Returns true when this ended the motion. O(1), allocates nothing.
  bool advance(Micros now);

 private:
  double value_;
  double target_;
  double floor_;
  double velocity_ = 0.0;
  double start_ = 0.0;
  double start_velocity_ = 0.0;
  Micros began_{};
  Micros ends_ = never;
  Passage passage_{Timed{Curve{}, Micros{0}}};
};

}  // namespace ubbo
