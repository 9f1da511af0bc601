#pragma once

#include "ubbo/motion/transition.hpp"

namespace ubbo {

/// A value and how fast it changes, per second.
struct MotionState {
  double value = 0.0;
  double velocity = 0.0;
};

/// One motion of a number from its beginning to its end, in closed form: what it is at any moment does not
/// depend on how it is looked at. A mover runs one, a timeline many.
class Motion {
 public:
  /// How long a fade lasts that stands for a travel.
  static constexpr Micros fade_time{200'000};

  /// What a motion is made of.
  struct Plan {
    double from = 0.0;
    double velocity = 0.0;  ///< what a spring starts with, per second; one that is not finite counts as none
    double to = 0.0;
    Micros begins{};
    double rest_floor = 0.0;  ///< the distance at which a spring or coast has arrived; 0: a share of its way
    Reduced reduced = Reduced::full;
  };

  /// At rest at `value` since `begins`.
  explicit Motion(double value = 0.0, Micros begins = -farthest_time);
  /// From `plan.begins` on by `transition`, whose delay does not count here. A spring or coast arrives within
  /// the rest floor, or where that is 0 within `rest_share` of the distance.
  Motion(const Plan& plan, const Transition& transition);

  /// Is at rest at `value` since `-farthest_time`, as it comes by `Motion(value)`, at less cost.
  void stand(double value);

  /// The same motion, `by` further on.
  void shift(double by) {
    from_ += by;
    to_ += by;
  }

  [[nodiscard]] Micros begins() const { return begins_; }
  /// The moment from which it is exactly at its goal; `begins()` when it takes no time; `never` when endless.
  [[nodiscard]] Micros ends() const { return ends_; }
  [[nodiscard]] double from() const { return from_; }
  /// Where it is sent. Runs that alternate may end where they began: see `goal`.
  [[nodiscard]] double to() const { return to_; }
  /// Where it ends.
  [[nodiscard]] double goal() const;
  /// The time of one run after the first; the first may take longer when it starts with a velocity.
  [[nodiscard]] Micros run() const { return run_; }
  [[nodiscard]] const Transition& transition() const { return transition_; }

  /// Before it begins it is at its start, after it ends at its goal, exactly. O(1), a few exp, sin, cos.
  [[nodiscard]] MotionState at(Micros time) const;
  /// How visible the moving thing is, 0 to 1: less than 1 only in a fade.
  [[nodiscard]] double opacity(Micros time) const;

  /// The same fade with another goal, or a new one that begins as visible as this is at `time`: for a thing
  /// that is sent elsewhere while it fades.
  [[nodiscard]] Motion refaded(double to, Micros time) const;
  [[nodiscard]] bool fades() const { return reduced_ == Reduced::fade; }

 private:
  [[nodiscard]] MotionState within(double seconds, double from, double to, double velocity) const;

  double from_ = 0.0;
  double velocity_ = 0.0;
  double to_ = 0.0;
  Micros begins_{};
  Micros ends_{};
  Micros first_{};  // how long the first run takes
  Micros run_{};    // and each after it
  Reduced reduced_ = Reduced::full;
  Transition transition_;
};

}  // namespace ubbo
