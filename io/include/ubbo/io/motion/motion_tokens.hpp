#pragma once

#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "ubbo/io/motion/easing_css.hpp"
#include "ubbo/io/motion/motion_spec.hpp"

namespace ubbo::io {

/// Motions and durations with names, as a design system keeps them. A dot in a name parts groups:
/// `sheet.open`.
struct MotionTokens {
  std::vector<std::pair<std::string, MotionSpec>> motions;
  std::vector<std::pair<std::string, Micros>> durations;
};

/// Design-token JSON as the W3C community group describes it: a motion with a time is a `transition`, a curve
/// without one a `cubicBezier`, a time a `duration`. What a cubic-bezier cannot say (springs, bounces,
/// repeats) is the best that `fitter` finds, with the motion's own text and the fit's error under
/// `$extensions`.
[[nodiscard]] std::string tokens_json(const MotionTokens& tokens, const BezierFitter& fitter);

/// Reads such JSON: groups, types taken over from groups, and `{other.token}` aliases. Our own text counts
/// before the fit. Tokens of other types are passed over. `name` stands for the file in errors. Throws
/// `InputError`.
[[nodiscard]] MotionTokens read_tokens(std::string_view json, const std::string& name);

/// A C++ header of constants that needs only ubbo::core: `ubbo::Transition` and `ubbo::Curve` objects and
/// durations. Springs, coasts, cubic-béziers, families and steps are exact, other curves straight lines
/// within 0.0005. `name` is the namespace. Throws `std::invalid_argument` when a name is no C++ name or two
/// would be the same.
[[nodiscard]] std::string tokens_header(const MotionTokens& tokens, std::string_view name);

/// CSS custom properties: for each motion the easing function within `max_error`, the cubic-bezier that
/// `fitter` finds with its error, the duration, and all of it as a `transition` takes it, or an `animation`
/// where it repeats; behind them the same without motion for people who asked for less. Springs start with
/// `velocity` (whole ways per second).
[[nodiscard]] std::string tokens_css(const MotionTokens& tokens, const BezierFitter& fitter,
                                     double max_error = 0.002, double velocity = 0.0);

}  // namespace ubbo::io
