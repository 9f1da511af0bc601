#include "ubbo/motion/mover.hpp"

#include <algorithm>
#include <cmath>

namespace ubbo {

namespace {

Micros delayed(Micros now, Micros delay) { return now + std::min(delay, farthest_time); }

}  // namespace

namespace {

// Worked out once, since parts have several movers each.
const Transition& usual_transition() {
  static const Transition usual = Spring::settling(Micros{250'000}, 0.0);
  return usual;
}

}  // namespace

Mover::Mover(double value, double rest_floor)
    : state_{value, 0.0}, floor_(rest_floor), motion_(value), usual_(usual_transition()) {}

double Mover::target() const {
  if (waiting_) return waiting_->target;
  return moving_ ? motion_.goal() : state_.value;
}

Micros Mover::due() const {
  const Micros end = moving_ ? motion_.ends() : never;
  return waiting_ ? std::min(waiting_->begins, end) : end;
}

Micros Mover::ends() const {
  if (!waiting_) return due();
  Mover later = *this;
  later.advance(waiting_->begins);
  return later.moving() ? later.ends() : waiting_->begins;
}

void Mover::put(double value) {
  if (!std::isfinite(value)) return;
  ++changes_;
  state_ = {value, 0.0};
  opacity_ = 1.0;
  moving_ = false;
  waiting_.reset();
  motion_.stand(value);
}

void Mover::send(double target, const Transition& transition, Micros now) {
  if (!std::isfinite(target)) return;
  if (transition.delay > Micros{0})
    waiting_ = Waiting{target, transition, delayed(now, transition.delay), std::nullopt};
  else
    begin(target, transition, now, velocity());
}

void Mover::send(double target, const Transition& transition, Micros now, double velocity) {
  if (!std::isfinite(target)) return;
  if (transition.delay > Micros{0})
    waiting_ = Waiting{target, transition, delayed(now, transition.delay), velocity};
  else
    begin(target, transition, now, velocity);
}

void Mover::coast(const Coast& coast, Micros now, double velocity) {
  if (!std::isfinite(velocity)) return;
  begin(value() + coast.distance(velocity), coast, now, velocity);
}

void Mover::shift(double by) {
  if (!std::isfinite(by)) return;
  ++changes_;
  state_.value += by;
  motion_.shift(by);
  if (waiting_) waiting_->target += by;
}

void Mover::begin(double target, const Transition& transition, Micros begins, double velocity) {
  ++changes_;
  waiting_.reset();
  if (moving_ && motion_.fades() && reduced_ == Reduced::fade) {
    motion_ = motion_.refaded(target, begins);
  } else {
    motion_ = Motion({.from = state_.value,
                      .velocity = velocity,
                      .to = target,
                      .begins = begins,
                      .rest_floor = floor_,
                      .reduced = reduced_},
                     transition);
  }
  moving_ = true;
  look(begins);
}

void Mover::look(Micros now) {
  if (now < motion_.ends()) {
    state_ = motion_.at(now);
    opacity_ = motion_.opacity(now);
    return;
  }
  state_ = {motion_.goal(), 0.0};
  opacity_ = 1.0;
  moving_ = false;
}

bool Mover::advance(Micros now) {
  const bool rested = !moving();
  if (waiting_ && now >= waiting_->begins) {
    const Waiting next = *waiting_;
    if (moving_ && next.begins > motion_.begins()) look(next.begins);
    begin(next.target, next.transition, next.begins, next.velocity.value_or(velocity()));
  }
  if (moving_ && now >= motion_.begins()) look(now);
  return !rested && !moving();
}

}  // namespace ubbo
