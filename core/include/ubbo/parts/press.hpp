#pragma once

#include "ubbo/parts/part.hpp"
#include "ubbo/touch/gestures.hpp"

namespace ubbo {

/// One contact that presses something: what buttons, tabs, dots and ratings own.
///
/// A press counts when the contact lifts over the area, or within the feel's `tap_reach` around it; on the
/// way it may leave and come back. The area is the caller's, since it may move meanwhile.
class Press {
 public:
  /// False when another contact presses already.
  bool down(const Sample& sample);
  /// A contact is down.
  [[nodiscard]] bool held() const { return held_; }
  /// It is over the area, so that lifting it would count.
  [[nodiscard]] bool over() const { return held() && over_; }
  [[nodiscard]] Point at() const { return at_; }
  void follow(const Part& part, const Sample& sample, const Box& area);
  /// The contact lifts: whether it counts. When it does not, the part says why.
  bool lift(const Part& part, const Sample& sample, const Box& area);
  /// The contact came to nothing: the part says so where the system cancelled it.
  void let_go(const Part& part, LetGo how);
  void end() { held_ = false; }

 private:
  bool held_ = false;
  bool over_ = false;
  Point at_{};
};

/// Whether the press that `sample` lifts was a tap on `part`, having strayed so far (dp); says so, or why
/// not.
bool was_tap(const Part& part, const Contact& contact, const Sample& sample, double strayed);

namespace questions {
inline constexpr Question press{"press.press"};
}
namespace answers {
inline constexpr AnswerWith<AtMost<"away", "dp">> press_left{"press.left", &questions::press, false};
inline constexpr AnswerWith<> press_cancelled{"press.cancelled", &questions::press, false};
inline constexpr std::array<const Answer*, 2> press_answers{&press_left, &press_cancelled};
}  // namespace answers

}  // namespace ubbo
