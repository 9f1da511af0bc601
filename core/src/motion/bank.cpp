#include "ubbo/motion/bank.hpp"

#include <cmath>
#include <cstdint>
#include <string>

#include "../base/bits.hpp"
#include "ubbo/base/settings.hpp"

namespace ubbo {

SpringBank::SpringBank(const Spring& spring, std::size_t count, double value, double rest_distance)
    : spring_(spring),
      rest_distance_(rest_distance),
      values_(count, value),
      velocities_(count, 0.0),
      targets_(count, value) {
  if (!(rest_distance > 0.0))
    refuse("bank: rest_distance = " + plain_number(rest_distance) + " is not taken; it takes more than 0");
}

void SpringBank::put(std::size_t i, double value) {
  values_[i] = targets_[i] = value;
  velocities_[i] = 0.0;
}

void SpringBank::send(std::size_t i, double target) {
  targets_[i] = target;
  settled_ = false;
}

void SpringBank::send(std::size_t i, double target, double velocity) {
  velocities_[i] = velocity;
  send(i, target);
}

void SpringBank::step(double seconds) {
  if (seconds != stepped_) {
    step_ = spring_.step(seconds);
    stepped_ = seconds;
  }
  const Spring::Step s = step_;
  double* const value = values_.data();
  double* const velocity = velocities_.data();
  const double* const target = targets_.data();
  const std::size_t count = values_.size();
  // No branches in either loop, so that the compiler takes several at once. The look costs as much as the
  // step, which is why not every step looks.
  if (++steps_ % 4 != 0) {
    for (std::size_t i = 0; i < count; ++i) {
      const double x = value[i] - target[i];
      const double v = velocity[i];
      value[i] = target[i] + (s.a * x + s.b * v);
      velocity[i] = s.c * x + s.d * v;
    }
    return;
  }
  const double near = rest_distance_;
  const double slow = rest_distance_ * spring_.frequency();
  std::uint64_t moving = 0;
  for (std::size_t i = 0; i < count; ++i) {
    const double x = value[i] - target[i];
    const double v = velocity[i];
    const double next_x = s.a * x + s.b * v;
    const double next_v = s.c * x + s.d * v;
    const double keep = ((std::fabs(next_x) > near) | (std::fabs(next_v) > slow)) ? 1.0 : 0.0;
    value[i] = target[i] + keep * next_x;
    velocity[i] = keep * next_v;
    moving |= bits_of(keep);
  }
  settled_ = moving == 0;
}

}  // namespace ubbo
