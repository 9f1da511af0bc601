#include "ubbo/paint/save.hpp"

#include <pango/pangocairo.h>

#include <memory>
#include <numbers>
#include <stdexcept>
#include <string_view>
#include <vector>

#include "drawn_image.hpp"
#include "moving_png.hpp"
#include "svg.hpp"
#include "ubbo/file/whole_file.hpp"
#include "ubbo/skin/flat.hpp"

namespace ubbo::paint {

namespace {

using skin::Colour;

template <auto Free>
struct Freed {
  template <class T>
  void operator()(T* object) const {
    Free(object);
  }
};
using Surface = std::unique_ptr<cairo_surface_t, Freed<cairo_surface_destroy>>;
using Context = std::unique_ptr<cairo_t, Freed<cairo_destroy>>;
using Layout = std::unique_ptr<PangoLayout, Freed<g_object_unref>>;
using Font = std::unique_ptr<PangoFontDescription, Freed<pango_font_description_free>>;

Layout laid_out(cairo_t* to, const skin::Text& text) {
  Layout layout(pango_cairo_create_layout(to));
  // In a scaled drawing whole dots are too coarse a grid for letters.
  PangoContext* context = pango_layout_get_context(layout.get());
  pango_context_set_round_glyph_positions(context, FALSE);
  cairo_font_options_t* options = cairo_font_options_create();
  cairo_font_options_set_hint_metrics(options, CAIRO_HINT_METRICS_OFF);
  pango_cairo_context_set_font_options(context, options);
  cairo_font_options_destroy(options);
  pango_layout_context_changed(layout.get());
  const Font font(pango_font_description_from_string("Inter, DejaVu Sans"));
  pango_font_description_set_absolute_size(font.get(), text.size * PANGO_SCALE);
  pango_font_description_set_weight(font.get(), text.bold ? PANGO_WEIGHT_SEMIBOLD : PANGO_WEIGHT_NORMAL);
  pango_layout_set_font_description(layout.get(), font.get());
  pango_layout_set_text(layout.get(), text.words.data(), static_cast<int>(text.words.size()));
  return layout;
}

double width_of(PangoLayout* layout) {
  PangoRectangle logical;
  pango_layout_get_extents(layout, nullptr, &logical);
  return static_cast<double>(logical.width) / PANGO_SCALE;
}

class Painter {
 public:
  Painter(cairo_t* to, const Images& images) : to_(to), images_(images) {
    cairo_set_line_join(to, CAIRO_LINE_JOIN_ROUND);
    cairo_set_line_cap(to, CAIRO_LINE_CAP_ROUND);
  }

  void draw(const skin::Picture& picture) {
    for (const skin::Step& step : skin::flat(picture))
      std::visit([this](const auto& one) { draw(one); }, step);
  }

 private:
  void use(Colour colour) { cairo_set_source_rgba(to_, colour.red, colour.green, colour.blue, colour.alpha); }

  void ink(const skin::Ink& ink) {
    if (ink.fill) {
      use(*ink.fill);
      cairo_fill_preserve(to_);
    }
    if (ink.stroke) {
      use(*ink.stroke);
      cairo_set_line_width(to_, ink.width);
      cairo_set_dash(to_, &ink.dash, ink.dash > 0.0 ? 1 : 0, 0.0);
      cairo_stroke_preserve(to_);
    }
    cairo_new_path(to_);
  }

  void draw(const skin::Path& path) {
    for (const Point& point : path.points) cairo_line_to(to_, point.x, point.y);
    if (path.closed) cairo_close_path(to_);
    ink(path.ink);
  }

  void draw(const skin::Disc& disc) {
    cairo_arc(to_, disc.centre.x, disc.centre.y, disc.radius, 0.0, 2.0 * std::numbers::pi);
    cairo_close_path(to_);
    ink(disc.ink);
  }

  void draw(const skin::PlacedText& placed) {
    const skin::Text& text = placed.text;
    const Layout layout = laid_out(to_, text);
    double x = 0.0;
    if (text.align == skin::Align::right) x -= width_of(layout.get());
    if (text.align == skin::Align::centre) x -= width_of(layout.get()) / 2;
    const double baseline = static_cast<double>(pango_layout_get_baseline(layout.get())) / PANGO_SCALE;
    use(text.colour);
    cairo_save(to_);
    cairo_translate(to_, text.at.x, text.at.y);
    cairo_rotate(to_, placed.turn);
    cairo_move_to(to_, x, -baseline);
    pango_cairo_show_layout(to_, layout.get());
    cairo_restore(to_);
    cairo_new_path(to_);
  }

  void draw(const skin::PlacedImage& placed) { images_.draw(to_, placed); }

  void draw(const skin::Begin& begin) {
    cairo_save(to_);
    if (begin.clip) {
      for (const Point& corner : *begin.clip) cairo_line_to(to_, corner.x, corner.y);
      cairo_close_path(to_);
      cairo_clip(to_);
    }
    opacities_.push_back(begin.opacity);
    if (begin.opacity < 1.0) cairo_push_group(to_);
  }

  void draw(const skin::End&) {
    if (opacities_.back() < 1.0) {
      cairo_pop_group_to_source(to_);
      cairo_paint_with_alpha(to_, opacities_.back());
    }
    opacities_.pop_back();
    cairo_restore(to_);
  }

  std::vector<double> opacities_;  // of what has begun
  cairo_t* to_;
  ImagePainter images_;
};

cairo_status_t keep(void* bytes, const unsigned char* data, unsigned length) {
  static_cast<std::string*>(bytes)->append(reinterpret_cast<const char*>(data), length);
  return CAIRO_STATUS_SUCCESS;
}

void demand(cairo_status_t status, const std::string& path) {
  if (status != CAIRO_STATUS_SUCCESS)
    throw std::runtime_error(path + ": cannot be written: " + cairo_status_to_string(status));
}

void check_size(int width, int height) {
  constexpr int max = 16384;
  if (width < 1 || height < 1 || width > max || height > max)
    throw std::invalid_argument("size " + std::to_string(width) + "x" + std::to_string(height) +
                                " is not taken; it takes 1x1 to 16384x16384");
}

}  // namespace

void save(const skin::Picture& picture, int width, int height, const std::string& path, const About& about,
          const Images& images) {
  check_size(width, height);
  const bool png = path.ends_with(".png");
  if (!png && !path.ends_with(".svg"))
    throw std::invalid_argument(path + ": this ending is not taken; it takes .png or .svg");
  if (!png) return file::write_whole(path, svg_of(picture, width, height, about, images));
  std::string bytes;
  const Surface surface(cairo_image_surface_create(CAIRO_FORMAT_ARGB32, width, height));
  demand(cairo_surface_status(surface.get()), path);
  {
    const Context context(cairo_create(surface.get()));
    Painter(context.get(), images).draw(picture);
    demand(cairo_status(context.get()), path);
  }
  demand(cairo_surface_write_to_png_stream(surface.get(), &keep, &bytes), path);
  file::write_whole(path, bytes);
}

void save_moving(const std::vector<skin::Picture>& pages, Micros each, Micros last, int width, int height,
                 const std::string& path, const Images& images) {
  check_size(width, height);
  if (!path.ends_with(".png")) throw std::invalid_argument(path + ": a moving picture is written as .png");
  MovingPng made(width, height, pages.size());
  for (const skin::Picture& page : pages) {
    const Surface surface(cairo_image_surface_create(CAIRO_FORMAT_RGB24, width, height));
    demand(cairo_surface_status(surface.get()), path);
    {
      const Context context(cairo_create(surface.get()));
      Painter(context.get(), images).draw(page);
      demand(cairo_status(context.get()), path);
    }
    cairo_surface_flush(surface.get());
    made.add(surface.get(), &page == &pages.back() ? last : each);
  }
  file::write_whole(path, std::move(made).bytes());
}

double text_width(const skin::Text& text) {
  static const Surface surface(cairo_image_surface_create(CAIRO_FORMAT_A8, 1, 1));
  static const Context context(cairo_create(surface.get()));
  return width_of(laid_out(context.get(), text).get());
}

}  // namespace ubbo::paint
