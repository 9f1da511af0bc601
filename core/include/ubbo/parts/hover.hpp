#pragma once

#include <array>
#include <memory>

#include "ubbo/base/answer.hpp"
#include "ubbo/motion/mover.hpp"
#include "ubbo/parts/kind.hpp"
#include "ubbo/parts/timed_member.hpp"

namespace ubbo {

/// The part that a mouse or pen is over without touching, and how much of that shows on it and on those it
/// has just left.
///
/// Of several pointers the one that last moved counts, so that never more than one part is hovered.
class Hover {
 public:
  explicit Hover(Context& context) : context_(&context) {}

  /// How what is hovered shows it: at once, and without a flicker where a pointer only passes.
  void set_transition(Transition transition) { transition_ = std::move(transition); }

  /// A sample that says `hover` or `leave`, or a contact of the same pointer, which has moved along.
  void point(const Sample& sample);
  void leave(const Sample& sample);
  void follow(const Sample& sample);
  /// A pointer is over the screen.
  [[nodiscard]] bool pointing() const { return pointing_; }
  [[nodiscard]] Point at() const { return pointer_.at; }

  /// A part, and which piece of it.
  struct Over {
    Part* part = nullptr;
    PieceUnder piece{};
    friend bool operator==(const Over&, const Over&) = default;
  };
  /// What it is over.
  [[nodiscard]] const Over& over() const { return over_; }
  /// From `now` on it is over another one, or none.
  void move_to(const Over& over, Micros now);
  /// How much it shows on a piece of `part`, 0 to 1, eased; 0: on the part.
  [[nodiscard]] double share_of(const Part& part, int piece, HoverShare share) const;
  /// The side over which a pointer came, or left last.
  [[nodiscard]] Side side_of(const Part& part, int piece) const;
  /// `part` is gone.
  void forget(const Part& part);

  /// What its easing belongs to; null before a pointer has come.
  [[nodiscard]] Part* clock() const { return clock_.get(); }

 private:
  struct Shown {
    const Part* part = nullptr;
    int piece = 0;
    HoverShare share = HoverShare::shown;
    Side side = Side::up;
    std::unique_ptr<Clocked<Mover>> mover;
  };
  void show(const Part& part, int piece, double to, const Box& box, Micros now);
  void send(const Part& part, int piece, HoverShare share, const Transition& way, double to, Side side,
            Micros now);

  Context* context_;
  Transition transition_ = Timed{Curve::ease_out(), Micros{140'000}};
  bool pointing_ = false;
  Sample pointer_{};
  Point before_{};  // where it was before it came to where it is
  Over over_{};
  std::unique_ptr<Part> clock_;
  std::array<Shown, 32> shown_{};  // of more the faintest is given up
};

namespace questions {
inline constexpr Question hover{"hover.over"};
}
namespace answers {
using HoverAt = AnswerWith<Number<"x", "dp">, Number<"y", "dp">>;
inline constexpr HoverAt hover_enters{"hover.enters", &questions::hover, true};
inline constexpr HoverAt hover_leaves{"hover.leaves", &questions::hover, false};
}  // namespace answers

}  // namespace ubbo
