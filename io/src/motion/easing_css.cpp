#include "ubbo/io/motion/easing_css.hpp"

#include <fmt/format.h>

#include <array>
#include <cmath>
#include <stdexcept>

#include "ubbo/io/motion/motion_spec.hpp"
#include "ubbo/motion/fewest_stops.hpp"
#include "ubbo/motion/progress.hpp"

namespace ubbo::io {

namespace {

std::string stops_text(const std::vector<Stops::Point>& points) {
  std::string text = "linear(";
  for (std::size_t i = 0; i < points.size(); ++i) {
    if (i != 0) text += ", ";
    text += css_number(points[i].value);
    const double usual = i == 0 ? 0.0 : 1.0;
    const bool end = i == 0 || i + 1 == points.size();
    if (!end || points[i].at != usual) text += fmt::format(" {}%", css_number(points[i].at * 100.0));
  }
  return text + ")";
}

std::string steps_text(const Steps& steps) {
  constexpr std::array names{", jump-start", "", ", jump-none", ", jump-both"};
  return fmt::format("steps({}{})", steps.count(), names[static_cast<std::size_t>(steps.jump())]);
}

}  // namespace

std::string css_text(const CubicBezier& bezier) {
  // To the last digit: near an upright end a little off in x is much in y.
  return fmt::format("cubic-bezier({}, {}, {}, {})", bezier.x1(), bezier.y1(), bezier.x2(), bezier.y2());
}

EasingText css_easing(const Curve& curve, double max_error) {
  if (std::holds_alternative<Curve::Linear>(curve.kind())) return {.text = "linear"};
  if (const auto* bezier = std::get_if<CubicBezier>(&curve.kind())) return {.text = css_text(*bezier)};
  if (const auto* steps = std::get_if<Steps>(&curve.kind())) return {.text = steps_text(*steps)};
  if (const Stops* stops = curve.as_stops())
    return {.text = stops_text(stops->points()), .stops = stops->points().size()};
  const FittedStops fitted = fewest_stops(curve, max_error);
  return {.text = stops_text(fitted.points), .error = fitted.error, .stops = fitted.points.size()};
}

std::string css_keyframes(std::string_view name, const Curve& progress, const KeyframeTarget& target,
                          double max_error) {
  const std::size_t hole = target.declaration.find("{}");
  if (hole == std::string::npos)
    throw std::invalid_argument(fmt::format(
        "keyframes: '{}' has no {{}} where the number stands; takes a declaration such as 'opacity: {{}}'",
        target.declaration));
  if (target.declaration.find_first_of("{}", hole + 2) != std::string::npos ||
      target.declaration.find_first_of("{}\n") < hole)
    throw std::invalid_argument(fmt::format(
        "keyframes: '{}' has braces besides the {{}} where the number stands; takes one declaration",
        target.declaration));
  std::string text = fmt::format("@keyframes {} {{\n", name);
  for (const Stops::Point& point : fewest_stops(progress, max_error).points) {
    const double value = target.from + (target.to - target.from) * point.value;
    text +=
        fmt::format("  {}% {{ {}{}{}; }}\n", css_number(point.at * 100.0), target.declaration.substr(0, hole),
                    css_number(value), target.declaration.substr(hole + 2));
  }
  return text + "}\n";
}

std::string css_timing(const Transition& transition, std::string_view easing, double velocity) {
  std::string text =
      fmt::format("{}ms {}", css_number(to_ms(duration_of(transition.way, velocity)), 3), easing);
  if (transition.delay != Micros{0}) text += fmt::format(" {}ms", css_number(to_ms(transition.delay), 3));
  if (transition.runs <= Transition::endless) text += " infinite";
  if (transition.runs > 1) text += fmt::format(" {}", transition.runs);
  if (transition.alternate) text += " alternate";
  return text;
}

}  // namespace ubbo::io
