#pragma once

#include <span>
#include <stdexcept>
#include <string>
#include <string_view>

#include "ubbo/motion/transition.hpp"

namespace ubbo::io {

/// What is wrong with a line of text that describes a motion: at which character, what was found there, what
/// is taken, and one that is right.
class SpecError : public std::invalid_argument {
 public:
  struct Facts {
    std::string spec{};
    std::size_t at = 0;  ///< bytes before what is wrong
    std::size_t length = 1;
    std::string found{};
    std::string takes{};
    std::string example{};
  };

  explicit SpecError(Facts facts);
  [[nodiscard]] const Facts& facts() const { return facts_; }
  /// The spec with a mark below what is wrong, and the example: three lines.
  [[nodiscard]] const std::string& picture() const { return picture_; }

 private:
  Facts facts_;
  std::string picture_;
};

/// A curve of the app's own, by the name that motions and scenes call it: small letters, digits and hyphens,
/// and none of the names that motions have already.
struct NamedCurve {
  std::string name{};
  Curve curve{};
};

/// A motion as it was written (docs/formats/motion.md).
struct MotionSpec {
  std::string text;
  Transition transition;
  bool has_time = true;  ///< false: a curve without a duration, which is to be given later
};

/// Reads `ease-out 240ms`, `spring(settle 400ms, overshoot 5%)`, `linear(0, 0.5 20%, 1) 1s after 80ms`.
/// `own` are curves of the app's own that it may name. Throws `SpecError`; `std::invalid_argument` for an own
/// name that is not taken.
[[nodiscard]] MotionSpec read_motion(std::string_view text, std::span<const NamedCurve> own = {});
/// Reads a motion that must say its time. Throws `SpecError`.
[[nodiscard]] Transition read_transition(std::string_view text, std::span<const NamedCurve> own = {});

/// A transition in words `read_motion` takes; a curve of many pieces as the `linear()` nearest to it.
[[nodiscard]] std::string spec_text(const Transition& transition);

/// A number as CSS takes it: at most `decimals` decimals, no trailing zeros, no "-0".
[[nodiscard]] std::string css_number(double value, int decimals = 5);

}  // namespace ubbo::io
