#include "ubbo/show/moving.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "film_marks.hpp"
#include "page.hpp"

namespace ubbo::show {

namespace {

constexpr double margin = 16.0;
constexpr double reason_size = 15.0;
constexpr double reason_line = 20.0;     // from one of their lines to the next
constexpr std::size_t reason_lines = 5;  // that have room

class MovingPage : private Page {
 public:
  MovingPage(const FilmReel& reel, double width, double height, const skin::Measure& measure,
             const skin::CombColours& colours)
      : Page(width, height, measure, colours), reel_(reel), marks_(reel, colours) {}

  Picture make(std::size_t index) {
    const FilmFrame& frame = reel_.frames[index];
    const Box view{margin, margin, width_ - 2 * margin, height_ - 4 * margin - reason_line * reason_lines};
    const double scale = std::min(view.w / reel_.region.w, view.h / reel_.region.h);
    const Box seen{view.centre().x - reel_.region.w * scale / 2, view.y, reel_.region.w * scale,
                   reel_.region.h * scale};
    skin::Group screen{.shapes = frame.scene,
                       .move = seen.centre() - reel_.region.centre() * scale,
                       .scale = scale,
                       .clip = seen};
    marks_.add(screen.shapes, frame);
    page_.emplace_back(std::move(screen));
    page_.emplace_back(skin::paper(seen, 0.0, {.stroke = colours_.ink.with_alpha(0.3), .width = 1.0}));
    write({margin, seen.bottom() + 1.4 * reason_line},
          fmt::format("{:.0f} ms", to_ms(frame.time - reel_.begins)), reason_size,
          colours_.ink.with_alpha(0.7));
    add_reasons(index, seen.bottom() + 2.5 * reason_line);
    return std::move(page_);
  }

 private:
  // The latest ones that have room, in the order in which they fell.
  void add_reasons(std::size_t index, double y) {
    struct Line {
      std::string words;
      bool first;
      bool newest;
    };
    std::vector<Line> shown;
    bool newest = true;
    for (std::size_t i = index + 1; i-- > 0 && shown.size() < reason_lines;) {
      const auto& said = reel_.frames[i].reasons;
      for (auto reason = said.rbegin(); reason != said.rend() && shown.size() < reason_lines; ++reason) {
        const auto broken = skin::wrapped(*reason, reason_size, width_ - 3 * margin, measure_);
        for (auto one = broken.rbegin(); one != broken.rend(); ++one)
          shown.push_back({*one, one + 1 == broken.rend(), newest});
      }
      if (!said.empty()) newest = false;
    }
    while (shown.size() > reason_lines) shown.pop_back();
    for (auto one = shown.rbegin(); one != shown.rend(); ++one, y += reason_line) {
      const Colour ink = colours_.ink.with_alpha(one->newest ? 1.0 : 0.62);
      if (one->first) page_.emplace_back(marks_.diamond({margin + 5.0, y - 5.0}, one->newest ? 5.0 : 3.5));
      write({margin + 18.0, y}, one->words, reason_size, ink);
    }
  }

  const FilmReel& reel_;
  FilmMarks marks_;
};

}  // namespace

Picture moving_page(const FilmReel& reel, std::size_t index, double width, double height,
                    const skin::Measure& measure, const skin::CombColours& colours) {
  return MovingPage(reel, width, height, measure, colours).make(index);
}

}  // namespace ubbo::show
