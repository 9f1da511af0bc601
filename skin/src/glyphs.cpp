#include "ubbo/skin/glyphs.hpp"

#include <array>
#include <initializer_list>

namespace ubbo::skin {

namespace {

// Draws in a square from -12 to 12 about the middle.
class Pen {
 public:
  Pen(Point middle, double size, const Colour& colour)
      : middle_(middle), unit_(size / 24.0), colour_(colour) {}

  void lines(std::initializer_list<Point> points, bool closed = false) {
    Path path{.points = {}, .closed = closed, .ink = {.stroke = colour_, .width = 2.0 * unit_}};
    for (const Point& point : points) path.points.push_back(middle_ + point * unit_);
    drawn.emplace_back(std::move(path));
  }
  void cell(Point at, double radius, bool filled) {
    const Ink ink = filled ? Ink{.fill = colour_} : Ink{.stroke = colour_, .width = 2.0 * unit_};
    drawn.emplace_back(hexagon(middle_ + at * unit_, radius * unit_, ink));
  }
  Picture drawn;

 private:
  Point middle_;
  double unit_;
  Colour colour_;
};

void hive(Pen& pen) {
  pen.cell({0.0, -5.6}, 5.0, true);
  pen.cell({-5.0, 3.2}, 5.0, false);
  pen.cell({5.0, 3.2}, 5.0, false);
}

void water(Pen& pen) {
  pen.lines({{0, -10}, {6.5, 1}, {6.5, 5.5}, {0, 10}, {-6.5, 5.5}, {-6.5, 1}}, true);
  pen.lines({{-2.5, 4.5}, {0, 6}});
}

void move(Pen& pen) {
  pen.lines({{-9, 0}, {8, 0}});
  pen.lines({{2, -6}, {8.5, 0}, {2, 6}});
}

void note(Pen& pen) {
  pen.lines({{-8, -9}, {4, -9}, {8, -5}, {8, 9}, {-8, 9}}, true);
  pen.lines({{-4, -2}, {4, -2}});
  pen.lines({{-4, 3}, {2, 3}});
}

void close(Pen& pen) {
  pen.lines({{-6, -6}, {6, 6}});
  pen.lines({{6, -6}, {-6, 6}});
}

void check(Pen& pen) { pen.lines({{-8, 1}, {-2.5, 6.5}, {8, -5.5}}); }

void add(Pen& pen) {
  pen.lines({{-8, 0}, {8, 0}});
  pen.lines({{0, -8}, {0, 8}});
}

void back(Pen& pen) { pen.lines({{3, -8}, {-5, 0}, {3, 8}}); }

void menu(Pen& pen) {
  pen.lines({{-8, -5.5}, {8, -5.5}});
  pen.lines({{-8, 0}, {8, 0}});
  pen.lines({{-8, 5.5}, {3, 5.5}});
}

void warn(Pen& pen) {
  pen.cell({}, 10.0, false);
  pen.lines({{0, -4.5}, {0, 1}});
  pen.lines({{0, 5}, {0, 5.2}});
}

void frame(Pen& pen) {
  pen.lines({{-10, -8}, {10, -8}, {10, 8}, {-10, 8}}, true);
  pen.cell({-3.2, 0}, 3.2, true);
  pen.cell({3.2, 0}, 3.2, false);
}

void queen(Pen& pen) { pen.lines({{-9, 7}, {-9, -6}, {-4, 0}, {0, -8}, {4, 0}, {9, -6}, {9, 7}}, true); }

void place(Pen& pen) {
  pen.lines({{0, 10}, {-7, 0}, {-7, -5}, {0, -10}, {7, -5}, {7, 0}}, true);
  pen.cell({0, -2.5}, 2.6, true);
}

void undo(Pen& pen) {
  pen.lines({{-3, -9}, {-9, -4}, {-3, 1}});
  pen.lines({{-8, -4}, {4, -4}, {8, 0}, {8, 4}, {4, 8}, {-4, 8}});
}

struct Named {
  std::string_view name;
  void (*draw)(Pen&);
};

constexpr std::array all{Named{"hive", hive},   Named{"water", water}, Named{"move", move},
                         Named{"note", note},   Named{"close", close}, Named{"check", check},
                         Named{"add", add},     Named{"back", back},   Named{"menu", menu},
                         Named{"warn", warn},   Named{"frame", frame}, Named{"queen", queen},
                         Named{"place", place}, Named{"undo", undo}};

constexpr auto names = [] {
  std::array<std::string_view, all.size()> made{};
  for (std::size_t i = 0; i < all.size(); ++i) made[i] = all[i].name;
  return made;
}();

}  // namespace

std::span<const std::string_view> glyph_names() { return names; }

Picture glyph(std::string_view name, Point middle, double size, const Colour& colour) {
  Pen pen(middle, size, colour);
  for (const Named& one : all)
    if (one.name == name) {
      one.draw(pen);
      return std::move(pen.drawn);
    }
  pen.cell({}, 9.0, false);
  return std::move(pen.drawn);
}

}  // namespace ubbo::skin
