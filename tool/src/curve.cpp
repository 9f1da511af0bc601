#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <cstdio>
#include <memory>

#include "commands.hpp"
#include "say.hpp"
#include "ubbo/io/motion/curve_report.hpp"
#include "ubbo/io/motion/motion_tokens.hpp"
#include "ubbo/paint/graph.hpp"

namespace ubbo::tool {

namespace {

struct CurveOrder {
  std::vector<std::string> specs;
  std::vector<std::string> at;
  io::CurveOrder curves;
  double duration_ms = 300.0;
  double error = 0.002;
  std::string out;
  std::string size = "1280x800";
  bool samples = false;
  bool css = false;
  bool json = false;
  bool dark = false;
};

// "0.5", "100ms", "1.5s"
void look_at(io::CurveOrder& curves, const std::string& text) {
  double number = 0.0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), number);
  const std::string_view unit(end, static_cast<std::size_t>(text.data() + text.size() - end));
  const bool time = unit == "ms" || unit == "s";
  if (error != std::errc{} || !(time || unit.empty()) || !(std::fabs(number) <= 1e6) ||
      (time && number < 0.0))
    throw std::invalid_argument(
        fmt::format("--at {}: takes a time such as 100ms or 0.1s, or a number such as 0.5", text));
  if (time)
    curves.at_times.push_back(from_ms(unit == "s" ? number * 1e3 : number));
  else
    curves.at.push_back(number);
}

// All that one spec shows: the value and the speed over time, delay and runs included.
struct Drawn {
  show::Line value;
  show::Line speed;
  double ends_ms = 0.0;
};

Drawn draw(const io::CurveOrder& order, const io::MotionSpec& spec, const Colour& colour) {
  constexpr int endless_shown = 3;
  Transition transition = spec.transition;
  if (transition.runs <= Transition::endless) transition.runs = endless_shown;
  Motion::Plan plan{.from = order.from,
                    .velocity = order.velocity,
                    .to = io::motion_of(order, spec).to(),
                    .begins = transition.delay};
  const Micros ends = Motion(plan, transition).ends();  // as the figures tell it
  plan.rest_floor = 1e-12;                              // but drawn without its last small step
  const Motion motion(plan, transition);
  Drawn drawn{{.name = spec.text, .points = {}, .colour = colour}, {.points = {}, .colour = colour}, 0.0};
  drawn.ends_ms = to_ms(ends);
  constexpr int looks = 1500;
  const double whole = static_cast<double>(ends.count());
  double last = motion.from();
  for (int i = 0; i <= looks; ++i) {
    const Micros time{std::llround(whole * i / looks)};
    const MotionState state = motion.at(time);
    // A jump is drawn upright.
    if (std::fabs(state.value - last) >
        0.04 * std::fabs(order.to - order.from) * std::max(1.0, 1500.0 / looks))
      drawn.value.points.emplace_back(to_ms(time), last);
    last = state.value;
    drawn.value.points.emplace_back(to_ms(time), state.value);
    if (i == looks) break;  // the last step onto the target has no speed
    drawn.speed.points.emplace_back(to_ms(time), state.velocity);
  }
  return drawn;
}

MotionFigures add_marks(show::Panel& panel, const io::CurveOrder& order, const io::MotionSpec& spec,
                        const Colour& colour) {
  const Motion motion = io::motion_of(order, spec);
  const MotionFigures figures = figures_of(motion);
  if (spec.transition.runs != 1) return figures;
  const double begins = to_ms(spec.transition.delay);
  using Form = show::Spot::Form;
  panel.spots.push_back({.x = begins, .y = order.from, .form = Form::ring, .colour = colour});
  panel.spots.push_back(
      {.x = begins + to_ms(figures.duration), .y = motion.to(), .form = Form::disc, .colour = colour});
  if (figures.settled > Micros{0} && figures.settled < figures.duration)
    panel.spots.push_back({.x = begins + to_ms(figures.settled),
                           .y = motion.at(figures.settled).value,
                           .form = Form::diamond,
                           .colour = colour});
  if (figures.overshoot < 0.002) return figures;
  // The highest point, found again on the motion itself.
  Micros highest{0};
  const double sign = motion.to() > motion.from() ? 1.0 : -1.0;
  for (int i = 0; i <= 2000; ++i) {
    const Micros time = figures.duration * i / 2000;
    if ((motion.at(time).value - motion.at(highest).value) * sign > 0.0) highest = time;
  }
  panel.spots.push_back({.x = begins + to_ms(highest),
                         .y = motion.at(highest).value,
                         .form = Form::ring,
                         .colour = colour,
                         .words = fmt::format("+{:.1f} %", figures.overshoot * 100.0)});
  return figures;
}

// Speeds beyond this many times the usual peak are cut off, so that an upright curve leaves something to see.
std::pair<double, double> speed_range(const std::vector<show::Line>& traces) {
  std::vector<double> all;
  for (const show::Line& trace : traces)
    for (const auto& [t, v] : trace.points)
      if (std::isfinite(v)) all.push_back(v);
  if (all.empty()) return {-1.0, 1.0};
  std::sort(all.begin(), all.end());
  const double low = std::min(0.0, all[all.size() / 400]);
  const double high = std::max(0.0, all[all.size() - 1 - all.size() / 400]);
  const double more = std::max(0.08 * (high - low), 1e-9);
  return {low - more, high + more};
}

}  // namespace

show::Graph curve_graph(const io::CurveOrder& order, const skin::CombColours& colours) {
  const auto palette = show::line_colours(colours);
  show::Panel values{.title = "value", .levels = {}, .fraction = 0.64};
  show::Panel speeds{.title = "speed, per second", .x_label = "ms", .fraction = 0.36};
  double ends = 1.0;
  for (std::size_t i = 0; i < order.specs.size(); ++i) {
    const Colour colour = palette[i % palette.size()];
    Drawn drawn = draw(order, order.specs[i], colour);
    drawn.value.dash = drawn.speed.dash = 1 + static_cast<int>(i % show::dashes);
    ends = std::max(ends, drawn.ends_ms);
    const MotionFigures figures = add_marks(values, order, order.specs[i], colour);
    drawn.value.name += fmt::format("   {:.0f} ms, 90 % after {:.0f} ms", to_ms(figures.duration),
                                    to_ms(figures.nine_tenths));
    values.lines.push_back(std::move(drawn.value));
    speeds.lines.push_back(std::move(drawn.speed));
  }
  for (show::Line& trace : values.lines)
    if (trace.points.back().first < ends) trace.points.emplace_back(ends, trace.points.back().second);
  values.levels = {{.at = order.from, .colour = colours.ink.with_alpha(0.5)},
                   {.at = order.to, .colour = colours.moss, .words = "target"}};
  values.x_from = speeds.x_from = -0.01 * ends;
  values.x_to = speeds.x_to = 1.02 * ends;
  values.x_numbers = false;
  speeds.levels = {{.at = 0.0, .colour = colours.ink.with_alpha(0.5)}};
  speeds.y_range = speed_range(speeds.lines);
  return {.title = order.specs.size() == 1 ? "One motion" : fmt::format("{} motions", order.specs.size()),
          .subtitle = fmt::format("from {:g} to {:g}{}; ring: start and highest point, diamond: from here on "
                                  "within 2 % of the way, disc: at rest",
                                  order.from, order.to,
                                  order.velocity == 0.0
                                      ? std::string()
                                      : fmt::format(", set off with {:g} per second", order.velocity)),
          .panels = {std::move(values), std::move(speeds)},
          .columns = 1,
          .legend_columns = order.specs.size() > 4 ? 2 : 1};
}

void add_curve(Verb app, int& exit, const Kit& kit) {
  auto order = std::make_shared<CurveOrder>();
  const Verb verb =
      app.add_verb("curve", "Look at easing curves, springs and coasts: figures, values, pictures");
  verb.add_option("SPEC", order->specs,
                  "motions (docs/formats/motion.md), each in quotes; NAME=MOTION names it in CSS")
      .required();
  verb.add_option("--samples", order->curves.samples,
                  "print this many even steps, both ends included, 1 to 100000")
      .between(1, 100'000)
      .when_given([order] { order->samples = true; });
  verb.add_option("--at", order->at,
                  "print at these moments instead: times such as 100ms, or a share of the time for curves "
                  "and seconds "
                  "for springs and coasts")
      .delimiter(',');
  verb.add_option("--from", order->curves.from, "where it starts").with_default();
  verb.add_option("--to", order->curves.to, "where it goes").with_default();
  verb.add_option("--velocity", order->curves.velocity,
                  "per second: what springs start with; a coast goes as far as it takes it")
      .with_default();
  verb.add_option("--duration", order->duration_ms, "ms for curves that do not say their time")
      .between(0.001, 3.6e6)
      .with_default();
  verb.add_flag("--json", order->json, "print JSON with samples (docs/formats/motion.md)");
  verb.add_flag("--css", order->css,
                "print CSS custom properties: linear() and cubic-bezier() with their errors, transitions, "
                "and none of it where people asked for less motion");
  verb.add_option("--error", order->error, "how far the linear() of --css may be off, as a share of the way")
      .between(1e-4, 1.0)
      .with_default();
  verb.add_option("-o,--out", order->out, "draw them into this file, .png or .svg");
  verb.add_option("--size", order->size, "width and height of the picture in pixels").with_default();
  verb.add_flag("--dark", order->dark, "dark colours");
  verb.footer(
      "Without --samples, --at, --json or --css it prints a table of the figures one compares.\n"
      "Example:  ubbo curve \"spring(settle 400ms, overshoot 5%)\" \"back(out) 400ms\" -o curves.png\n"
      "Example:  ubbo curve \"linear(0, 0.6 20%, 1)\" --json --at 0,0.1,100ms\n"
      "Example:  ubbo curve \"sheet.open=spring(settle 400ms, overshoot 5%)\" --css");
  verb.when_called([order, &exit, &kit] {
    std::vector<std::string> names;
    for (const std::string& text : order->specs) {
      const std::size_t equals = text.find('=');
      const bool named =
          equals != std::string::npos && is_token_name(std::string_view(text).substr(0, equals));
      names.push_back(named ? text.substr(0, equals) : fmt::format("motion-{}", names.size() + 1));
      order->curves.specs.push_back(io::read_motion(named ? text.substr(equals + 1) : text));
    }
    for (const std::string& text : order->at) look_at(order->curves, text);
    const io::CurveOrder curves = io::checked(order->curves, from_ms(order->duration_ms));
    const auto [width, height] = picture_size(order->size);
    if (!order->out.empty())
      paint::plot(curve_graph(curves, order->dark ? skin::dark : skin::day), width, height, order->out,
                  order->dark ? skin::dark : skin::day);
    if (order->json) {
      say("{}", io::curves_json(curves));
    } else if (order->css) {
      io::MotionTokens tokens;
      for (std::size_t i = 0; i < curves.specs.size(); ++i)
        tokens.motions.emplace_back(names[i], curves.specs[i]);
      say("{}",
          io::tokens_css(tokens, kit.fitter(), order->error, curves.velocity / (curves.to - curves.from)));
    } else if (order->samples || !order->at.empty()) {
      say("{}", io::samples_text(curves).substr(1));
    } else {
      say("{}", io::curves_text(curves));
    }
    if (!order->out.empty()) warn("wrote {}\n", order->out);
    exit = done;
  });
}

}  // namespace ubbo::tool
