#include "drawn_image.hpp"

#include <librsvg/rsvg.h>

#include <algorithm>
#include <cstring>
#include <memory>
#include <string_view>

namespace ubbo::paint {

namespace {

struct Bytes {
  std::string_view left;
};

cairo_status_t take(void* from, unsigned char* to, unsigned length) {
  std::string_view& left = static_cast<Bytes*>(from)->left;
  if (left.size() < length) return CAIRO_STATUS_READ_ERROR;
  std::memcpy(to, left.data(), length);
  left.remove_prefix(length);
  return CAIRO_STATUS_SUCCESS;
}

cairo_surface_t* png_of(std::string_view text) {
  Bytes bytes{text};
  cairo_surface_t* made = cairo_image_surface_create_from_png_stream(&take, &bytes);
  if (cairo_surface_status(made) == CAIRO_STATUS_SUCCESS) return made;
  cairo_surface_destroy(made);
  return nullptr;
}

// As a recording, so that it is sharp at every size.
cairo_surface_t* svg_of(std::string_view text) {
  const std::unique_ptr<RsvgHandle, decltype(&g_object_unref)> handle(
      rsvg_handle_new_from_data(reinterpret_cast<const guint8*>(text.data()), text.size(), nullptr),
      &g_object_unref);
  if (handle == nullptr) return nullptr;
  double w = 0.0;
  double h = 0.0;
  if (rsvg_handle_get_intrinsic_size_in_pixels(handle.get(), &w, &h) == FALSE || w <= 0.0 || h <= 0.0)
    w = h = 100.0;
  const cairo_rectangle_t extents{0.0, 0.0, w, h};
  cairo_surface_t* made = cairo_recording_surface_create(CAIRO_CONTENT_COLOR_ALPHA, &extents);
  cairo_t* to = cairo_create(made);
  const RsvgRectangle viewport{0.0, 0.0, w, h};
  rsvg_handle_render_document(handle.get(), to, &viewport, nullptr);
  cairo_destroy(to);
  return made;
}

void size_of(cairo_surface_t* image, double& w, double& h) {
  if (cairo_surface_get_type(image) == CAIRO_SURFACE_TYPE_RECORDING) {
    cairo_rectangle_t extents{};
    cairo_recording_surface_get_extents(image, &extents);
    w = extents.width;
    h = extents.height;
    return;
  }
  w = cairo_image_surface_get_width(image);
  h = cairo_image_surface_get_height(image);
}

}  // namespace

ImagePainter::~ImagePainter() {
  for (const auto& [name, image] : read_) cairo_surface_destroy(image);
}

cairo_surface_t* ImagePainter::read(const std::string& name) {
  const auto known = read_.find(name);
  if (known != read_.end()) return known->second;
  const std::string bytes = *images_ ? (*images_)(name) : std::string();
  constexpr std::string_view png = "\x89PNG";
  cairo_surface_t* made = bytes.empty() ? nullptr : bytes.starts_with(png) ? png_of(bytes) : svg_of(bytes);
  return read_.emplace(name, made).first->second;
}

void ImagePainter::draw(cairo_t* to, const skin::PlacedImage& placed) {
  cairo_surface_t* image = read(placed.image.name);
  if (image == nullptr) return;
  double w = 0.0;
  double h = 0.0;
  size_of(image, w, h);
  const Box& box = placed.image.box;
  if (!(w > 0.0 && h > 0.0 && box.w > 0.0 && box.h > 0.0)) return;
  const double scale = std::max(box.w / w, box.h / h);
  cairo_save(to);
  cairo_translate(to, box.centre().x, box.centre().y);
  cairo_rotate(to, placed.turn);
  cairo_rectangle(to, -box.w / 2, -box.h / 2, box.w, box.h);
  cairo_clip(to);
  cairo_scale(to, scale, scale);
  cairo_set_source_surface(to, image, -w / 2, -h / 2);
  cairo_paint(to);
  cairo_restore(to);
}

}  // namespace ubbo::paint
