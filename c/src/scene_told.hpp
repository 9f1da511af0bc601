#pragma once

#include <string>

#include "ubbo/io/scene/scene.hpp"

namespace ubbo::c {

/// What a scene is, as JSON, for `ubbo_scene_told`.
[[nodiscard]] std::string scene_told(const io::Scene& scene);
/// Its settings, for `ubbo_scene_settings`.
[[nodiscard]] std::string scene_settings(const io::Scene& scene);

}  // namespace ubbo::c
