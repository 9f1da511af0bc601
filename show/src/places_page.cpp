#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "page.hpp"
#include "ubbo/show/places.hpp"

namespace ubbo::show {

namespace {

Box around_all(const Places& places, const PlacesOf& layer) {
  Box all = places.screen;
  for (const Stand& stand : layer.stands) {
    const double right = std::max(all.right(), stand.box.right());
    const double bottom = std::max(all.bottom(), stand.box.bottom());
    all.x = std::min(all.x, stand.box.x);
    all.y = std::min(all.y, stand.box.y);
    all.w = right - all.x;
    all.h = bottom - all.y;
  }
  return all;
}

class PlacesPage : private Page {
 public:
  PlacesPage(const Places& places, double width, double height, const skin::Measure& measure,
             const skin::CombColours& colours)
      : Page(width, height, measure, colours), places_(places) {}

  Picture make() {
    write({18, 32}, places_.title, 20, colours_.ink, Align::left, true);
    key();
    const auto count = std::max<std::size_t>(places_.layers.size(), 1);
    // As near to twice as high as wide as the page allows.
    std::size_t columns = 1;
    double best = 0.0;
    for (std::size_t c = 1; c <= count; ++c) {
      const auto rows = static_cast<double>((count + c - 1) / c);
      const double size = std::min(width_ / static_cast<double>(c), (height_ - 60.0) / rows * 0.5);
      if (size > best) {
        best = size;
        columns = c;
      }
    }
    const auto rows = static_cast<double>((count + columns - 1) / columns);
    const double w = (width_ - 18.0) / static_cast<double>(columns);
    const double h = (height_ - 62.0) / rows;
    for (const PlacesOf& layer : places_.layers)
      max_lines_ = std::max(max_lines_, skin::wrapped(layer.says, 12.5, w - 18.0, measure_).size());
    for (std::size_t i = 0; i < places_.layers.size(); ++i)
      panel(places_.layers[i], {18.0 + w * static_cast<double>(i % columns),
                                54.0 + h * static_cast<double>(i / columns), w - 18.0, h - 12.0});
    if (places_.layers.empty())
      write({18, 84}, "no part of this scene comes and goes", 15, colours_.ink, Align::left);
    return std::move(page_);
  }

 private:
  [[nodiscard]] Colour colour_of(StandAs as) const {
    return as == StandAs::start ? colours_.moss : as == StandAs::present ? colours_.heather : colours_.brick;
  }
  static double dash_of(StandAs as) {
    return as == StandAs::start ? 7.0 : as == StandAs::present ? 0.0 : 3.0;
  }

  void key() {
    double x = width_ - 18.0;
    for (const auto& [as, words] : {std::pair{StandAs::gone, "where it goes"},
                                    {StandAs::present, "where it is open"},
                                    {StandAs::start, "where it starts"}}) {
      write({x, 32}, words, 13, colours_.ink, Align::right);
      x -= measure_({.at = {}, .words = words, .size = 13}) + 10.0;
      page_.emplace_back(skin::paper({x - 22.0, 20.0, 22.0, 14.0}, 0.0,
                                     {.stroke = colour_of(as), .width = 2.0, .dash = dash_of(as)}));
      x -= 46.0;
    }
  }

  void panel(const PlacesOf& layer, const Box& cell) {
    write({cell.x, cell.y + 14.0}, layer.name, 15, colours_.ink, Align::left, true);
    double line = cell.y + 32.0;
    for (const std::string& words : skin::wrapped(layer.says, 12.5, cell.w, measure_)) {
      write({cell.x, line}, words, 12.5, colours_.ink.with_alpha(0.75), Align::left);
      line += 16.0;
    }
    const double above = above_panel();
    const Box view{cell.x, cell.y + above, cell.w, cell.h - above - 4.0};
    const Box all = around_all(places_, layer);
    const double scale = std::min(view.w / all.w, view.h / all.h) * 0.97;
    const Point move{view.centre().x - all.centre().x * scale, view.y - all.y * scale};
    const auto shown = [&](const Box& box) {
      return Box{move.x + box.x * scale, move.y + box.y * scale, box.w * scale, box.h * scale};
    };
    page_.emplace_back(skin::paper(shown(places_.screen), 10.0,
                                   {.fill = mix(colours_.paper, colours_.honey, 0.12),
                                    .stroke = colours_.ink.with_alpha(0.6),
                                    .width = 1.6}));
    for (const Box& other : places_.others)
      page_.emplace_back(
          skin::paper(shown(common(other, places_.screen)), 0.0, {.stroke = colours_.ink.with_alpha(0.14)}));
    const Box safe = inner(places_.screen, places_.safe);
    if (!(safe == places_.screen))
      page_.emplace_back(skin::paper(shown(safe), 0.0,
                                     {.stroke = colours_.ink.with_alpha(0.45), .width = 1.0, .dash = 2.0}));
    for (const Stand& stand : layer.stands) {
      const Colour colour = colour_of(stand.as);
      const Box box = shown(stand.box);
      page_.emplace_back(skin::paper(box, 0.0,
                                     {.fill = colour.with_alpha(stand.as == StandAs::present ? 0.14 : 0.05),
                                      .stroke = colour,
                                      .width = 2.0,
                                      .dash = dash_of(stand.as)}));
    }
    arrows(layer, shown, view);
    names(layer, shown);
  }

  // Each inside its box at the top; where boxes share that place, below one another.
  template <class Shown>
  void names(const PlacesOf& layer, const Shown& shown) {
    std::vector<Point> taken;
    for (const Stand& stand : layer.stands) {
      const Box box = shown(stand.box);
      Point at{box.x + 7.0, box.y + 16.0};
      const auto near = [&](const Point& other) {
        return std::fabs(other.x - at.x) < 60.0 && std::fabs(other.y - at.y) < 14.0;
      };
      while (std::any_of(taken.begin(), taken.end(), near)) at.y += 15.0;
      taken.push_back(at);
      label(at, stand.name, colour_of(stand.as));
    }
  }

  template <class Shown>
  void arrows(const PlacesOf& layer, const Shown& shown, const Box& view) {
    const auto here = std::find_if(layer.stands.begin(), layer.stands.end(),
                                   [](const Stand& one) { return one.as == StandAs::present; });
    if (here == layer.stands.end()) return;
    double aside = -apart * (static_cast<double>(layer.stands.size()) - 2.0) / 2.0;
    const Stand* before = nullptr;
    for (const Stand& stand : layer.stands) {
      if (stand.as == StandAs::start) before = &stand;
      const bool goes = stand.as == StandAs::gone;
      if (stand.as == StandAs::present && before != nullptr)
        arrow(shown(before->box).centre(), shown(stand.box).centre(),
              length(stand.box.centre() - before->box.centre()), colour_of(before->as), aside, view,
              shown(places_.screen));
      if (goes)
        arrow(shown(here->box).centre(), shown(stand.box).centre(),
              length(stand.box.centre() - here->box.centre()), colour_of(stand.as), aside, view,
              shown(places_.screen));
      if (stand.as == StandAs::present) before = &stand;
      aside += apart;
    }
  }

  void arrow(Point from, Point to, double far, const Colour& colour, double aside, const Box& view,
             const Box& screen) {
    if (length(to - from) < 3.0) return;
    const Point way = (to - from) * (1.0 / length(to - from));
    const Point across{way.y, -way.x};
    const Point by =
        (std::fabs(way.y) > std::fabs(way.x) ? Point{1.0, 0.0} : Point{0.0, 1.0}) * (aside - apart);
    from = from + by;
    to = to + by;
    page_.emplace_back(skin::line(from, to, colour, 2.0));
    constexpr double head = 8.0;
    skin::Path tip{{to, to - way * head + across * (head / 2), to - way * head - across * (head / 2)},
                   true,
                   {.fill = colour}};
    page_.emplace_back(std::move(tip));
    const bool upright = std::fabs(way.y) > std::fabs(way.x);
    const Point middle = (from + to) * 0.5;
    const std::string words = fmt::format("{:.0f} dp", far);
    const double wide = width_of(words, 12.0, true);
    Point at = upright ? Point{middle.x + 7.0, middle.y + 4.0} : Point{middle.x - wide / 2, middle.y - 9.0};
    // On the other side where it would lie across the screen's edge.
    if (upright && at.x < screen.right() && at.x + wide + 4.0 > screen.right()) at.x = middle.x - 7.0 - wide;
    label({std::min(at.x, view.right() - wide - 4.0), at.y}, words, colour);
  }

  // On a plate, so that no line runs through it.
  void label(Point at, const std::string& words, const Colour& colour) {
    const double wide = width_of(words, 12.0, true);
    page_.emplace_back(
        skin::paper({at.x - 3.0, at.y - 11.5, wide + 6.0, 15.0}, 0.0, {.fill = colours_.paper}));
    write(at, words, 12.0, colour, Align::left, true);
  }

  [[nodiscard]] double above_panel() const { return 24.0 + 16.0 * static_cast<double>(max_lines_); }

  static constexpr double apart = 50.0;  // px between arrows, with room for a distance

  std::size_t max_lines_ = 1;  // that a layer's words take
  const Places& places_;
};

}  // namespace

Picture places(const Places& places, double width, double height, const skin::Measure& measure,
               const skin::CombColours& colours) {
  return PlacesPage(places, width, height, measure, colours).make();
}

}  // namespace ubbo::show
