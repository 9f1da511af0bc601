#pragma once

#include <string>
#include <vector>

#include "ubbo/parts/kind.hpp"
#include "ubbo/skin/comb.hpp"

namespace ubbo::paint {

/// The places of one part that comes and goes.
struct PlacesOf {
  std::string name;
  std::string says;  ///< how it comes and goes, in a line or two
  std::vector<Stand> stands;
};

/// Where the layers of a screen start, stand and go.
struct Places {
  std::string title;
  Box screen{};
  Insets safe{};
  std::vector<Box> others;  ///< the parts that stay, drawn faintly
  std::vector<PlacesOf> layers;
};

/// A picture of `width` x `height` px with a screen for each layer: its outlines where it starts, is here and
/// has gone, joined by arrows with their distances.
[[nodiscard]] skin::Picture places(const Places& places, int width, int height,
                                   const skin::CombColours& colours = skin::day);

}  // namespace ubbo::paint
