#pragma once

#include <cstddef>
#include <functional>
#include <string>
#include <string_view>

#include "ubbo/motion/motion.hpp"

namespace ubbo::io {

/// A curve as a CSS easing function.
struct EasingText {
  std::string text;
  double error = 0.0;     ///< how far it is from the curve at most; 0: it is the curve
  std::size_t stops = 0;  ///< of a `linear()`, else 0
};

/// `linear`, `cubic-bezier()`, `steps()` and `linear()` as they are; any other curve as the `linear()` with
/// the fewest stops within `max_error` (1e-4 to 1; see `fewest_stops`). Throws `std::invalid_argument`.
[[nodiscard]] EasingText css_easing(const Curve& curve, double max_error = 0.002);

/// A `cubic-bezier()` beside a curve, and the largest difference over 0..1.
struct BezierFit {
  CubicBezier bezier{0, 0, 1, 1};
  double error = 0.0;
};
/// Finds the nearest one: `fit::fit_bezier`, which needs NLopt, or another.
using BezierFitter = std::function<BezierFit(const Curve&)>;

/// `cubic-bezier(0.25, 0.1, 0.25, 1)`.
[[nodiscard]] std::string css_text(const CubicBezier& bezier);

/// What is to be animated: a declaration with `{}` where the number stands, such as `opacity: {}` or
/// `transform: translateX({}px)`, and the numbers at start and end.
struct KeyframeTarget {
  std::string declaration = "opacity: {}";
  double from = 0.0;
  double to = 1.0;
};

/// `@keyframes name { … }` that goes through `progress` by straight lines within `max_error` of the way; play
/// it with `linear`. Throws `std::invalid_argument` when the declaration has no `{}`.
[[nodiscard]] std::string css_keyframes(std::string_view name, const Curve& progress,
                                        const KeyframeTarget& target, double max_error = 0.002);

/// `240ms ease 80ms 3 alternate`: what stands after the name in an `animation`, with `easing` as its
/// function.
[[nodiscard]] std::string css_timing(const Transition& transition, std::string_view easing,
                                     double velocity = 0.0);

}  // namespace ubbo::io
