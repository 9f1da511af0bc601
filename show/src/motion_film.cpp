#include "ubbo/show/motion_film.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "ubbo/motion/mover.hpp"

namespace ubbo::show {

namespace {

using skin::Align;
using skin::Picture;
using skin::Text;

void write(Picture& page, Point at, std::string text, double size, const Colour& colour,
           Align align = Align::left, bool bold = false) {
  page.emplace_back(Text{at, std::move(text), size, colour, align, bold});
}

struct Step {
  Micros time;
  MotionState state;
};

struct Flown {
  std::vector<Step> steps;  // a millisecond apart
  double min = 0.0;
  double max = 0.0;
};

Flown fly(const Throw& thrown, const Transition& transition) {
  Mover mover(thrown.from);
  mover.send(0.0, transition, Micros{0}, thrown.velocity);
  Flown flown;
  for (Micros now{0};; now += Micros{1000}) {
    mover.advance(now);
    flown.steps.push_back({now, {mover.value(), mover.velocity()}});
    flown.min = std::min(flown.min, mover.value());
    flown.max = std::max(flown.max, mover.value());
    if (!mover.moving() || now > Micros{10'000'000}) break;
  }
  return flown;
}

}  // namespace

Picture thrown_cards(const Throw& thrown, double width, double height, const skin::CombColours& colours) {
  constexpr double edge = 24.0;
  constexpr double card_w = 150.0;
  Picture page;
  page.emplace_back(skin::paper({0, 0, width, height}, 0.0, {.fill = colours.paper}));
  write(page, {edge, 34}, thrown.title, 20, colours.ink, Align::left, true);
  write(page, {edge, 58},
        "let go " + fmt::format("{:.0f} dp", thrown.from) + " from its place at " +
            fmt::format("{:.0f} dp/s", thrown.velocity) + "; one card every " +
            fmt::format("{:.0f} ms", to_ms(thrown.every)) +
            ", the latest solid; beads: the upper row going out, the lower "
            "one coming back, heather first, honey last",
        13.5, colours.ink.with_alpha(0.75));
  std::vector<Flown> flights;
  double min = 0.0;
  double max = 0.0;
  for (const NamedTransition& way : thrown.ways) {
    flights.push_back(fly(thrown, way.transition));
    min = std::min(min, flights.back().min);
    max = std::max(max, flights.back().max);
  }
  const double scale = (width - 2 * edge - card_w) / std::max(max - min, 1.0);
  const double lane = (height - 76.0 - 16.0) / static_cast<double>(flights.size());
  for (std::size_t i = 0; i < flights.size(); ++i) {
    const Flown& flown = flights[i];
    const double top = 76.0 + lane * static_cast<double>(i);
    const double card_h = std::min(84.0, lane - 62.0);
    const double y = top + 36.0;
    const auto x_of = [&](double value) { return edge + (value - min) * scale; };
    write(page, {edge, top + 20}, thrown.ways[i].name, 14.5, colours.ink, Align::left, true);
    const double lasts = to_ms(flown.steps.back().time);
    const double beyond = -flown.min;
    write(page, {width - edge, top + 20},
          fmt::format("at rest after {:.0f} ms", lasts) + ", out to " + fmt::format("{:.0f} dp", flown.max) +
              (beyond > 0.5 ? ", " + fmt::format("{:.0f} dp past its place", beyond)
                            : ", never past its place"),
          13, colours.ink.with_alpha(0.8), Align::right);
    // Its place.
    page.emplace_back(skin::paper({x_of(0.0), y, card_w, card_h}, 16.0,
                                  {.stroke = colours.moss, .width = 1.6, .dash = 4.0}));
    const auto every = static_cast<std::size_t>(std::max<std::int64_t>(1, thrown.every.count() / 1000));
    const std::size_t shown = (flown.steps.size() - 1) / every + 1;
    for (std::size_t n = 0; n <= shown; ++n) {
      const bool last = n == shown;
      const Step& step = flown.steps[std::min(n * every, flown.steps.size() - 1)];
      const double age = static_cast<double>(n) / static_cast<double>(shown);
      const Box box{x_of(step.state.value), y, card_w, card_h};
      page.emplace_back(
          skin::paper(box, 16.0,
                      {.fill = last ? colours.paper
                                    : mix(colours.paper, colours.honey, 0.35).with_alpha(0.10 + 0.25 * age),
                       .stroke = colours.ink.with_alpha(last ? 1.0 : 0.12 + 0.3 * age),
                       .width = last ? 2.0 : 1.0}));
      // A bead at the card's corner marks each moment; out and back do not lie on one another.
      const bool back = (step.state.value > 0.0) != (step.state.velocity > 0.0) || last;
      page.emplace_back(skin::Disc{{box.x, y + card_h + (back ? 20.0 : 10.0)},
                                   2.6,
                                   {.fill = mix(colours.heather, colours.honey, age)}});
      if (last) {
        page.emplace_back(skin::hexagon({box.x + 24.0, y + card_h / 2}, 12.0,
                                        {.fill = colours.honey, .stroke = colours.ink, .width = 1.6}));
        write(page, {box.x + 46.0, y + card_h / 2 + 5.0}, thrown.card, 14, colours.ink, Align::left, true);
      }
    }
    if (i + 1 < flights.size())
      page.emplace_back(skin::line({edge, top + lane - 2}, {width - edge, top + lane - 2},
                                   colours.ink.with_alpha(0.12), 1));
  }
  return page;
}

Picture rows_coming_in(const RowsIn& list, const Timeline& timeline, double width, double height,
                       const skin::CombColours& colours) {
  constexpr double edge = 24.0;
  constexpr double gap = 14.0;
  Picture page;
  page.emplace_back(skin::paper({0, 0, width, height}, 0.0, {.fill = colours.paper}));
  write(page, {edge, 34}, list.title, 20, colours.ink, Align::left, true);
  write(page, {edge, 58}, list.subtitle, 13.5, colours.ink.with_alpha(0.75));
  const int frames = std::max(2, list.frames);
  const double frame_w = (width - 2 * edge - gap * (frames - 1)) / frames;
  const double chart_h = 150.0;
  const double frame_h = height - 100.0 - chart_h - 56.0;
  const double scale = frame_w / 360.0;
  const auto frame_time = [&](int f) { return timeline.length() * f / (frames - 1); };
  const auto colour_of = [&](std::size_t row) {
    const double fraction =
        list.rows.size() < 2 ? 0.0 : static_cast<double>(row) / static_cast<double>(list.rows.size() - 1);
    return mix(colours.heather, colours.honey, fraction);
  };
  const double row_h = frame_h / (static_cast<double>(list.rows.size()) + 0.4);
  for (int f = 0; f < frames; ++f) {
    const Micros time = frame_time(f);
    const Box screen{edge + (frame_w + gap) * f, 96.0, frame_w, frame_h};
    write(page, {screen.x, 88}, fmt::format("{:.0f} ms", to_ms(time)), 13, colours.ink, Align::left, true);
    Picture inside;
    for (std::size_t row = 0; row < list.rows.size(); ++row) {
      const double x = timeline.at(timeline.find(list.rows[row] + ".x"), time).value * scale;
      const double opacity =
          std::clamp(timeline.at(timeline.find(list.rows[row] + ".opacity"), time).value, 0.0, 1.0);
      if (opacity <= 0.0) continue;
      const Box box{screen.x + 8.0 + x, screen.y + 8.0 + row_h * static_cast<double>(row), frame_w - 16.0,
                    row_h - 8.0};
      Picture one;
      one.emplace_back(skin::paper(box, 10.0,
                                   {.fill = mix(colours.paper, colours.honey, 0.12),
                                    .stroke = colours.ink.with_alpha(0.55),
                                    .width = 1.2}));
      one.emplace_back(skin::hexagon({box.x + 20.0, box.y + box.h / 2}, 9.0,
                                     {.fill = colour_of(row), .stroke = colours.ink, .width = 1.2}));
      write(one, {box.x + 38.0, box.y + box.h / 2 + 4.5}, list.rows[row], 12.5, colours.ink, Align::left,
            true);
      inside.emplace_back(skin::Group{.shapes = std::move(one), .opacity = opacity});
    }
    page.emplace_back(skin::Group{.shapes = std::move(inside), .clip = screen});
    page.emplace_back(skin::paper(screen, 0.0, {.stroke = colours.ink.with_alpha(0.5), .width = 1.4}));
  }
  // When each row is under way: from the first moment at which it moves to the last.
  const double left = edge + 90.0;
  const double right = width - edge;
  const double top = height - chart_h - 22.0;
  const double whole = std::max(to_ms(timeline.length()), 1.0);
  const double line_h = (chart_h - 24.0) / static_cast<double>(std::max<std::size_t>(1, list.rows.size()));
  write(page, {edge, top - 8.0}, "distance from its place, row by row", 13, colours.ink, Align::left, true);
  for (std::size_t row = 0; row < list.rows.size(); ++row) {
    const Timeline::Track track = timeline.find(list.rows[row] + ".x");
    const double far = timeline.at(track, Micros{0}).value;
    const double base = top + line_h * static_cast<double>(row + 1) - 3.0;
    skin::Path area{.points = {}, .closed = true, .ink = {.fill = colour_of(row).with_alpha(0.75)}};
    area.points.push_back({left, base});
    for (int i = 0; i <= 400; ++i) {
      const double value = timeline.at(track, timeline.length() * i / 400).value;
      const double fraction = far == 0.0 ? 0.0 : std::clamp(value / far, 0.0, 1.0);
      area.points.push_back({left + (right - left) * i / 400.0, base - fraction * (line_h - 5.0)});
    }
    area.points.push_back({right, base});
    page.emplace_back(std::move(area));
    page.emplace_back(skin::line({left, base}, {right, base}, colours.ink.with_alpha(0.25), 1.0));
    write(page, {edge, base}, list.rows[row], 12, colours.ink);
  }
  for (int f = 0; f < frames; ++f) {
    const double x = left + (right - left) * to_ms(frame_time(f)) / whole;
    page.emplace_back(skin::line({x, top}, {x, height - 40.0}, colours.ink.with_alpha(0.35), 1.0, 3.0));
    write(page, {x, height - 22.0}, fmt::format("{:.0f} ms", to_ms(frame_time(f))), 12,
          colours.ink.with_alpha(0.8),
          f == 0            ? Align::left
          : f + 1 == frames ? Align::right
                            : Align::centre);
  }
  return page;
}

}  // namespace ubbo::show
