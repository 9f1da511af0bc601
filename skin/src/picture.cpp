#include "ubbo/skin/picture.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "ubbo/base/maths.hpp"
#include "ubbo/skin/lettering.hpp"

namespace ubbo::skin {

Path hexagon(Point centre, double radius, Ink ink, double turn) {
  Path made{.points = {}, .closed = true, .ink = ink};
  for (int corner = 0; corner < 6; ++corner) {
    const double angle = turn + (corner - 1.5) * std::numbers::pi / 3;  // the first one on top
    made.points.push_back(centre + turned({radius, 0.0}, angle));
  }
  return made;
}

Path paper(const Box& box, double cut, Ink ink) {
  if (cut <= 0.0)
    return {{{box.x, box.y}, {box.right(), box.y}, {box.right(), box.bottom()}, {box.x, box.bottom()}},
            true,
            ink};
  return {{{box.x, box.y},
           {box.right() - cut, box.y},
           {box.right(), box.y + cut},
           {box.right(), box.bottom()},
           {box.x, box.bottom()}},
          true,
          ink};
}

Group about(Point middle, Picture shapes, double scale, double turn) {
  return {.shapes = std::move(shapes),
          .move = middle - turned(middle, turn) * scale,
          .scale = scale,
          .turn = turn};
}

Path line(Point from, Point to, Colour colour, double width, double dash) {
  return {{from, to}, false, {.stroke = colour, .width = width, .dash = dash}};
}

void make_legible(Picture& shapes, double min, const TextWidth& measure) {
  constexpr double max_growth = 3.0;
  constexpr double least = 0.68;   // of that size, where there is no more room
  constexpr double middle = 0.36;  // of the size, above the baseline
  std::erase_if(shapes, [&](const Shape& shape) {
    const auto* text = std::get_if<Text>(&shape);
    if (text == nullptr || text->size >= min) return false;
    const bool no_room = text->room.h > 0.0 && text->room.h / line_height < least * min;
    return no_room || text->size * max_growth < min;
  });
  for (Shape& shape : shapes) {
    if (auto* group = std::get_if<Group>(&shape)) make_legible(group->shapes, min / group->scale, measure);
    auto* text = std::get_if<Text>(&shape);
    if (text == nullptr || text->size >= min) continue;
    double size = min;
    if (text->room.h > 0.0) size = std::min(size, text->room.h / line_height);
    if (const double width = measure(text->words, size, text->bold);
        text->room.w > 0.0 && width > text->room.w)
      size *= text->room.w / width;
    size = std::max(size, least * min);
    if (size <= text->size) continue;
    text->at.y += (size - text->size) * middle;
    text->size = size;
  }
}

}  // namespace ubbo::skin
