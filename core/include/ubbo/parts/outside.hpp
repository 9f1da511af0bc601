#pragma once

#include "ubbo/parts/part.hpp"

namespace ubbo {

/// What a press on a layer is on.
enum class On : std::uint8_t { surface, backdrop, button };

/// A press on a layer that may mean to close it: one beside it, on its backdrop, or one on its button. It
/// counts when it is a tap.
class Outside {
 public:
  /// A contact went down; false when another one is down already.
  bool down(const Contact& contact, const Sample& sample, On on);
  [[nodiscard]] bool mine(const Contact& contact) const { return slot_ == contact.slot; }
  void follow(const Sample& sample) { strayed_ = std::max(strayed_, length(sample.at - from_)); }
  /// Its contact lifts: whether that was a tap. Says why not where it was none.
  [[nodiscard]] bool lift(const Part& part, const Contact& contact, const Sample& sample);
  void end() { slot_ = none; }
  [[nodiscard]] On on() const { return on_; }
  [[nodiscard]] bool held_on(On on) const { return slot_ != none && on_ == on; }

 private:
  static constexpr int none = -1;

  int slot_ = none;
  On on_ = On::surface;
  Point from_{};
  double strayed_ = 0.0;
};

namespace questions {
inline constexpr Question way_out{"outside.way-out"};
}
namespace answers {
inline constexpr AnswerWith<> closed_by_backdrop{"outside.closed-by-backdrop", &questions::way_out, true};
inline constexpr AnswerWith<> closed_by_button{"outside.closed-by-button", &questions::way_out, true};
inline constexpr AnswerWith<> closed_by_back{"outside.closed-by-back", &questions::way_out, true};
inline constexpr AnswerWith<> backdrop_stays{"outside.backdrop-stays", &questions::way_out, false};
inline constexpr AnswerWith<> back_stays{"outside.back-stays", &questions::way_out, false};
inline constexpr std::array<const Answer*, 5> way_out_answers{&closed_by_backdrop, &closed_by_button,
                                                              &closed_by_back, &backdrop_stays, &back_stays};
}  // namespace answers

}  // namespace ubbo
