#pragma once

#include <cairo.h>

#include <map>
#include <string>

#include "ubbo/paint/images.hpp"
#include "ubbo/skin/flat.hpp"

namespace ubbo::paint {

/// Draws images on one page; each is read once.
class ImagePainter {
 public:
  explicit ImagePainter(const Images& images) : images_(&images) {}
  ImagePainter(const ImagePainter&) = delete;
  ImagePainter& operator=(const ImagePainter&) = delete;
  ~ImagePainter();

  void draw(cairo_t* to, const skin::PlacedImage& placed);

 private:
  cairo_surface_t* read(const std::string& name);

  const Images* images_;
  std::map<std::string, cairo_surface_t*> read_;  // as they were recorded; null: there is none
};

}  // namespace ubbo::paint
