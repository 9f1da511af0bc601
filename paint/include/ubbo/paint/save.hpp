#pragma once

#include <string>
#include <vector>

#include "ubbo/base/time.hpp"
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

/// Draws pages one after another, each for `each`, over and over, and writes them to `path` as an animated
/// PNG (APNG); the last one stays for `last`. A program that cannot show animations shows the first. Needs at
/// least one page; throws as `save` does.
void save_moving(const std::vector<skin::Picture>& pages, Micros each, Micros last, int width, int height,
                 const std::string& path, const Images& images = {});

/// How wide `text` comes out, in the picture's unit. Its place does not matter.
[[nodiscard]] double text_width(const skin::Text& text);

}  // namespace ubbo::paint
