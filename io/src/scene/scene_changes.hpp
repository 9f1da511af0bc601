#pragma once

#include <toml++/toml.h>

#include <string>

namespace ubbo::io {

/// Changes a scene that was read as TOML before anything is made of it: `frames.step=2`,
/// `frames.feel.tap_reach=20`, `feel.drag_threshold=8`, `cells.frames=3`. The value stands as in a scene; one
/// that does not read as TOML is text. Throws `InputError` for an owner that is none.
void change_scene(toml::table& root, const std::string& change);

}  // namespace ubbo::io
