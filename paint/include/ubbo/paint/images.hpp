#pragma once

#include <functional>
#include <string>

namespace ubbo::paint {

/// Where the names of images lead: the bytes of a PNG or SVG file, or "" where there is none of that name.
using Images = std::function<std::string(const std::string& name)>;

/// Those in a folder, by paths within it. A name that would lead out of it leads nowhere; so does a file that
/// cannot be read, or is larger than 16 MiB.
[[nodiscard]] Images images_in(std::string folder);
/// Those beside a scene's file.
[[nodiscard]] Images images_beside(const std::string& scene_path);

}  // namespace ubbo::paint
