#pragma once

#include <array>
#include <cstddef>
#include <limits>

#include "ubbo/base/answer.hpp"
#include "ubbo/motion/mover.hpp"
#include "ubbo/parts/part.hpp"
#include "ubbo/touch/sample.hpp"
#include "ubbo/touch/wheel.hpp"

namespace ubbo {

/// What a wheel or trackpad does at the time: it holds one contact that scrolls, or two that zoom, from its
/// first turn until it rests. What it scrolls follows these as it follows fingers, so that everything that
/// holds for a drag holds for a wheel.
class Wheeling {
 public:
  /// Where its contacts are: of a device that no platform has.
  static constexpr int device = std::numeric_limits<int>::min();
  /// A contact is looked at this often while a notch takes its way, at times that do not depend on frames.
  static constexpr Micros apart{2'000};
  /// Half the distance of its two contacts when they go down, dp: small, so that both are on the part.
  static constexpr double half_spread = 8.0;

  /// Whether it is one of the two contacts that zoom.
  [[nodiscard]] static bool zooms_by(const Sample& sample) { return sample.contact > 0; }

  void begin(Point at, bool zooms);
  void end() { contacts_ = 0; }
  /// How many contacts it has down.
  [[nodiscard]] std::size_t contacts() const { return contacts_; }
  [[nodiscard]] bool zooms() const { return contacts_ == 2; }
  /// One of its contacts was ended by the stage.
  void forget(const Sample& last) {
    if (last.device == device) contacts_ = 0;
  }

  /// What it scrolls goes `by` further, and what it zooms by `factor`; in motion, or at once where null.
  void turn(Point by, double factor, const Transition* transition, Micros now);
  /// It has rested when it has not turned for so long.
  void rests_after(Micros rest, Micros now) {
    rest_ = rest;
    rests_ = now + rest;
  }
  [[nodiscard]] Micros rest() const { return rest_; }
  [[nodiscard]] bool rested(Micros now) const { return now >= rests_ && !moving(); }
  [[nodiscard]] bool moving() const;
  /// When something next happens to it; `never`: nothing is scrolled.
  [[nodiscard]] Micros due() const;
  /// Lets time pass to `now`; where its contacts are then.
  void advance(Micros now);
  [[nodiscard]] Sample sample(int contact, Phase phase, Micros now) const;
  /// What it scrolls has come to its end, `left` short of where the wheel has it.
  void give_up(Point left);
  /// How far what it scrolls has been moved, dp.
  [[nodiscard]] Point moved() const { return {way_[0].value(), way_[1].value()}; }
  [[nodiscard]] double zoomed() const;

  // What it remembers between turns.

  /// The fingers were lifted from the trackpad: what the platform adds to that is passed over.
  bool lifted = false;
  /// It has said that there is an end.
  bool told_end = false;
  /// … and that nothing follows, since it last turned.
  bool told_nobody = false;
  /// Which part steps, and how much of a step there is yet.
  const Part* steps = nullptr;
  Point part_of_step{};
  Micros last_turn = -farthest_time;

 private:
  std::size_t contacts_ = 0;
  Point at_{};
  std::array<Mover, 3> way_{Mover(0.0), Mover(0.0), Mover(0.0)};  // x and y, dp; the logarithm of the zoom
  Micros tick_ = never;
  Micros rest_{0};
  Micros rests_ = never;
};

namespace questions {
inline constexpr Question wheel{"wheel.turn"};
inline constexpr Question wheel_end{"wheel.end"};
}  // namespace questions
namespace answers {
using WheelOver = AnswerWith<Number<"x", "dp">, Number<"y", "dp">>;
inline constexpr WheelOver wheel_scrolls{"wheel.scrolls", &questions::wheel, true};
inline constexpr WheelOver wheel_zooms{"wheel.zooms", &questions::wheel, true};
inline constexpr AnswerWith<AtLeast<"turned", "steps">> wheel_steps{"wheel.steps", &questions::wheel, true};
inline constexpr AnswerWith<AtLeast<"turned", "steps">> wheel_too_little{"wheel.too-little",
                                                                         &questions::wheel, false};
inline constexpr WheelOver wheel_scrolls_around{"wheel.scrolls-around", &questions::wheel, false};
inline constexpr WheelOver wheel_nobody{"wheel.nobody", &questions::wheel, false};
inline constexpr AnswerWith<> wheel_contact_down{"wheel.contact-down", &questions::wheel, false};
inline constexpr AnswerWith<> wheel_momentum{"wheel.momentum", &questions::wheel, false};
inline constexpr AnswerWith<> wheel_unusable{"wheel.unusable", &questions::wheel, false};
inline constexpr AnswerWith<Number<"left", "dp">> wheel_stops{"wheel.stops", &questions::wheel, false};
inline constexpr AnswerWith<AtLeast<"rested", "ms">> wheel_rests{"wheel.rests", &questions::wheel_end, true};
inline constexpr AnswerWith<> wheel_lifted{"wheel.lifted", &questions::wheel_end, true};
}  // namespace answers

}  // namespace ubbo
