#pragma once

#include <array>
#include <cmath>

#include "ubbo/base/answer.hpp"
#include "ubbo/base/geometry.hpp"

namespace ubbo {

/// Tells when a press becomes a drag, and how far it has dragged since, along one axis or over the plane.
///
/// The offset is measured from the place at which the path crosses the threshold, not from the sample that
/// was first seen past it. So whatever the threshold and however sparse the samples, the offset grows from
/// zero without a jump, and the same path gives the same offset at every sampling rate.
class Drag {
 public:
  enum class Reach { along_axis, plane };

  /// A drag along `axis` only.
  explicit Drag(Axis axis) : axis_(axis), reach_(Reach::along_axis) {}
  /// A drag in any direction.
  Drag() = default;

  /// The contact went down.
  void press(Point at);
  /// The contact moved; returns true when this sample made it a drag. `threshold` in dp.
  bool move(const Point& at, double threshold);
  /// It is a drag already, in the middle of which the contact is at `at`; its offset counts from `anchor`.
  void go_on(Point anchor, Point at);
  /// The contact ended.
  void end() { state_ = State::idle; }

  [[nodiscard]] bool pressed() const { return state_ == State::pressed; }
  [[nodiscard]] bool dragging() const { return state_ == State::dragging; }
  /// How far the contact is from where it went down, along the axis if there is one; dp, not negative.
  [[nodiscard]] double travel() const;
  /// The largest distance from where it went down so far, in any direction; dp.
  [[nodiscard]] double strayed() const { return std::sqrt(strayed_squared_); }
  /// The distance dragged, the threshold left out; dp. Zero until it is a drag, and always zero across the
  /// axis.
  [[nodiscard]] Point offset() const {
    if (!dragging()) return {};
    const Point dragged = at_ - anchor_;
    if (reach_ == Reach::plane) return dragged;
    return axis_ == Axis::horizontal ? Point{dragged.x, 0.0} : Point{0.0, dragged.y};
  }

 private:
  enum class State { idle, pressed, dragging };

  Axis axis_ = Axis::horizontal;
  Reach reach_ = Reach::plane;
  State state_ = State::idle;
  Point from_{};
  Point at_{};
  Point anchor_{};
  double strayed_squared_ = 0.0;
};

namespace questions {
inline constexpr Question drag{"drag.drag"};
}
/// What a part that follows a contact by a `Drag` says of it.
namespace answers {
using Drags = AnswerWith<AtLeast<"travel", "dp">, Number<"after", "ms">>;
inline constexpr Drags drags{"drag.drags", &questions::drag, true};
inline constexpr AnswerWith<AtLeast<"travel", "dp">> drag_too_short{"drag.too-short", &questions::drag,
                                                                    false};
inline constexpr AnswerWith<AtLeast<"travel", "dp">, Number<"across", "dp">> drag_across{
    "drag.across", &questions::drag, false};
inline constexpr AnswerWith<AtLeast<"travel", "dp">, AtMost<"from handle", "dp">> drag_off_handle{
    "drag.off-handle", &questions::drag, false};
inline constexpr Drags drag_unwanted{"drag.unwanted", &questions::drag, false};
}  // namespace answers

}  // namespace ubbo
