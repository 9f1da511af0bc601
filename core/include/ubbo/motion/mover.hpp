#pragma once

#include <optional>

#include "ubbo/motion/motion.hpp"

namespace ubbo {

/// A number in motion: it has a value and a velocity, and can be sent elsewhere at any time without a jump.
///
/// Every motion is evaluated in closed form from its beginning, so it matters not how often it is looked at.
/// A motion ends at a known microsecond, and from then on the value is the target exactly. Nothing here
/// allocates, throws, or costs more than O(1).
class Mover {
 public:
  /// At rest at `value`. `rest_floor` (the value's unit) is the distance at which it counts as arrived,
  /// however far it was sent; 0: a spring or coast rests within `rest_share` of its way.
  explicit Mover(double value = 0.0, double rest_floor = 0.0);

  [[nodiscard]] double value() const { return state_.value; }
  /// The value's unit per second.
  [[nodiscard]] double velocity() const { return state_.velocity; }
  /// Where it goes, or will go after its delay; the value itself when it rests.
  [[nodiscard]] double target() const;
  [[nodiscard]] bool moving() const { return moving_ || waiting_.has_value(); }
  /// When the next thing happens by itself: the present motion ends, or one that was delayed begins; `never`
  /// when nothing does.
  [[nodiscard]] Micros due() const;
  /// When it comes to rest at the target; `never` when it rests, or goes on for ever.
  [[nodiscard]] Micros ends() const;
  /// How visible the thing is, 0 to 1: less than 1 only while a fade stands for its travel.
  [[nodiscard]] double opacity() const { return opacity_; }

  /// The distance at which it counts as arrived, from the next send on.
  void set_rest_floor(double rest_floor) { floor_ = rest_floor; }
  /// How it goes when a call does not say.
  void set_usual(Transition transition) { usual_ = std::move(transition); }
  [[nodiscard]] const Transition& usual() const { return usual_; }
  /// Whether travel becomes a fade, or nothing; from the next send on.
  void set_reduced(Reduced reduced) { reduced_ = reduced; }

  /// What it is at a time no earlier than it was last told, and no later than what is due next. Changes
  /// nothing.
  [[nodiscard]] MotionState at(Micros now) const {
    return moving_ && now >= motion_.begins() ? motion_.at(now) : state_;
  }
  /// How visible it is at that time.
  [[nodiscard]] double opacity_at(Micros now) const {
    return moving_ && now >= motion_.begins() ? motion_.opacity(now) : opacity_;
  }

  // Targets, values and velocities that are not finite are not taken: it stays as it is.

  /// Is at `value`, at rest. What a finger does, and what the first layout does.
  void put(double value);
  /// Goes from the present value to `target` in its usual way, from `now` on.
  void send(double target, Micros now) { send(target, usual_, now); }
  /// Goes to `target` by `transition`, this once. A spring starts with the present velocity. Until a delay is
  /// over, the present motion goes on.
  void send(double target, const Transition& transition, Micros now);
  /// Likewise, but a spring starts with `velocity`, as from a finger that let go.
  void send(double target, const Transition& transition, Micros now, double velocity);
  /// Coasts on with the present velocity to wherever friction lets it come.
  void coast(const Coast& coast, Micros now) { this->coast(coast, now, velocity()); }
  /// Coasts on with `velocity`.
  void coast(const Coast& coast, Micros now, double velocity);
  /// Stands still where it is.
  void stop() { put(value()); }
  /// Is at once where it was going.
  void finish() { put(target()); }
  /// Is `by` further on, and so is where it goes: what it is measured from has moved.
  void shift(double by);
  /// Lets time pass to `now`. Returns true when this brought it to rest.
  bool advance(Micros now);

  /// The motion it is in, or was in last; one at rest since `-farthest_time` after a `put`.
  [[nodiscard]] const Motion& motion() const { return motion_; }
  /// Grows by one with each thing that changes where it is or goes: what a follower looks at.
  [[nodiscard]] unsigned changes() const { return changes_; }

 private:
  struct Waiting {
    double target;
    Transition transition;
    Micros begins;
    std::optional<double> velocity;
  };
  void begin(double target, const Transition& transition, Micros begins, double velocity);
  void look(Micros now);

  MotionState state_;
  double opacity_ = 1.0;
  double floor_;
  Reduced reduced_ = Reduced::full;
  bool moving_ = false;
  unsigned changes_ = 0;
  Motion motion_;
  std::optional<Waiting> waiting_;
  Transition usual_;
};

}  // namespace ubbo
