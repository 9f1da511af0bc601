#pragma once

#include <string>
#include <string_view>

#include "ubbo/paint/save.hpp"
#include "ubbo/skin/picture.hpp"

namespace ubbo::paint {

/// A channel from 0 to 1 as two hexadecimal digits, and a colour as "#RRGGBB".
[[nodiscard]] std::string hex_of(double channel);
[[nodiscard]] std::string hex(const Colour& colour);

/// Text that means nothing but itself in XML; control characters become blanks.
[[nodiscard]] std::string xml_text(std::string_view words);

/// The picture as SVG 1.1, its writing as text, with a title and a description for those who cannot see it.
[[nodiscard]] std::string svg_of(const skin::Picture& picture, int width, int height, const About& about,
                                 const Images& images);

}  // namespace ubbo::paint
