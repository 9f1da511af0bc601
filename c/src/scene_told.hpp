#pragma once

#include <string>

#include "ubbo/io/scene/scene.hpp"

namespace ubbo::c {

/// All that a scene says, as JSON, for `ubbo_scene_told`.
[[nodiscard]] std::string scene_told(const io::Scene& scene);

}  // namespace ubbo::c
