#pragma once

#include <string>
#include <string_view>

#include "ubbo/paint/save.hpp"
#include "ubbo/skin/picture.hpp"

namespace ubbo::paint {

/// Text that means nothing but itself in XML; control characters become blanks.
[[nodiscard]] std::string xml_text(std::string_view words);

/// The picture as SVG 1.1, its writing as text, with a title and a description for those who cannot see it.
[[nodiscard]] std::string svg_of(const skin::Picture& picture, int width, int height, const About& about);

}  // namespace ubbo::paint
