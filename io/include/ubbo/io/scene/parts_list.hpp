#pragma once

#include <string>
#include <string_view>

#include "ubbo/io/scene/scene.hpp"
#include "ubbo/io/scene/settings_list.hpp"

namespace ubbo::io {

/// All that a kind of part tells of itself: what it is, its settings, readings, keys, calls, and the
/// questions it decides with their answers; or, where `of` is empty, a line for each kind. Throws
/// `std::invalid_argument` for a name that is no kind's.
[[nodiscard]] std::string parts_list(std::string_view of, SettingsFormat format,
                                     Kinds kinds = shipped_kinds());

/// A smallest scene with a part of this kind, which can be run. Throws `std::invalid_argument` for a name
/// that is no kind's, or a kind that has no example.
[[nodiscard]] std::string example_scene(std::string_view kind, Kinds kinds = shipped_kinds());

/// The parts of a scene, one a line: id, kind, what it lies in, and its line in the file.
[[nodiscard]] std::string parts_of(const Scene& scene, SettingsFormat format);

}  // namespace ubbo::io
