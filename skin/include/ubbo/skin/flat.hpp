#pragma once

#include <array>
#include <optional>
#include <variant>
#include <vector>

#include "ubbo/skin/picture.hpp"

namespace ubbo::skin {

/// A line of text that may be turned about its place.
struct PlacedText {
  Text text;
  double turn = 0.0;  ///< radians, clockwise
};

/// An image whose box is turned clockwise about its middle.
struct PlacedImage {
  Image image;
  double turn = 0.0;  ///< radians
};

/// What follows, up to its `End`, is seen only inside of `clip`, and as a whole with `opacity`: a
/// renderer draws it on a layer of its own where that is below 1.
struct Begin {
  std::optional<std::array<Point, 4>> clip{};  ///< corners; a turned rectangle where a group is turned
  double opacity = 1.0;
};
struct End {};

/// One step of drawing.
using Step = std::variant<Path, Disc, PlacedText, PlacedImage, Begin, End>;

/// A picture as steps from the lowest shape to the topmost, all in the picture's own unit: a renderer needs
/// no transforms, only paths, circles, text, and a stack for `Begin` and `End`, which come in pairs.
/// O(shapes).
[[nodiscard]] std::vector<Step> flat(const Picture& picture);

}  // namespace ubbo::skin
