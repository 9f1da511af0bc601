#include "ubbo/io/motion/easing_css.hpp"

#include <fmt/format.h>

#include <array>
#include <cmath>
#include <nlopt.hpp>
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

struct Target {
  std::vector<double> values;
};

double largest_error(const CubicBezier& bezier, const Target& target) {
  double worst = 0.0;
  const auto last = static_cast<double>(target.values.size() - 1);
  for (std::size_t i = 0; i < target.values.size(); ++i)
    worst = std::max(worst, std::fabs(bezier.value(static_cast<double>(i) / last) - target.values[i]));
  return worst;
}

double worst_off(const std::vector<double>& x, std::vector<double>&, void* data) {
  return largest_error({x[0], x[1], x[2], x[3]}, *static_cast<const Target*>(data));
}

double squares_off(const std::vector<double>& x, std::vector<double>&, void* data) {
  const auto& target = *static_cast<const Target*>(data);
  const CubicBezier bezier(x[0], x[1], x[2], x[3]);
  const auto last = static_cast<double>(target.values.size() - 1);
  double sum = 0.0;
  for (std::size_t i = 0; i < target.values.size(); ++i) {
    const double off = bezier.value(static_cast<double>(i) / last) - target.values[i];
    sum += off * off;
  }
  return sum;
}

using Start = std::vector<double>;

Start searched(nlopt::vfunc of, Target& target, Start x, double first_step) {
  nlopt::opt search(nlopt::LN_SBPLX, 4);
  search.set_lower_bounds({0.0, -20.0, 0.0, -20.0});
  search.set_upper_bounds({1.0, 20.0, 1.0, 20.0});
  search.set_min_objective(of, &target);
  search.set_xtol_abs(1e-6);
  search.set_maxeval(2000);
  search.set_initial_step(Start(4, first_step));
  double reached = 0.0;
  try {
    search.optimize(x, reached);
  } catch (const nlopt::roundoff_limited&) {  // as near as rounding lets it come
  }
  return x;
}

Target looked_at(const Curve& curve, int looks) {
  Target target;
  for (int i = 0; i <= looks; ++i) target.values.push_back(curve.value(static_cast<double>(i) / looks));
  return target;
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

BezierFit fit_bezier(const Curve& curve) {
  if (const auto* bezier = std::get_if<CubicBezier>(&curve.kind())) return {*bezier, 0.0};
  if (std::holds_alternative<Curve::Linear>(curve.kind())) return {};
  Target coarse = looked_at(curve, 100);
  const Target fine = looked_at(curve, 2000);
  BezierFit best{CubicBezier(0, 0, 1, 1), largest_error({0, 0, 1, 1}, fine)};
  std::vector<Start> starts{{0.25, 0.25, 0.75, 0.75}, {0.2, 0.8, 0.2, 1.0}, {0.8, 0.0, 0.8, 0.2},
                            {0.7, 0.0, 0.3, 1.0},     {0.2, 1.2, 0.4, 1.0}, {0.6, 0.0, 0.8, -0.3}};
  // The cubic with the same ends and end slopes, which is the curve itself if that is a cubic.
  const double first = curve.slope(0.0) / 3.0;
  const double last = 1.0 - curve.slope(1.0) / 3.0;
  if (std::fabs(first) < 20.0 && std::fabs(last) < 20.0) starts.push_back({1.0 / 3, first, 2.0 / 3, last});
  const auto better = [&](const Start& x) {
    // Rounded as it is written, so that the error told is that of the text.
    const auto rounded = [](double number) { return std::round(number * 1e5) / 1e5; };
    const CubicBezier bezier{rounded(x[0]), rounded(x[1]), rounded(x[2]), rounded(x[3])};
    const double error = largest_error(bezier, fine);
    if (error < best.error) best = {bezier, error};
  };
  // Squares first, since they are smooth; from there the largest difference.
  for (const Start& start : starts) {
    better(start);
    better(searched(worst_off, coarse, searched(squares_off, coarse, start, 0.1), 0.02));
  }
  return best;
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

std::string css_timing(const Passage& passage, std::string_view easing, double velocity) {
  std::string text = fmt::format("{}ms {}", css_number(to_ms(duration_of(passage.way, velocity)), 3), easing);
  if (passage.delay != Micros{0}) text += fmt::format(" {}ms", css_number(to_ms(passage.delay), 3));
  if (passage.runs <= Passage::endless) text += " infinite";
  if (passage.runs > 1) text += fmt::format(" {}", passage.runs);
  if (passage.alternate) text += " alternate";
  return text;
}

}  // namespace ubbo::io
