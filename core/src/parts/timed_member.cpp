#include "ubbo/parts/timed_member.hpp"

#include "ubbo/parts/part.hpp"

namespace ubbo {

TimedMember::TimedMember(Part& owner) : owner_(&owner) {
  TimedMember** last = &owner.timed_;
  while (*last != nullptr) last = &(*last)->next_;
  *last = this;
}

TimedMember::~TimedMember() {
  TimedMember** at = &owner_->timed_;
  while (*at != this) at = &(*at)->next_;
  *at = next_;
}

void Alarm::run(bool holds, Micros after, Micros now, bool held) {
  if (!holds || after <= Micros{0}) {
    state_ = State::off;
    return;
  }
  if (state_ == State::rung) return;
  if (state_ == State::off) {
    after_ = left_ = after;
    state_ = State::stands;
  }
  if (after != after_) {  // another setting: as if it had been so from the beginning
    left_ += after - after_;
    rings_at_ += state_ == State::running ? after - after_ : Micros{0};
    after_ = after;
  }
  if (held && state_ == State::running) {
    left_ = rings_at_ - now;
    state_ = State::stands;
  } else if (!held && state_ == State::stands) {
    rings_at_ = now + std::max(left_, Micros{0});
    state_ = State::running;
  }
}

void Alarm::advance(Micros now) {
  if (!running() || rings_at_ > now) return;
  state_ = State::rung;
  rings_();
}

}  // namespace ubbo
