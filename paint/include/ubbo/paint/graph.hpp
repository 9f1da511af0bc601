#pragma once

#include <optional>
#include <string>
#include <vector>

#include "ubbo/base/geometry.hpp"
#include "ubbo/skin/comb.hpp"

/// Graphs, drawn by gnuplot.
namespace ubbo::paint {

/// How many kinds of dash there are.
inline constexpr std::size_t dashes = 5;

/// A line through points; in a `Panel`'s own units. A gap is where two lines follow each other.
struct Trace {
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
  std::vector<Trace> traces{};
  std::vector<Spot> spots{};
  std::vector<Rule> levels{};
  std::vector<Rule> moments{};
  double x_from = 0.0;
  double x_to = 1.0;
  std::optional<std::pair<double, double>> y_range{};  ///< none: what the traces need, and a little more
  double share = 1.0;  ///< of the height, beside other panels below each other
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

/// Draws `graph` as PNG or SVG, by the ending of `path`. Throws `std::invalid_argument` for another ending or
/// a size that is not 200 to 16384, and `std::runtime_error` when gnuplot is not there or fails.
void plot(const Graph& graph, int width, int height, const std::string& path,
          const skin::CombColours& colours = skin::day);

/// Colours that can be told apart, in the order in which traces take them.
[[nodiscard]] std::vector<Colour> trace_colours(const skin::CombColours& colours);

}  // namespace ubbo::paint
