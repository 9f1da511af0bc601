#pragma once

#include <cstddef>
#include <span>
#include <vector>

#include "ubbo/motion/spring.hpp"

namespace ubbo {

/// Very many numbers on springs of one kind, stepped together: rows of a long list, bees in a swarm.
///
/// A step is exact (the spring's own transition over that time), so what is reached does not depend on the
/// frame rate but for rounding. Each fourth step looks which numbers have come to rest, and puts those
/// exactly on their target. For a few movers, or ways of their own, use `Mover`.
class SpringBank {
 public:
  /// `count` numbers at rest at `value`. One that is within `rest_distance` (above zero) of its target and no
  /// faster than that times the natural frequency is put there exactly. Throws `std::invalid_argument`.
  SpringBank(const Spring& spring, std::size_t count, double value = 0.0, double rest_distance = 1e-3);

  [[nodiscard]] std::size_t size() const { return values_.size(); }
  [[nodiscard]] std::span<const double> values() const { return values_; }
  [[nodiscard]] std::span<const double> velocities() const { return velocities_; }
  [[nodiscard]] std::span<const double> targets() const { return targets_; }

  /// Number `i` (below `size()`) is at `value`, at rest.
  void put(std::size_t i, double value);
  /// Number `i` goes to `target`, with the velocity it has, or with another.
  void send(std::size_t i, double target);
  void send(std::size_t i, double target, double velocity);
  /// Lets `seconds` (0 or more) pass for all. O(size), a few nanoseconds each; allocates nothing.
  void step(double seconds);
  /// True when the last look, at each fourth step, found all at rest and none has been sent since.
  [[nodiscard]] bool settled() const { return settled_; }

 private:
  Spring spring_;
  double rest_distance_;
  unsigned steps_ = 0;
  double stepped_ = -1.0;  // what `step_` is for
  Spring::Step step_{};
  bool settled_ = true;
  std::vector<double> values_;
  std::vector<double> velocities_;
  std::vector<double> targets_;
};

}  // namespace ubbo
