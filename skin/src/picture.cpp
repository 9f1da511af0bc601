#include "ubbo/skin/picture.hpp"

#include <numbers>

namespace ubbo::skin {

Path hexagon(Point centre, double radius, Ink ink) {
  const double half = radius / 2;
  const double side = radius * std::numbers::sqrt3 / 2;
  return {{{centre.x, centre.y - radius},
           {centre.x + side, centre.y - half},
           {centre.x + side, centre.y + half},
           {centre.x, centre.y + radius},
           {centre.x - side, centre.y + half},
           {centre.x - side, centre.y - half}},
          true,
          ink};
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

Path line(Point from, Point to, Colour colour, double width, double dash) {
  return {{from, to}, false, {.stroke = colour, .width = width, .dash = dash}};
}

}  // namespace ubbo::skin
