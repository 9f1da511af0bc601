#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "ubbo/base/geometry.hpp"
#include "ubbo/skin/comb.hpp"

/// What a graph shows; `paint::plot` draws it.
namespace ubbo::show {

/// How many kinds of dash there are.
inline constexpr std::size_t dashes = 5;

/// A line through points; in a `Panel`'s own units. A gap is where two lines follow each other.
struct Line {
  std::string name{};  ///< in the legend; "": not there
  std::vector<std::pair<double, double>> points;
  Colour colour{};
  double width = 2.4;
  int dash = 1;  ///< 1 solid, 2 dashes, 3 dots, 4 dash and dot, 5 dash and two dots
};

/// A point that is marked.
struct Spot {
  enum class Form : std::uint8_t { disc, ring, diamond };
  double x = 0.0;
  double y = 0.0;
  Form form = Form::disc;
  Colour colour{};
  std::string words{};
  bool left = false;  ///< the words stand to the left of it
};

/// A level line (a snap point, a bound) or an upright one (a decision, an end).
struct Rule {
  double at = 0.0;
  Colour colour{};
  std::string words{};
  int dash = 3;
  double width = 1.2;
};

/// One set of axes.
struct Panel {
  std::string title{};
  std::string x_label{};
  std::string y_label{};
  std::vector<Line> lines{};
  std::vector<Spot> spots{};
  std::vector<Rule> levels{};
  std::vector<Rule> moments{};
  double x_from = 0.0;
  double x_to = 1.0;
  std::optional<std::pair<double, double>> y_range{};  ///< none: what the traces need, and a little more
  double fraction = 1.0;  ///< of the height, beside other panels below each other
  bool x_numbers = true;
  bool y_numbers = true;
};

/// All that a graph shows: panels below each other, or row by row in `columns`.
struct Graph {
  std::string title;
  std::string subtitle{};
  std::vector<Panel> panels;
  int columns = 1;
  int legend_columns = 1;
};

/// Colours that can be told apart, in the order in which lines take them.
[[nodiscard]] std::vector<Colour> line_colours(const skin::CombColours& colours);

}  // namespace ubbo::show
