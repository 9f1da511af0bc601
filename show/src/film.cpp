#include "ubbo/show/film.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "film_marks.hpp"
#include "page.hpp"

namespace ubbo::show {

namespace {

constexpr double margin = 16.0;
constexpr double header = 62.0;
constexpr double footer = 66.0;
constexpr double caption_height = 26.0;
constexpr double caption_line = 18.0;  // added where captions need a line of their own
constexpr std::size_t max_lines = 2;
constexpr double gap = 10.0;
constexpr double min_text = 9.5;    // pixels
constexpr double min_scale = 0.12;  // a fingertip is then four pixels wide

std::string ms(Micros time) {
  constexpr Micros long_time = std::chrono::seconds(10);
  return time < long_time ? fmt::format("{:.0f} ms", to_ms(time)) : fmt::format("{:.1f} s", to_seconds(time));
}

struct Grid {
  std::size_t columns = 1;
  std::size_t rows = 1;
  double scale = 0.0;
};

// The number of columns that shows the region largest.
Grid best_grid(std::size_t count, double width, double height, const Box& region, double above) {
  Grid best;
  for (std::size_t columns = 1; columns <= count; ++columns) {
    const std::size_t rows = (count + columns - 1) / columns;
    const double w = (width + gap) / static_cast<double>(columns) - gap;
    const double h = (height + gap) / static_cast<double>(rows) - gap - above;
    const double scale = std::min(w / region.w, h / region.h);
    if (scale > best.scale) best = {columns, rows, scale};
  }
  best.scale = std::max(best.scale, 1e-3);
  return best;
}

class Film : private Page {
 public:
  Film(const FilmReel& reel, double width, double height, const skin::Measure& measure,
       const skin::CombColours& colours)
      : Page(width, height, measure, colours), reel_(reel), marks_(reel, colours) {}

  Picture make() {
    add_header();
    const Box area{margin, header, width_ - 2 * margin, height_ - header - footer};
    const std::size_t count = std::max<std::size_t>(reel_.frames.size(), 1);
    Grid grid = best_grid(count, area.w, area.h, reel_.region, above_);
    // Captions get lines of their own while that leaves something to see.
    while (lines_ < max_lines && !captions_fit((area.w + gap) / static_cast<double>(grid.columns) - gap)) {
      const Grid lower = best_grid(count, area.w, area.h, reel_.region, above_ + caption_line);
      if (lower.scale < min_scale || lower.scale < 0.7 * grid.scale) break;
      above_ += caption_line;
      ++lines_;
      grid = lower;
    }
    const double w = (area.w + gap) / static_cast<double>(grid.columns) - gap;
    const double h = (area.h + gap) / static_cast<double>(grid.rows) - gap;
    if (w < 70.0 || grid.scale < min_scale)
      throw std::invalid_argument("a film of " + std::to_string(count) + " frames cannot be read at " +
                                  std::to_string(static_cast<int>(width_)) + "x" +
                                  std::to_string(static_cast<int>(height_)) +
                                  "; takes a larger size or fewer frames");
    for (std::size_t i = 0; i < reel_.frames.size(); ++i) {
      const std::size_t row = i / grid.columns;
      const std::size_t column = i % grid.columns;
      add_frame(i,
                {area.x + static_cast<double>(column) * (w + gap),
                 area.y + static_cast<double>(row) * (h + gap), w, h},
                grid.scale);
    }
    add_timeline();
    return std::move(page_);
  }

 private:
  void add_header() {
    write({margin, 30.0}, reel_.title, 20.0, colours_.ink, Align::left, true);
    write({margin, 50.0}, reel_.subtitle, 12.5, colours_.ink.with_alpha(0.75));

    // The legend, laid from the right, as far as the title leaves room.
    double x = width_ - margin;
    const double title_ends = margin + width_of(reel_.title, 20.0, true);
    const auto entry = [&](const std::string& words, auto&& mark) {
      constexpr double beside = 56.0;  // for its mark, and between the two
      if (x - width_of(words, 12.5) - beside < title_ends) return;
      x -= width_of(words, 12.5);
      write({x, 30.0}, words, 12.5, colours_.ink);
      x -= 14.0;
      mark(Point{x, 26.0});
      x -= 28.0;
    };
    entry("decision", [&](Point at) { page_.emplace_back(marks_.diamond(at, 5.5)); });
    if (!reel_.snap_places.empty())
      entry("snap point", [&](Point at) { page_.emplace_back(marks_.snap_mark(at, 5.0)); });
    if (!reel_.trails.empty())
      entry("drag threshold", [&](Point at) {
        const FilmThreshold limit = first_threshold();
        if (limit.x > 0.0 && limit.y > 0.0) {
          page_.emplace_back(skin::Disc{at, 7.0, {.stroke = colours_.brick, .width = 1.5, .dash = 3.0}});
          return;
        }
        const bool level = limit.y > 0.0;
        for (const double side : {-4.0, 4.0}) {
          const Point way = level ? Point{0, side} : Point{side, 0};
          const Point half = level ? Point{8, 0} : Point{0, 8};
          page_.emplace_back(skin::line(at + way - half, at + way + half, colours_.brick, 1.5, 3.0));
        }
      });
    if (std::any_of(reel_.frames.begin(), reel_.frames.end(),
                    [](const FilmFrame& frame) { return !frame.ghosts.empty(); }))
      entry("where it was, every 40 ms", [&](Point at) {
        for (const double by : {-7.0, 0.0})
          marks_.add_corners(page_, {at.x - 8.0 + by, at.y - 5.0, 14.0, 11.0}, 4.0, 1.4, 0.9);
      });
    if (!reel_.hovers.empty())
      entry("pointer that touches nothing", [&](Point at) { marks_.add_pointer(page_, at); });
    if (!reel_.turns.empty())
      entry("wheel, and where it turns", [&](Point at) {
        marks_.add_turn(page_, {.at = at - Point{0.0, 20.0}, .by = {0.0, 1.0}});
      });
    if (!reel_.trails.empty())
      entry("finger and its trail", [&](Point at) {
        page_.emplace_back(skin::line(at + Point{-18, 0}, at, colours_.heather, 2.0));
        page_.emplace_back(skin::Disc{at, 7.0, marks_.finger_ink()});
        x -= 12.0;
      });
  }

  [[nodiscard]] FilmThreshold first_threshold() const {
    for (const FilmFrame& frame : reel_.frames)
      for (const FilmPress& press : frame.presses) return press.threshold;
    return {1.0, 1.0};
  }

  void add_frame(std::size_t index, const Box& cell, double scale) {
    const FilmFrame& frame = reel_.frames[index];
    const bool decided = !frame.captions.empty();
    page_.emplace_back(
        skin::paper(cell, 10.0,
                    {.fill = decided ? colours_.honey.with_alpha(0.16) : colours_.ink.with_alpha(0.035),
                     .stroke = colours_.ink.with_alpha(decided ? 0.75 : 0.22),
                     .width = decided ? 1.4 : 1.0}));
    const std::string number = std::to_string(index + 1);
    write({cell.x + 9.0, cell.y + 18.0}, number, 13.0, colours_.ink.with_alpha(0.6));
    const double time_at = cell.x + 9.0 + width_of(number, 13.0) + 10.0;
    const std::string time = ms(frame.time - reel_.begins);
    write({time_at, cell.y + 18.0}, time, 13.0, colours_.ink, Align::left, true);
    if (decided) add_captions(frame, cell, time_at + width_of(time, 13.0, true) + 14.0);

    const Box view{cell.x + 1.0, cell.y + above_, cell.w - 2.0, cell.h - above_ - 1.0};
    skin::Group group;
    group.clip = view;
    group.scale = scale;
    const Point middle = reel_.region.centre();
    group.move = view.centre() - middle * scale;
    // What lies beside the region is cut into scraps by the frame, and is left out.
    const Box& region = reel_.region;
    group.clip = common(
        view, Box{region.x * scale, region.y * scale, region.w * scale, region.h * scale} + group.move);
    group.shapes = without_ground(frame.scene);
    skin::make_legible(group.shapes, min_text / scale, skin::inter_width);
    marks_.add(group.shapes, frame);
    page_.emplace_back(std::move(group));
  }

  // The stage's own ground would hide the frame's tint.
  static Picture without_ground(const Picture& scene) {
    return scene.empty() ? Picture{} : Picture(scene.begin() + 1, scene.end());
  }

  // The first `most` captions, those alike in a row counted, and how many more there are. What was said
  // before, such as of the other axis of a drag, is not said again.
  static std::string joined(const FilmFrame& frame, std::size_t most = 240) {
    std::string words;
    std::size_t shown = 0;
    std::size_t left = 0;
    for (std::size_t i = 0, same = 1; i < frame.captions.size(); i += same, same = 1) {
      while (i + same < frame.captions.size() && frame.captions[i + same] == frame.captions[i]) ++same;
      const auto here = frame.captions.begin() + static_cast<std::ptrdiff_t>(i);
      if (std::find(frame.captions.begin(), here, *here) != here) continue;
      if (shown == most) {
        left += same;
        continue;
      }
      ++shown;
      words += (words.empty() ? "" : ", ") + frame.captions[i];
      if (same > 1) words += " (" + std::to_string(same) + " times)";
    }
    return left > 0 ? words + ", " + std::to_string(left) + " more" : words;
  }

  // As many whole captions as have room.
  std::string fitting(const FilmFrame& frame, double room) {
    for (std::size_t most = std::min<std::size_t>(frame.captions.size(), 12); most > 0; --most) {
      std::string words = joined(frame, most);
      const auto lines = broken(words, std::max<std::size_t>(lines_, 1), 11.0, room);
      if (std::all_of(lines.begin(), lines.end(),
                      [&](const std::string& line) { return width_of(line, 9.5, true) <= room; }))
        return words;
    }
    return frame.captions.empty() ? std::string() : frame.captions.front();
  }

  // Beside number and time, which take some 110, or on lines of their own.
  bool captions_fit(double cell_width) {
    const double room = cell_width - (lines_ == 0 ? 145.0 : 40.0);
    return std::all_of(reel_.frames.begin(), reel_.frames.end(), [&](const FilmFrame& frame) {
      const auto lines = broken(joined(frame), std::max<std::size_t>(lines_, 1), 11.0, room);
      return std::all_of(lines.begin(), lines.end(),
                         [&](const std::string& line) { return width_of(line, 11.0, true) < room; });
    });
  }

  // The words in at most `count` lines, broken at blanks where a line is full; the last keeps the rest.
  std::vector<std::string> broken(const std::string& words, std::size_t count, double size, double room) {
    std::vector<std::string> lines{{}};
    for (std::size_t from = 0; from < words.size();) {
      const std::size_t end = std::min(words.find(' ', from), words.size() - 1) + 1;
      const std::string piece = words.substr(from, end - from);
      if (!lines.back().empty() && lines.size() < count && width_of(lines.back() + piece, size, true) > room)
        lines.emplace_back();
      lines.back() += piece;
      from = end;
    }
    return lines;
  }

  void add_captions(const FilmFrame& frame, const Box& cell, double from) {
    const double left = lines_ > 0 ? cell.x + 24.0 : from + 14.0;
    const double room = cell.right() - 16.0 - left;
    double y = cell.y + 18.0 + (lines_ > 0 ? caption_line : 0.0);
    const auto lines = broken(fitting(frame, room), std::max<std::size_t>(lines_, 1), 11.0, room);
    double size = 12.5;  // of all its lines
    for (const std::string& line : lines)
      while (size > 9.5 && width_of(line, size, true) > room) size -= 0.5;
    for (const std::string& line : lines) {
      add_caption(line, size, left, y, room, &line == lines.data());
      y += caption_line;
    }
  }

  void add_caption(std::string words, double size, double left, double y, double room, bool first) {
    if (width_of(words, size, true) > room) {
      // The longest beginning that fits, cut between characters.
      std::size_t fits = 4;
      for (std::size_t too_much = words.size(); fits + 1 < too_much;) {
        const std::size_t middle = (fits + too_much) / 2;
        (width_of(words.substr(0, middle) + "…", size, true) > room ? too_much : fits) = middle;
      }
      while (fits > 4 && (static_cast<unsigned char>(words[fits]) & 0xC0U) == 0x80U) --fits;
      words = words.substr(0, fits) + "…";
    }
    const double at = lines_ > 0 ? left : left + room - width_of(words, size, true);
    write({at, y}, words, size, colours_.ink, Align::left, true);
    if (first) page_.emplace_back(marks_.diamond({at - 10.0, y - 4.5}, 4.5));
  }

  void add_timeline() {
    const double left = margin + 6.0;
    const double right = width_ - margin - 6.0;
    const double y = height_ - footer + 28.0;
    const double whole = std::max(to_seconds(reel_.ends - reel_.begins), 1e-6);
    const auto x_of = [&](Micros time) {
      return left + (right - left) * std::clamp(to_seconds(time - reel_.begins) / whole, 0.0, 1.0);
    };
    page_.emplace_back(skin::line({left, y}, {right, y}, colours_.ink.with_alpha(0.35), 1.5));
    // Touches closer together than can be seen are drawn as one.
    double from = -1.0;
    double to = -1.0;
    const auto draw = [&] {
      if (from >= 0.0)
        page_.emplace_back(skin::line({from, y}, {to, y}, colours_.heather.with_alpha(0.45), 7.0));
    };
    for (const auto& trail : reel_.trails) {
      if (trail.empty()) continue;
      const double begins = x_of(trail.front().time);
      if (begins > to + 1.0) {
        draw();
        from = begins;
      }
      to = std::max(to, x_of(trail.back().time));
    }
    draw();
    double free_from = 0.0;
    for (std::size_t i = 0; i < reel_.frames.size(); ++i) {
      const double x = x_of(reel_.frames[i].time);
      page_.emplace_back(skin::line({x, y - 8.0}, {x, y + 8.0}, colours_.ink, 1.4));
      const std::string number = std::to_string(i + 1);
      const double half = width_of(number, 11.5) / 2;
      if (x - half < free_from) continue;
      write({x, y + 22.0}, number, 11.5, colours_.ink, Align::centre);
      free_from = x + half + 3.0;
    }
    double last = -1.0;
    for (const Micros time : reel_.decided) {
      const double x = x_of(time);
      if (x - last < 1.0) continue;
      page_.emplace_back(marks_.diamond({x, y}, 5.0));
      last = x;
    }
    write({left, y - 14.0}, "0 ms", 11.5, colours_.ink.with_alpha(0.75));
    write({right, y - 14.0}, ms(reel_.ends - reel_.begins), 11.5, colours_.ink.with_alpha(0.75),
          Align::right);
  }

  const FilmReel& reel_;
  FilmMarks marks_;
  double above_ = caption_height;
  std::size_t lines_ = 0;  // of captions below number and time
};

}  // namespace

Picture film(const FilmReel& reel, double width, double height, const skin::Measure& measure,
             const skin::CombColours& colours) {
  return Film(reel, width, height, measure, colours).make();
}

}  // namespace ubbo::show
