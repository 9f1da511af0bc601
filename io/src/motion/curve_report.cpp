#include "ubbo/io/motion/curve_report.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <stdexcept>

#include "ubbo/io/text/json.hpp"

namespace ubbo::io {

namespace {

Json number(double value) { return std::isfinite(value) ? Json(value) : Json(nullptr); }

// Where a way ends: a coast that is given a velocity goes as far as that takes it.
double target_of(const CurveOrder& order, const Transition::Way& way) {
  const auto* coast = std::get_if<Coast>(&way);
  return coast != nullptr && order.velocity != 0.0 ? order.from + coast->distance(order.velocity) : order.to;
}

CurveSample sample(const CurveOrder& order, const Transition::Way& way, double t) {
  const double distance = target_of(order, way) - order.from;
  if (const auto* timed = std::get_if<Timed>(&way)) {
    double slope = timed->curve.slope(t);
    if (std::fabs(slope) >= upright_slope)
      slope = std::copysign(HUGE_VAL, slope);  // it stands upright: no number
    return {t, order.from + distance * timed->curve.value(t), distance * slope};
  }
  if (t < 0.0) return {t, order.from, 0.0};
  if (const auto* spring = std::get_if<Spring>(&way)) {
    const SpringState state = spring->at({-distance, order.velocity}, t);
    return {t, order.to + state.distance, state.velocity};
  }
  const Coast& coast = std::get<Coast>(way);
  const CoastState state = coast.at(coast.velocity_for(distance), t);
  return {t, order.from + state.distance, state.velocity};
}

std::string time_text(Micros time) { return fmt::format("{:.0f} ms", to_ms(time)); }

std::string speed_text(double speed) {
  return std::isfinite(speed) ? fmt::format("{:.4g}/s", speed) : "infinite";
}

// The motion in a row of bars over `whole`, the time that all rows share; the bars reach from 0 to past the
// target.
std::string bars(const Motion& motion, Micros whole) {
  constexpr std::array steps{"▁", "▂", "▃", "▄", "▅", "▆", "▇", "█"};
  constexpr int count = 32;
  std::string text;
  for (int i = 0; i < count; ++i) {
    const double value = motion.at(whole * i / (count - 1)).value;
    const double fraction = (value - motion.from()) / (motion.to() - motion.from());
    // The target is the sixth bar; the seventh and eighth are beyond it, a blank is before the start.
    const auto level = fraction > 1.15   ? 7L
                       : fraction > 1.02 ? 6L
                                         : std::min(5L, std::lround(fraction * 5.0));
    text += fraction < -0.02 ? " " : steps[static_cast<std::size_t>(std::max(0L, level))];
  }
  return text;
}

}  // namespace

CurveOrder checked(CurveOrder order, Micros duration) {
  if (!std::isfinite(order.from) || !std::isfinite(order.to) || order.from == order.to)
    throw std::invalid_argument(
        fmt::format("from {} to {} is no way; takes two numbers that differ", order.from, order.to));
  if (!std::isfinite(order.velocity)) throw std::invalid_argument("velocity: takes a finite number");
  bool takes_velocity = false;
  for (MotionSpec& spec : order.specs) {
    if (auto* timed = std::get_if<Timed>(&spec.transition.way); timed != nullptr && !spec.has_time)
      timed->duration = duration;
    takes_velocity = takes_velocity || !std::holds_alternative<Timed>(spec.transition.way);
  }
  const bool curves = std::any_of(order.specs.begin(), order.specs.end(), [](const MotionSpec& spec) {
    return std::holds_alternative<Timed>(spec.transition.way);
  });
  for (const double at : order.at)
    if (curves && !(at >= -1.0 && at <= 2.0))  // a whole length beyond either end is still of use
      throw std::invalid_argument(
          fmt::format("--at {}: of a curve it is a share of the time; takes 0 to 1, from -1 to 2 at most, or "
                      "a time such as {}ms",
                      at, at));
  if (order.velocity != 0.0 && !takes_velocity)
    throw std::invalid_argument("a velocity is for springs and coasts; a curve sets off with its own");
  return order;
}

Motion motion_of(const CurveOrder& order, const MotionSpec& spec) {
  Transition once = spec.transition;
  once.runs = 1;
  once.alternate = false;
  return Motion({.from = order.from,
                 .velocity = order.velocity,
                 .to = target_of(order, spec.transition.way),
                 .begins = Micros{0}},
                once);
}

std::vector<CurveSample> samples_of(const CurveOrder& order, const MotionSpec& spec) {
  std::vector<double> times = order.at;
  const auto* timed = std::get_if<Timed>(&spec.transition.way);
  for (const Micros time : order.at_times)
    times.push_back(to_seconds(time) / (timed == nullptr ? 1.0 : to_seconds(timed->duration)));
  if (times.empty()) {
    const bool curve = std::holds_alternative<Timed>(spec.transition.way);
    const double whole = curve ? 1.0 : to_seconds(motion_of(order, spec).ends());
    for (int i = 0; i <= order.samples; ++i) times.push_back(whole * i / order.samples);
  }
  std::vector<CurveSample> samples;
  samples.reserve(times.size());
  for (const double t : times) samples.push_back(sample(order, spec.transition.way, t));
  return samples;
}

std::string curves_text(const CurveOrder& order) {
  std::size_t widest = 4;
  Micros whole{1};
  for (const MotionSpec& spec : order.specs) {
    widest = std::max(widest, spec.text.size());
    whole = std::max(whole, motion_of(order, spec).ends());
  }
  std::string text =
      fmt::format("{:<{}}  {:>9} {:>11} {:>10} {:>12} {:>9} {:>9}  over {}\n", "", widest, "duration",
                  "within 2 %", "overshoot", "peak speed", "to 50 %", "to 90 %", time_text(whole));
  for (const MotionSpec& spec : order.specs) {
    const Motion motion = motion_of(order, spec);
    const MotionFigures figures = figures_of(motion);
    text += fmt::format("{:<{}}  {:>9} {:>11} {:>10} {:>12} {:>9} {:>9}  {}\n", spec.text, widest,
                        time_text(figures.duration), time_text(figures.settled),
                        fmt::format("{:.2f} %", figures.overshoot * 100.0), speed_text(figures.peak_speed),
                        time_text(figures.half), time_text(figures.nine_tenths), bars(motion, whole));
  }
  return text;
}

std::string samples_text(const CurveOrder& order) {
  std::string text;
  for (const MotionSpec& spec : order.specs) {
    const bool curve = std::holds_alternative<Timed>(spec.transition.way);
    text += fmt::format("\n{}\n{:>12} {:>14} {:>14}\n", spec.text, curve ? "progress" : "seconds", "value",
                        curve ? "slope" : "velocity");
    for (const CurveSample& one : samples_of(order, spec))
      text += fmt::format("{:>12.6g} {:>14.8g} {:>14.8g}\n", one.t, one.value, one.slope);
  }
  return text;
}

std::string curves_json(const CurveOrder& order) {
  Json curves = Json::array();
  for (const MotionSpec& spec : order.specs) {
    const MotionFigures figures = figures_of(motion_of(order, spec));
    Json samples = Json::array();
    for (const CurveSample& one : samples_of(order, spec))
      samples.push_back({{"t", one.t}, {"value", number(one.value)}, {"slope", number(one.slope)}});
    curves.push_back({{"spec", spec.text},
                      {"duration_ms", to_ms(figures.duration)},
                      {"figures",
                       {{"within_2_percent_ms", to_ms(figures.settled)},
                        {"overshoot", figures.overshoot},
                        {"undershoot", figures.undershoot},
                        {"peak_speed", number(figures.peak_speed)},
                        {"peak_at_ms", to_ms(figures.peak_at)},
                        {"to_50_ms", to_ms(figures.half)},
                        {"to_90_ms", to_ms(figures.nine_tenths)}}},
                      {"samples", std::move(samples)}});
  }
  return json_text(Json{{"curves", std::move(curves)}});
}

}  // namespace ubbo::io
