#include "ubbo/motion/follower.hpp"

#include <algorithm>

namespace ubbo {

Follower::Follower(const Mover& leader, Micros lag, std::size_t room)
    : lag_(std::max(lag, Micros{0})),
      kept_(std::max<std::size_t>(room, 2)),
      seen_(leader.changes()),
      state_{leader.value(), 0.0} {
  keep(leader.motion());
}

void Follower::keep(const Motion& motion) {
  // Several changes at one moment come to the last of them.
  const bool replaces = count_ != 0 && kept_[newest_].begins() == motion.begins();
  if (!replaces && count_ != 0) newest_ = (newest_ + 1) % kept_.size();
  kept_[newest_] = motion;
  if (!replaces) count_ = std::min(count_ + 1, kept_.size());
}

void Follower::follow(const Mover& leader, Micros now) {
  if (leader.changes() != seen_) {
    seen_ = leader.changes();
    const Motion& motion = leader.motion();
    // One that was put somewhere does not know when.
    keep(motion.begins() == -farthest_time ? Motion(motion.goal(), now) : motion);
  }
  const Micros then = now - lag_;
  std::size_t back = 0;
  while (back + 1 < count_ && kept_[(newest_ + kept_.size() - back) % kept_.size()].begins() > then) ++back;
  const Motion& motion = kept_[(newest_ + kept_.size() - back) % kept_.size()];
  state_ = motion.at(then);
  moving_ = back != 0 || then < motion.ends();
}

}  // namespace ubbo
