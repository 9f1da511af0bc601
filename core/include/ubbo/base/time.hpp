#pragma once

#include <chrono>
#include <cmath>
#include <cstdint>

#include "ubbo/base/language.hpp"

namespace ubbo {

/// All times are whole microseconds since a moment of the app's choosing; nothing in core reads a clock.
using Micros = std::chrono::microseconds;

/// The time at which nothing happens: what a motion that never ends reports as its end.
inline constexpr Micros never = Micros::max();

/// Times further than this from zero (about 36,000 years) are refused as input, so that no difference
/// overflows.
inline constexpr Micros farthest_time{std::int64_t{1} << 60};

/// Seconds as a floating number.
[[nodiscard]] constexpr double to_seconds(Micros time) { return static_cast<double>(time.count()) / 1e6; }

/// Milliseconds as the floating number nearest to them: 50.239, not 50.239000000000004.
[[nodiscard]] constexpr double to_ms(Micros time) { return static_cast<double>(time.count()) / 1e3; }

/// The first whole microsecond at or after `seconds`, within a nanosecond; at most one hour, at least zero.
[[nodiscard]] inline Micros from_seconds(double seconds) {
  constexpr double hour = 3600.0;
  if (!(seconds > 0.0)) return Micros{0};
  return Micros{static_cast<Micros::rep>(std::ceil(std::fmin(seconds, hour) * 1e6 - 1e-3))};
}

/// The whole microsecond nearest to `ms` milliseconds; `ms` must be within ±1e15.
[[nodiscard]] inline Micros from_ms(double ms) {
  return Micros{static_cast<Micros::rep>(std::llround(ms * 1e3))};
}

}  // namespace ubbo
