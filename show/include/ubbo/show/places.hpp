#pragma once

#include "ubbo/io/scene/scene.hpp"
#include "ubbo/paint/places.hpp"

namespace ubbo::show {

/// Where the parts of a scene that come and go start, stand and go, without running it.
[[nodiscard]] paint::Places places_of(const io::Scene& scene);

}  // namespace ubbo::show
