#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "ubbo/base/colour.hpp"
#include "ubbo/base/geometry.hpp"
#include "ubbo/parts/content.hpp"

/// Part state -> picture: a list of shapes that any renderer can draw. No drawing library is needed here.
namespace ubbo::skin {

using ubbo::Colour;

/// How a shape is painted: filled first, then its outline.
struct Ink {
  std::optional<Colour> fill{};
  std::optional<Colour> stroke{};
  double width = 1.0;  ///< of the outline
  double dash = 0.0;   ///< length of dashes and gaps; 0: solid
};

/// Straight lines through points; closed: back to the first.
struct Path {
  std::vector<Point> points;
  bool closed = true;
  Ink ink{};
};

/// A full circle.
struct Disc {
  Point centre;
  double radius = 0.0;
  Ink ink{};
};

enum class Align : std::uint8_t { left, centre, right };

/// One line of text; `at` is on the baseline, at the side `align` names.
struct Text {
  Point at;
  std::string words;
  double size = 12.0;  ///< the font's size, in the unit of the picture
  Colour colour{};
  Align align = Align::left;
  bool bold = false;
  Size room{};  ///< of the box it stands in; 0: any
};

/// A picture by its name, as large as it can be in `box` so that it fills it; what does not fit is cut off.
/// The painter is told where to find them (`paint::Images`), and draws nothing where there is none.
struct Image {
  Box box{};
  std::string name;
};

struct Group;
using Shape = std::variant<Path, Disc, Text, Image, Group>;

/// Shapes from the lowest to the topmost.
using Picture = std::vector<Shape>;

/// A picture inside a picture: scaled, turned clockwise about its origin, then moved; seen only inside `clip`
/// (of the outer picture) if there is one, and as a whole with `opacity`, 0 to 1.
struct Group {
  Picture shapes;
  Point move{};
  double scale = 1.0;
  std::optional<Box> clip{};
  double opacity = 1.0;
  double turn = 0.0;  ///< radians
};

/// The shapes scaled, and turned clockwise by `turn` radians, about `middle`.
[[nodiscard]] Group about(Point middle, Picture shapes, double scale, double turn = 0.0);

/// A regular hexagon with a corner on top; `radius` from the centre to a corner; turned clockwise by `turn`
/// radians.
[[nodiscard]] Path hexagon(Point centre, double radius, Ink ink, double turn = 0.0);
/// A rectangle whose top right corner is cut off by `cut`; 0: a plain rectangle.
[[nodiscard]] Path paper(const Box& box, double cut, Ink ink);
/// A straight line.
[[nodiscard]] Path line(Point from, Point to, Colour colour, double width, double dash = 0.0);

/// Sets text that is smaller than `min` (in the picture's own unit) larger, around its middle, as far as
/// there is room in its box. What would have to grow to more than three times its size is left out, and so is
/// what has no room for two thirds of `min`.
void make_legible(Picture& picture, double min, const TextWidth& measure);

}  // namespace ubbo::skin
