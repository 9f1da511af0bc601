#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "ubbo/base/geometry.hpp"

/// Part state -> picture: a list of shapes that any renderer can draw. No drawing library is needed here.
namespace ubbo::skin {

/// An sRGB colour; `alpha` 0 (clear) to 1 (solid).
struct Colour {
  std::uint8_t red = 0;
  std::uint8_t green = 0;
  std::uint8_t blue = 0;
  double alpha = 1.0;

  /// From 0xRRGGBB.
  static constexpr Colour hex(std::uint32_t rgb, double alpha = 1.0) {
    return {static_cast<std::uint8_t>(rgb >> 16U), static_cast<std::uint8_t>(rgb >> 8U & 0xFFU),
            static_cast<std::uint8_t>(rgb & 0xFFU), alpha};
  }
  [[nodiscard]] constexpr Colour with_alpha(double a) const { return {red, green, blue, a}; }
};

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
};

struct Group;
using Shape = std::variant<Path, Disc, Text, Group>;

/// Shapes from the lowest to the topmost.
using Picture = std::vector<Shape>;

/// A picture inside a picture: scaled, then moved; seen only inside `clip` (of the outer picture) if there is
/// one.
struct Group {
  Picture shapes;
  Point move{};
  double scale = 1.0;
  std::optional<Box> clip{};
};

/// A regular hexagon with a corner on top; `radius` from the centre to a corner.
[[nodiscard]] Path hexagon(Point centre, double radius, Ink ink);
/// A rectangle whose top right corner is cut off by `cut`; 0: a plain rectangle.
[[nodiscard]] Path paper(const Box& box, double cut, Ink ink);
/// A straight line.
[[nodiscard]] Path line(Point from, Point to, Colour colour, double width, double dash = 0.0);

}  // namespace ubbo::skin
