#pragma once

#include <string>
#include <vector>

#include "ubbo/io/scene/scene.hpp"
#include "ubbo/skin/comb.hpp"
#include "ubbo/skin/measure.hpp"

namespace ubbo::show {

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

/// Where the parts of a scene that come and go start, stand and go, without running it.
[[nodiscard]] Places places_of(const io::Scene& scene);

/// A picture of `width` x `height` px with a screen for each layer: its outlines where it starts, is here and
/// has gone, joined by arrows with their distances.
[[nodiscard]] skin::Picture places(const Places& places, double width, double height,
                                   const skin::Measure& measure,
                                   const skin::CombColours& colours = skin::day);

}  // namespace ubbo::show
