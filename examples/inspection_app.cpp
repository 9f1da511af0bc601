// The inspection screen of an app in one file: its cells, its parts, its events, drawn with Cairo. A finger
// is played on it, since there is no screen here; an app hands in the platform's touches instead.
#include <cairo.h>

#include <cmath>
#include <cstdio>
#include <string>
#include <ubbo/ubbo.hpp>

using namespace std::chrono_literals;
using ubbo::Box;
using ubbo::Point;

namespace {

// What the app owns, and the parts that show and change it.
struct Inspection {
  ubbo::Cell<double> frames{4}, brood_from{2}, brood_to{5}, temper{3}, checked{0.5};
  ubbo::Cell<bool> queen_seen{false}, smoker_lit{false};
  std::string said;  // what the app last heard

  ubbo::Stage stage{{.width = 360, .height = 720, .feel = ubbo::feels::gloved}};

  Inspection() {
    stage.add<ubbo::Slider>(
        "frames", {40, 120, 280, 48},
        {.label = "frames of honey", .value = frames, .to = 10, .step = 1, .on_rest = [this](double n) {
           said = ubbo::plain_number(n) + " frames of honey";
         }});
    stage.add<ubbo::RangeSlider>("brood", {40, 216, 280, 48},
                                 {.label = "brood frames, from and to",
                                  .low = brood_from,
                                  .high = brood_to,
                                  .to = 10,
                                  .step = 1,
                                  .min_gap = 1});
    stage.add<ubbo::Switch>("queen", {40, 312, 64, 36}, {.label = "queen seen", .on = queen_seen});
    stage.add<ubbo::Button>("smoker", {176, 308, 144, 44}, {.label = "smoker lit", .down = smoker_lit});
    stage.add<ubbo::Rating>("temper", {40, 400, 280, 48},
                            {.label = "temper", .value = temper, .halves = true});
    stage.add<ubbo::ProgressBar>("checked", {40, 496, 280, 10},
                                 {.label = "boxes checked", .fraction = checked});
    stage.add<ubbo::Button>("save", {40, 552, 280, 52},
                            {.label = "Save inspection", .on_press = [this] { save(); }});
  }
  void save() {
    said = "saved: " + ubbo::plain_number(frames.get()) + " frames of honey, temper " +
           ubbo::plain_number(temper.get()) + (queen_seen.get() ? ", queen seen" : "");
    checked.set(1.0);
  }
};

// A part is drawn by the roles of its pieces: fifteen lines for all of them.
class Painter {
 public:
  explicit Painter(cairo_t* to) : to_(to) {
    cairo_select_font_face(to, "Inter", CAIRO_FONT_SLANT_NORMAL, CAIRO_FONT_WEIGHT_BOLD);
  }
  void paint(const ubbo::Piece& piece) const {
    using ubbo::Role;
    const bool round = piece.role == Role::handle || piece.role == Role::mark;
    const double solid = piece.opacity;
    if (piece.role == Role::track) fill(piece.box, 0.16, 0.14, 0.19, 0.16);
    if (piece.role == Role::surface || piece.role == Role::row || piece.role == Role::button)
      fill(piece.box, 1.0, 1.0, 1.0, piece.held ? 0.9 : 0.5);
    if (piece.role == Role::fill) fill(piece.box, 0.87, 0.62, 0.12, solid);
    if (round) hexagon(piece.box, piece.on ? piece.fraction : 0.0, piece.held);
    if (!piece.words.empty()) write(piece);
  }

 private:
  void fill(const Box& b, double red, double green, double blue, double alpha) const {
    cairo_set_source_rgba(to_, red, green, blue, alpha);
    cairo_rectangle(to_, b.x, b.y, b.w, b.h);
    cairo_fill(to_);
  }
  void hexagon(const Box& b, double fraction, bool held) const {
    for (int corner = 0; corner < 6; ++corner) {
      const double turn = (corner - 1.5) * std::acos(-1.0) / 3;
      cairo_line_to(to_, b.centre().x + b.w / 2 * std::cos(turn), b.centre().y + b.w / 2 * std::sin(turn));
    }
    cairo_close_path(to_);
    cairo_save(to_);
    cairo_set_source_rgb(to_, 0.97, 0.95, 0.89);
    cairo_fill_preserve(to_);
    cairo_clip_preserve(to_);
    cairo_path_t* outline = cairo_copy_path(to_);
    cairo_new_path(to_);
    fill({b.x, b.y, b.w * fraction, b.h}, 0.87, 0.62, 0.12, 1.0);
    cairo_restore(to_);
    cairo_append_path(to_, outline);
    cairo_path_destroy(outline);
    cairo_set_source_rgb(to_, held ? 0.46 : 0.16, held ? 0.33 : 0.14, held ? 0.56 : 0.19);
    cairo_set_line_width(to_, held ? 3.0 : 1.4);
    cairo_stroke(to_);
  }
  void write(const ubbo::Piece& piece) const {
    const std::string words(piece.words);
    const bool centred = piece.role == ubbo::Role::value || piece.role == ubbo::Role::handle;
    cairo_set_font_size(to_, std::fmin(0.7 * piece.box.h, 15.0));
    cairo_text_extents_t size;
    cairo_text_extents(to_, words.c_str(), &size);
    const double x = centred ? piece.box.centre().x - size.width / 2 : piece.box.x;
    cairo_set_source_rgb(to_, 0.16, 0.14, 0.19);
    cairo_move_to(to_, x, piece.box.centre().y + 5.0);
    cairo_show_text(to_, words.c_str());
    cairo_new_path(to_);
  }

  cairo_t* to_;
};

// From `from` to `to` in a quarter of a second, and up.
void finger(ubbo::Stage& stage, Point from, Point to) {
  const ubbo::Micros begin = stage.now() + 16ms;
  for (int i = 0; i <= 30; ++i)
    stage.touch({.time = begin + i * 8ms,
                 .contact = 1,
                 .phase = i == 0 ? ubbo::Phase::down : ubbo::Phase::move,
                 .at = from + (to - from) * (i / 30.0)});
  stage.touch({.time = begin + 400ms, .contact = 1, .phase = ubbo::Phase::up, .at = to});
  for (int frame = 0; !stage.settled(); ++frame) stage.advance(begin + 400ms + frame * 16ms);
}

}  // namespace

int main(int argc, char** argv) {
  const char* path = argc > 1 ? argv[1] : "inspection_app.png";
  Inspection app;
  app.stage.advance(0ms);
  finger(app.stage, {155, 144}, {242, 144});  // the thumb of the frames
  std::printf("%s\n", app.said.c_str());
  finger(app.stage, {60, 330}, {60, 330});    // the switch
  finger(app.stage, {150, 424}, {250, 424});  // along the marks
  finger(app.stage, {180, 578}, {180, 578});  // save
  std::printf("%s\n", app.said.c_str());

  cairo_surface_t* page = cairo_image_surface_create(CAIRO_FORMAT_RGB24, 360, 720);
  cairo_t* to = cairo_create(page);
  cairo_set_source_rgb(to, 0.97, 0.95, 0.89);
  cairo_paint(to);
  const Painter painter(to);
  app.stage.draw([&](const ubbo::Part&, const ubbo::Piece& piece) { painter.paint(piece); });
  cairo_destroy(to);
  const bool written = cairo_surface_write_to_png(page, path) == CAIRO_STATUS_SUCCESS;
  cairo_surface_destroy(page);
  std::printf("%s %s\n", written ? "wrote" : "could not write", path);
  return written ? 0 : 1;
}
