#pragma once

#include <cstdint>
#include <variant>

#include "ubbo/motion/coast.hpp"
#include "ubbo/motion/curve.hpp"
#include "ubbo/motion/spring.hpp"

namespace ubbo {

/// A way along a curve in a given time (zero: at once).
struct Timed {
  Curve curve{};
  Micros duration{};
};

/// A way from one value to another: by a spring, along a curve in a given time, or by a coast; when it begins
/// and how often it repeats. A spring takes over the velocity a value already has; a curve starts from the
/// value alone; a coast sets off with just the velocity that brings it there.
struct Transition {
  using Way = std::variant<Spring, Timed, Coast>;

  Transition(Spring spring, Micros wait = Micros{0}) : way(spring), delay(wait) {}
  Transition(Timed timed, Micros wait = Micros{0}) : way(std::move(timed)), delay(wait) {}
  Transition(Coast coast, Micros wait = Micros{0}) : way(coast), delay(wait) {}

  /// This transition, beginning after `wait`.
  [[nodiscard]] Transition after(Micros wait) const {
    Transition later = *this;
    later.delay = wait;
    return later;
  }
  /// This transition run `times` times (`endless`: for ever), each from the start again, or there and back in
  /// turn.
  [[nodiscard]] Transition repeated(int times, bool back_and_forth = false) const {
    Transition more = *this;
    more.runs = times;
    more.alternate = back_and_forth;
    return more;
  }

  static constexpr int endless = 0;

  Way way;
  Micros delay{0};
  int runs = 1;  ///< `endless` and below: for ever
  bool alternate = false;
};

/// What becomes of motion for people who asked for less of it.
enum class Reduced : std::uint8_t {
  full,   ///< everything travels
  fade,   ///< travel becomes a fade: out where it was, in where it goes
  still,  ///< what would travel is there at once
};

/// What one part does with less motion: what the stage says, or its own choice.
enum class PartReduced : std::uint8_t { as_screen, full, fade, still };

/// What counts for a part, from the stage's setting and its own.
[[nodiscard]] constexpr Reduced reduced_for(PartReduced part, Reduced stage) {
  return part == PartReduced::as_screen ? stage : static_cast<Reduced>(static_cast<int>(part) - 1);
}

}  // namespace ubbo
