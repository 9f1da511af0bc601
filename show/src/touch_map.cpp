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

class Map : private Page {
 public:
  Map(const TouchMap& map, double width, double height, const skin::Measure& measure,
      const skin::CombColours& colours)
      : Page(width, height, measure, colours), map_(map), ways_(ways_of(map.samples, colours)) {}

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
      if (const auto [before, after] = context(miss); before != nullptr)
        page_.emplace_back(skin::line(on_page(before->samples.front().at), on_page(after->samples.front().at),
                                      colours_.brick, 1.6, 4.0));
    for (const TouchMark& mark : map_.marks)
      if (std::any_of(mark.words.begin(), mark.words.end(), [](char c) { return c != ' '; })) add_mark(mark);
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

  void add_mark(const TouchMark& mark) {
    const Point at = on_page(mark.at);
    const bool tap = mark.words.find("tap") != std::string::npos;
    const bool press = mark.words.find("press") != std::string::npos;
    if (tap) page_.emplace_back(skin::Disc{at, 16, {.stroke = colours_.ink, .width = 1.6}});
    if (press) page_.emplace_back(skin::hexagon(at, 20, {.stroke = colours_.ink, .width = 1.6}));
    if (!tap && !press) return;
    constexpr std::size_t max_words = 40;  // more of them would hide each other and the ways
    if (taken_.size() >= max_words) return;
    const double wide = measure_(
        {.at = {}, .words = mark.words, .size = 13, .colour = {}, .align = Align::left, .bold = true});
    const bool left = at.x + 24 + wide > screen_right_ - 8;
    const double y = free_line(at.y + (map_.misses.empty() ? 5 : 30));  // beside the line of a miss
    write({left ? at.x - 24 : at.x + 24, y}, mark.words, 13, colours_.ink, left ? Align::right : Align::left,
          true);
  }

  // A height at which no mark is written yet.
  double free_line(double wanted) {
    while (std::any_of(taken_.begin(), taken_.end(), [&](double y) { return std::fabs(y - wanted) < 16; }))
      wanted += 16;
    taken_.push_back(wanted);
    return wanted;
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
  std::vector<double> taken_;
};

}  // namespace

Picture touch_map(const TouchMap& map, double width, double height, const skin::Measure& measure,
                  const skin::CombColours& colours) {
  return Map(map, width, height, measure, colours).make();
}

}  // namespace ubbo::show
