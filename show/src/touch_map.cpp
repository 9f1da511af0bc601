#include "ubbo/show/touch_map.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

#include "page.hpp"

namespace ubbo::show {

namespace {

struct Way {
  std::vector<Sample> samples;
  Colour colour;
};

// One way a contact, in the order in which they went down.
std::vector<Way> ways_of(const std::vector<Sample>& samples, const skin::CombColours& colours) {
  const std::array palette{colours.heather, colours.moss, colours.brick, colours.honey};
  std::vector<Way> ways;
  std::map<std::pair<int, int>, std::size_t> open;
  constexpr std::size_t max_samples = 40'000;  // more would not be seen
  const std::size_t step = samples.size() / max_samples + 1;
  std::size_t seen = 0;
  for (const Sample& sample : samples) {
    if (sample.phase == Phase::move && seen++ % step != 0) continue;
    const std::pair key{sample.device, sample.contact};
    if (sample.phase == Phase::down && !open.contains(key)) {
      ways.push_back({{}, palette[open.size() % palette.size()]});
      open[key] = ways.size() - 1;
    }
    if (!open.contains(key)) continue;
    ways[open[key]].samples.push_back(sample);
    if (sample.phase == Phase::up || sample.phase == Phase::cancel) open.erase(key);
  }
  return ways;
}

// Where lines run, in squares of a few pixels, so that words find a place beside them.
class Lines {
 public:
  Lines(double width, double height)
      : columns_(static_cast<std::size_t>(width / square) + 1),
        rows_(static_cast<std::size_t>(height / square) + 1),
        taken_(columns_ * rows_) {}

  void add(Point from, Point to) {
    const int steps = static_cast<int>(length(to - from) / (square / 2)) + 1;
    for (int i = 0; i <= steps; ++i) {
      const Point at = from + (to - from) * (static_cast<double>(i) / steps);
      if (at.x >= 0.0 && at.y >= 0.0) add({at.x, at.y, 0.0, 0.0});
    }
  }
  void add(const Box& box) {
    each(box, [&](std::size_t at) {
      taken_[at] = true;
      return true;
    });
  }
  [[nodiscard]] bool clear(const Box& box) const {
    return each(box, [&](std::size_t at) { return !taken_[at]; });
  }

 private:
  static constexpr double square = 4.0;
  static std::size_t index(double place) { return static_cast<std::size_t>(std::max(place, 0.0) / square); }

  // Asks all squares of a box, as long as it is told yes.
  template <class F>
  bool each(const Box& box, const F& ask) const {
    for (std::size_t y = index(box.y); y <= std::min(index(box.bottom()), rows_ - 1); ++y)
      for (std::size_t x = index(box.x); x <= std::min(index(box.right()), columns_ - 1); ++x)
        if (!ask(y * columns_ + x)) return false;
    return true;
  }

  std::size_t columns_;
  std::size_t rows_;
  std::vector<bool> taken_;
};

class Map : private Page {
 public:
  Map(const TouchMap& map, double width, double height, const skin::Measure& measure,
      const skin::CombColours& colours)
      : Page(width, height, measure, colours),
        map_(map),
        ways_(ways_of(map.samples, colours)),
        lines_(width, height) {}

  Picture make() {
    write({20, 32}, map_.title, 20, colours_.ink, Align::left, true);
    add_screen();
    add_bars();
    return std::move(page_);
  }

 private:
  [[nodiscard]] Point on_page(Point at) const { return origin_ + at * scale_; }

  void add_screen() {
    const double top = 52;
    const double room_h = height_ - top - 20;
    const double room_w = width_ * 0.46 - 20;
    scale_ = std::min(room_w / map_.screen.w, room_h / map_.screen.h);
    origin_ = {20.0 - map_.screen.x * scale_, top - map_.screen.y * scale_};
    screen_right_ = 20 + map_.screen.w * scale_;
    page_.emplace_back(skin::paper(
        {20, top, map_.screen.w * scale_, map_.screen.h * scale_}, 14,
        {.fill = colours_.ink.with_alpha(0.03), .stroke = colours_.ink.with_alpha(0.5), .width = 1.4}));
    for (const Way& way : ways_) add_way(way);
    for (const TouchMiss& miss : map_.misses)
      if (const auto [before, after] = context(miss); before != nullptr) {
        const Point from = on_page(before->samples.front().at);
        const Point to = on_page(after->samples.front().at);
        page_.emplace_back(skin::line(from, to, colours_.brick, 1.6, 4.0));
        lines_.add(from, to);
      }
    std::vector<const TouchMark*> named;
    for (const TouchMark& mark : map_.marks) {
      const bool blank = mark.words.find_first_not_of(' ') == std::string::npos;
      if (!blank && add_sign(mark)) named.push_back(&mark);
    }
    constexpr std::size_t max_words = 40;  // more of them would hide each other and the ways
    named.resize(std::min(named.size(), max_words));
    for (const TouchMark* mark : named) add_words(*mark);
  }

  void add_way(const Way& way) {
    constexpr double tick_ms = 50.0;
    double next_tick = tick_ms;
    const auto& s = way.samples;
    for (std::size_t i = 1; i < s.size(); ++i) {
      const double seconds = std::max(to_seconds(s[i].time - s[i - 1].time), 1e-4);
      const double speed = length(s[i].at - s[i - 1].at) / seconds;
      // A slow finger presses a broad line, a fast one draws a thin one.
      const double wide = std::clamp(7.0 - 1.6 * std::log10(1.0 + speed / 20.0) * 2.0, 1.4, 7.0);
      page_.emplace_back(
          skin::line(on_page(s[i - 1].at), on_page(s[i].at), way.colour.with_alpha(0.85), wide));
      lines_.add(on_page(s[i - 1].at), on_page(s[i].at));
      const double age = to_ms(s[i].time - s[0].time);
      if (age < next_tick) continue;
      next_tick = (std::floor(age / tick_ms) + 1) * tick_ms;
      const Point along_way = s[i].at - s[i - 1].at;
      if (length(along_way) < 1.0) continue;
      const Point side = Point{-along_way.y, along_way.x} * (7.0 / length(along_way));
      page_.emplace_back(
          skin::line(on_page(s[i].at) - side, on_page(s[i].at) + side, colours_.ink.with_alpha(0.7), 1.2));
    }
    if (s.empty()) return;
    page_.emplace_back(
        skin::Disc{on_page(s.front().at), 5, {.fill = colours_.paper, .stroke = way.colour, .width = 2.4}});
    page_.emplace_back(skin::Disc{on_page(s.back().at), 4, {.fill = way.colour}});
  }

  // The contact that a miss is about, and the one before it.
  [[nodiscard]] std::pair<const Way*, const Way*> context(const TouchMiss& miss) const {
    const Way* before = nullptr;
    for (const Way& way : ways_) {
      if (way.samples.front().time == miss.time) return {before, before == nullptr ? nullptr : &way};
      if (way.samples.back().time <= miss.time) before = &way;
    }
    return {nullptr, nullptr};
  }

  // The sign of a tap or a long press; others have none.
  bool add_sign(const TouchMark& mark) {
    const Point at = on_page(mark.at);
    const bool tap = mark.words.find("tap") != std::string::npos;
    const bool press = mark.words.find("press") != std::string::npos;
    if (tap) page_.emplace_back(skin::Disc{at, 16, {.stroke = colours_.ink, .width = 1.6}});
    if (press) page_.emplace_back(skin::hexagon(at, 20, {.stroke = colours_.ink, .width = 1.6}));
    if (tap || press) lines_.add(Box{at.x - 16, at.y - 16, 32, 32});
    return tap || press;
  }

  // Beside the sign, at the nearest place that no line and no other words have.
  void add_words(const TouchMark& mark) {
    constexpr double high = 16.0;
    const Point at = on_page(mark.at);
    const double wide = width_of(mark.words, 13, true);
    const auto box_at = [&](bool left, double down) {
      return Box{left ? at.x - 24 - wide : at.x + 24, at.y + down - high / 2, wide, high};
    };
    const bool no_room = at.x + 24 + wide > screen_right_ - 8;
    Box place = box_at(no_room, 0.0);
    [&] {
      for (const double down : {0.0, -18.0, 18.0, -32.0, 32.0, -48.0, 48.0})
        for (const bool left : {no_room, !no_room}) {
          const Box box = box_at(left, down);
          const bool inside =
              box.x > 24 && box.right() < screen_right_ - 4 && box.y > 56 && box.bottom() < height_ - 24;
          if (!inside || !lines_.clear(box)) continue;
          place = box;
          return;
        }
    }();
    lines_.add(place);
    write({place.x, place.y + high * 0.75}, mark.words, 13, colours_.ink, Align::left, true);
  }

  void add_bars() {
    const double left = std::max(screen_right_ + 40, width_ * 0.36);
    const double right = width_ - 30;
    Micros begin = never;
    Micros end = -never;
    for (const Sample& sample : map_.samples) {
      begin = std::min(begin, sample.time);
      end = std::max(end, sample.time);
    }
    for (const TouchMark& mark : map_.marks) end = std::max(end, mark.time);
    if (map_.samples.empty()) return;
    const double whole = std::max(to_ms(end - begin), 1.0);
    const auto x_of = [&](Micros time) { return left + (right - left) * to_ms(time - begin) / whole; };

    write({left, 72}, "contacts over time, and what they were taken for", 14, colours_.ink, Align::left,
          true);
    const double step = nice_step(whole / 8);
    double y = 104;
    const double row = std::clamp(
        (height_ * 0.6 - 104) / static_cast<double>(ways_.size() + map_.marks.size() + 1), 15.0, 34.0);
    const double bottom =
        std::min(y + row * static_cast<double>(ways_.size() + map_.marks.size() + 1) + 10, height_ - 130);
    for (double t = 0; t <= whole + 1e-6; t += step) {
      const double x = left + (right - left) * t / whole;
      page_.emplace_back(skin::line({x, 92}, {x, bottom}, colours_.ink.with_alpha(0.13), 1));
      write({x, bottom + 16}, fmt::format("{:.0f} ms", t), 11.5, colours_.ink.with_alpha(0.75),
            x > right - 20 ? Align::right : Align::centre);
    }
    std::map<const Way*, double> heights;
    for (const Way& way : ways_) {
      if (y > bottom - row) break;
      heights[&way] = y + row * 0.275;
      const double x = x_of(way.samples.front().time);
      page_.emplace_back(skin::paper({x, y, std::max(x_of(way.samples.back().time) - x, 3.0), row * 0.55}, 0,
                                     {.fill = way.colour}));
      y += row;
    }
    for (const TouchMiss& miss : map_.misses) {
      const auto [before, after] = context(miss);
      if (before == nullptr || !heights.contains(before) || !heights.contains(after)) continue;
      const double from = x_of(before->samples.back().time);
      const double to = x_of(miss.time);
      const double at = heights[before];
      page_.emplace_back(skin::line({from + 3, at}, {to, at}, colours_.brick, 1.6, 4.0));
      page_.emplace_back(skin::line({to, at}, {to, heights[after] - row * 0.28}, colours_.brick, 1.6, 4.0));
      const double wide = measure_({.at = {}, .words = miss.words, .size = 12.5, .bold = true});
      const bool before_it = to + 8 + wide > right;
      write({before_it ? to - 8 : to + 8, at + (before_it ? -6 : 4)}, miss.words, 12.5, colours_.brick,
            before_it ? Align::right : Align::left, true);
    }
    y += row * 0.4;
    for (const TouchMark& mark : map_.marks) {
      if (y > bottom - row * 0.4) break;
      const double x = x_of(mark.began);
      const double to = x_of(mark.time);
      page_.emplace_back(skin::line({x, y + 5}, {to, y + 5}, colours_.ink, 1.6));
      page_.emplace_back(skin::Path{
          {{to, y}, {to + 5, y + 5}, {to, y + 10}, {to - 5, y + 5}}, true, {.fill = colours_.ink}});
      const double wide = measure_(
          {.at = {}, .words = mark.words, .size = 13, .colour = {}, .align = Align::left, .bold = true});
      const bool before = to + 12 + wide > right;
      write({before ? x - 10 : to + 12, y + 10}, mark.words, 13, colours_.ink,
            before ? Align::right : Align::left, true);
      y += row;
    }
    add_notes(left, right, bottom + 52);
    add_legend(left);
  }

  // Why, sentence by sentence, broken where the page ends.
  void add_notes(double left, double right, double y) {
    if (map_.notes.empty()) return;
    constexpr double line = 18.0;
    constexpr double beside = 74.0;  // room for the time
    const double last = height_ - 118;
    if (y + 2 * line > last) return;
    write({left, y}, "why", 14, colours_.ink, Align::left, true);
    y += 22;
    for (std::size_t i = 0; i < map_.notes.size(); ++i) {
      const TouchNote& note = map_.notes[i];
      const auto lines = skin::wrapped(note.words, 12.5, right - left - beside, measure_);
      // Below every note but the last there is room left to say how many more there are.
      const std::size_t needed = lines.size() - (i + 1 == map_.notes.size() ? 1 : 0);
      if (y + 4 + line * static_cast<double>(needed) > last) {
        const std::size_t left_out = map_.notes.size() - i;
        write({left + beside, y}, "and " + std::to_string(left_out) + " more", 12.5,
              colours_.ink.with_alpha(0.75));
        return;
      }
      write({left + beside - 12, y}, fmt::format("{:.1f} ms", to_ms(note.time)), 12.5,
            colours_.ink.with_alpha(0.75), Align::right);
      for (const std::string& part : lines) {
        write({left + beside, y}, part, 12.5, colours_.ink);
        y += line;
      }
      y += 4;
    }
  }

  static double nice_step(double min) {
    double step = 1;
    while (step < min) {
      for (const double k : {2.0, 2.5, 2.0}) {
        step *= k;
        if (step >= min) break;
      }
    }
    return step;
  }

  void add_legend(double left) {
    double y = height_ - 88;
    const auto entry = [&](const std::string& words, auto&& draw) {
      draw(Point{left + 14, y});
      write({left + 44, y + 5}, words, 12.5, colours_.ink);
      y += 23;
    };
    entry("where a contact went down, and where it ended", [&](Point at) {
      page_.emplace_back(skin::line(at - Point{12, 0}, at + Point{14, 0}, colours_.heather, 4));
      page_.emplace_back(skin::Disc{
          at - Point{12, 0}, 5, {.fill = colours_.paper, .stroke = colours_.heather, .width = 2.4}});
      page_.emplace_back(skin::Disc{at + Point{14, 0}, 4, {.fill = colours_.heather}});
    });
    entry("broad where slow, thin where fast; a tick each 50 ms", [&](Point at) {
      page_.emplace_back(skin::line(at - Point{14, 0}, at, colours_.heather, 7));
      page_.emplace_back(skin::line(at, at + Point{16, 0}, colours_.heather, 1.6));
      page_.emplace_back(skin::line(at - Point{0, 7}, at + Point{0, 7}, colours_.ink.with_alpha(0.7), 1.2));
    });
    entry("a tap; a long press", [&](Point at) {
      page_.emplace_back(skin::Disc{at - Point{9, 0}, 8, {.stroke = colours_.ink, .width = 1.6}});
      page_.emplace_back(skin::hexagon(at + Point{12, 0}, 10, {.stroke = colours_.ink, .width = 1.6}));
    });
  }

  const TouchMap& map_;
  std::vector<Way> ways_;
  Point origin_{};
  double scale_ = 1.0;
  double screen_right_ = 0.0;
  Lines lines_;
};

}  // namespace

Picture touch_map(const TouchMap& map, double width, double height, const skin::Measure& measure,
                  const skin::CombColours& colours) {
  return Map(map, width, height, measure, colours).make();
}

}  // namespace ubbo::show
