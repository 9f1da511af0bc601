#pragma once

#include <cstddef>
#include <vector>

#include "ubbo/motion/mover.hpp"

namespace ubbo {

/// A number that does what a mover did, `lag` later: its value at any moment is the leader's at that moment
/// less the lag, exactly.
class Follower {
 public:
  /// `lag` 0 or more. `room`: how many changes of the leader are kept; of more than that within one lag the
  /// oldest are passed over. Allocates the room; nothing later does.
  Follower(const Mover& leader, Micros lag, std::size_t room = 64);

  /// Looks at the leader. Call it after whatever puts, sends or stops the leader, with the time of that, and
  /// once a frame. Several in a row hang on one leader, each with its own lag.
  void follow(const Mover& leader, Micros now);

  [[nodiscard]] double value() const { return state_.value; }
  [[nodiscard]] double velocity() const { return state_.velocity; }
  /// False once it has come where the leader rests.
  [[nodiscard]] bool moving() const { return moving_; }
  [[nodiscard]] Micros lag() const { return lag_; }

 private:
  void keep(const Motion& motion);

  Micros lag_;
  std::vector<Motion> kept_;  // a ring
  std::size_t newest_ = 0;
  std::size_t count_ = 0;
  unsigned seen_ = 0;
  MotionState state_;
  bool moving_ = false;
};

}  // namespace ubbo
