// Any renderer will do: this one reads the slider's state and draws it with Cairo, as a jar filling with
// honey.
#include <cairo.h>

#include <cstdio>
#include <ubbo/ubbo.hpp>

using namespace std::chrono_literals;

namespace {

void box(cairo_t* to, const ubbo::Box& b) { cairo_rectangle(to, b.x, b.y, b.w, b.h); }

void draw(cairo_t* to, const ubbo::Slider& slider) {
  cairo_set_source_rgb(to, 0.86, 0.82, 0.74);
  box(to, slider.track());
  cairo_fill(to);
  cairo_set_source_rgb(to, 0.87, 0.62, 0.12);
  box(to, slider.fill());
  cairo_fill(to);
  const ubbo::Point thumb = slider.thumb();
  const double reach = slider.pressed() ? 22 : 18;
  cairo_move_to(to, thumb.x, thumb.y - reach);
  cairo_line_to(to, thumb.x + reach * 0.6, thumb.y);
  cairo_line_to(to, thumb.x, thumb.y + reach);
  cairo_line_to(to, thumb.x - reach * 0.6, thumb.y);
  cairo_close_path(to);
  cairo_set_source_rgb(to, 0.46, 0.33, 0.56);
  cairo_fill(to);
}

}  // namespace

int main(int argc, char** argv) {
  const char* path = argc > 1 ? argv[1] : "own_drawing.png";
  ubbo::Cell<double> stores{0.2};
  ubbo::Stage stage{{.width = 360, .height = 420}};
  auto& slider = stage.add<ubbo::Slider>("stores", {.x = 20, .y = 10, .w = 320, .h = 44},
                                         {.label = "stores", .value = stores, .thickness = 14});
  cairo_surface_t* page = cairo_image_surface_create(CAIRO_FORMAT_RGB24, 360, 420);
  cairo_t* to = cairo_create(page);
  cairo_set_source_rgb(to, 0.97, 0.95, 0.89);
  cairo_paint(to);

  // The app fills the stores; eight frames of the thumb on its way, one below the other.
  stores.set(0.9);
  stage.advance(0ms);  // told the time, the thumb sets off
  for (int frame = 0; frame < 8; ++frame) {
    stage.advance(frame * 36ms);
    draw(to, slider);
    cairo_translate(to, 0, 50);
  }
  cairo_destroy(to);
  const bool written = cairo_surface_write_to_png(page, path) == CAIRO_STATUS_SUCCESS;
  cairo_surface_destroy(page);
  std::printf("%s %s\n", written ? "wrote" : "could not write", path);
  return written ? 0 : 1;
}
