#pragma once

#include <string>

#include "ubbo/show/graph.hpp"

/// Graphs, drawn by gnuplot.
namespace ubbo::paint {

/// Draws `graph` as PNG or SVG, by the ending of `path`. Throws `std::invalid_argument` for another ending or
/// a size that is not 200 to 16384, and `std::runtime_error` when gnuplot is not there or fails.
void plot(const show::Graph& graph, int width, int height, const std::string& path,
          const skin::CombColours& colours = skin::day);

}  // namespace ubbo::paint
