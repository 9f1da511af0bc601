#include "ubbo/motion/mover.hpp"

#include <algorithm>
#include <cmath>

namespace ubbo {

void Mover::put(double value) {
  value_ = target_ = value;
  velocity_ = 0.0;
  ends_ = never;
}

void Mover::send(double target, const Passage& passage, Micros now) { send(target, passage, now, velocity_); }

void Mover::send(double target, const Passage& passage, Micros now, double velocity) {
  Micros lasts{};
  if (const auto* spring = std::get_if<Spring>(&passage)) {
    const double distance = value_ - target;
    const double tolerance = std::max(floor_, Spring::rest_share * std::fabs(distance));
    lasts = from_seconds(spring->rest_time({distance, velocity}, tolerance));
  } else if (value_ != target) {
    lasts = std::get<Timed>(passage).duration;
  }
  if (lasts <= Micros{0}) {
    put(target);
    return;
  }
  passage_ = passage;
  target_ = target;
  start_ = value_;
  start_velocity_ = velocity_ = velocity;
  began_ = now;
  ends_ = now + lasts;
}

bool Mover::advance(Micros now) {
  if (!moving() || now < began_) return false;
  if (now >= ends_) {
    put(target_);
    return true;
  }
  const double seconds = to_seconds(now - began_);
  if (const auto* spring = std::get_if<Spring>(&passage_)) {
    const SpringState state = spring->at({start_ - target_, start_velocity_}, seconds);
    value_ = target_ + state.distance;
    velocity_ = state.velocity;
  } else {
    const Timed& timed = std::get<Timed>(passage_);
    const double whole = to_seconds(timed.duration);
    const double share = seconds / whole;
    value_ = start_ + (target_ - start_) * timed.curve.value(share);
    velocity_ = (target_ - start_) * timed.curve.slope(share) / whole;
  }
  return false;
}

}  // namespace ubbo
