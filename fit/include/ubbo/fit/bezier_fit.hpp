#pragma once

#include "ubbo/io/motion/easing_css.hpp"

/// What is found by searching.
namespace ubbo::fit {

/// The `cubic-bezier()` nearest to `curve`: the largest difference over 0..1 is made as small as NLopt's
/// subplex search finds from several starts. Some ten milliseconds.
[[nodiscard]] io::BezierFit fit_bezier(const Curve& curve);

}  // namespace ubbo::fit
