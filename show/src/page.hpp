#pragma once

#include <string>
#include <utility>

#include "ubbo/skin/comb.hpp"
#include "ubbo/skin/measure.hpp"

namespace ubbo::show {

using skin::Align;
using skin::Colour;
using skin::Picture;
using skin::Text;

/// A page of paper that is written and drawn on: what films, touch maps and places have in common.
class Page {
 protected:
  Page(double width, double height, const skin::Measure& measure, const skin::CombColours& colours)
      : width_(width), height_(height), measure_(measure), colours_(colours) {
    page_.emplace_back(skin::paper({0.0, 0.0, width, height}, 0.0, {.fill = colours.paper}));
  }

  void write(Point at, std::string words, double size, Colour colour, Align align = Align::left,
             bool bold = false) {
    page_.emplace_back(Text{at, std::move(words), size, colour, align, bold});
  }
  [[nodiscard]] double width_of(const std::string& words, double size, bool bold = false) const {
    return measure_({.at = {}, .words = words, .size = size, .bold = bold});
  }

  double width_;
  double height_;
  const skin::Measure& measure_;
  const skin::CombColours& colours_;
  Picture page_;
};

}  // namespace ubbo::show
