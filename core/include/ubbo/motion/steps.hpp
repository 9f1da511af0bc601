#pragma once

#include <cstdint>

namespace ubbo {

/// Where a staircase jumps: at the beginning of each step, at its end, at both ends of the whole, at neither.
enum class Jump : std::uint8_t { start, end, none, both };

/// `steps(count, jump)` of CSS Easing Functions Level 2.
class Steps {
 public:
  /// Throws `std::invalid_argument` unless `count` is 1 to 1e6, and at least 2 for `Jump::none`.
  explicit Steps(int count, Jump jump = Jump::end);

  [[nodiscard]] int count() const { return count_; }
  [[nodiscard]] Jump jump() const { return jump_; }

  /// The step at `p`. At a jump the upper step, or the lower one if `before` (the standard's before flag: the
  /// motion has not begun).
  [[nodiscard]] double value(double p, bool before = false) const;

 private:
  int count_;
  Jump jump_;
};

}  // namespace ubbo
