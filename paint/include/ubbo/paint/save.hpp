#pragma once

#include <string>

#include "ubbo/paint/images.hpp"
#include "ubbo/skin/picture.hpp"

/// Picture -> PNG and SVG.
namespace ubbo::paint {

/// What a picture shows, in words: an SVG holds them for those who cannot see it.
struct About {
  std::string title{};
  std::string description{};
};

/// Draws `picture` on a page of `width` x `height` (1 to 16384 each; pixels in a PNG) and writes it to
/// `path`, as PNG or SVG by the path's ending. Throws `std::invalid_argument` for another ending or size, and
/// `std::runtime_error` when the file cannot be written. An image that `images` has not, or that is neither
/// PNG nor SVG, is left out.
void save(const skin::Picture& picture, int width, int height, const std::string& path,
          const About& about = {}, const Images& images = {});

/// How wide `text` comes out, in the picture's unit. Its place does not matter.
[[nodiscard]] double text_width(const skin::Text& text);

}  // namespace ubbo::paint
