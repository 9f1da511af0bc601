#include "painter.hpp"

#include <cmath>
#include <string>
#include <utility>

#include "ubbo/skin/glyphs.hpp"

namespace ubbo::skin {

namespace {

// Surfaces as tall as this are sheets and cards, which have a cut corner.
constexpr double sheet_height = 120.0;
constexpr double sheet_cut = 20.0;
constexpr double button_cut = 8.0;
constexpr double glyph_size = 24.0;
constexpr double glyph_room = 40.0;

// A box with pointed ends, as a cell of the comb that was drawn out.
Path cell(const Box& box, Ink ink) {
  const double point = std::fmin(box.w, box.h) * 0.289;  // half of it by the tangent of 30 degrees
  if (box.w >= box.h)
    return {{{box.x, box.centre().y},
             {box.x + point, box.y},
             {box.right() - point, box.y},
             {box.right(), box.centre().y},
             {box.right() - point, box.bottom()},
             {box.x + point, box.bottom()}},
            true,
            ink};
  return {{{box.centre().x, box.y},
           {box.right(), box.y + point},
           {box.right(), box.bottom() - point},
           {box.centre().x, box.bottom()},
           {box.x, box.bottom() - point},
           {box.x, box.y + point}},
          true,
          ink};
}

Path turned_about(Path path, Point middle, double radians) {
  if (radians == 0.0) return path;
  for (Point& corner : path.points) corner = middle + turned(corner - middle, radians);
  return path;
}

// The same colour where less of it is seen.
Colour faded(const Colour& colour, double by) { return colour.with_alpha(colour.alpha * by); }

}  // namespace

void Painter::add_all(Picture shapes) {
  for (Shape& shape : shapes) add(std::move(shape));
}

void Painter::paint(const Piece& piece) {
  switch (piece.role) {
    case Role::backdrop:
      return add(paper(piece.box, 0.0, {.fill = colours_->shade.with_alpha(piece.opacity)}));
    case Role::behind:
      return behind(piece);
    case Role::surface:
      return surface(piece);
    case Role::row:
      return row(piece);
    case Role::button:
      return button(piece);
    case Role::track:
      return track(piece);
    case Role::fill:
      return fill(piece);
    case Role::mark:
      return mark(piece);
    case Role::handle:
      return handle(piece);
    case Role::label:
      return label(piece);
    case Role::value:
      return value(piece);
  }
}

void Painter::write(const Line& line, const Colour& colour) {
  double size = fitting_size(line.size, line.box.h, lettering_->scale);
  // Larger letters than were asked for give way before words are cut.
  if (const double width = lettering_->measure(line.words, size, line.bold);
      width > line.box.w && size > line.size)
    size = std::fmax(line.size, size * line.box.w / width);
  std::string words = cut_to(line.words, size, line.bold, line.box.w, lettering_->measure);
  if (words.empty()) return;
  const Box& box = line.box;
  Text text{.at = {line.align == Align::centre  ? box.centre().x
                   : line.align == Align::right ? box.right()
                                                : box.x,
                   box.y + baseline_in(box.h, size)},
            .words = std::move(words),
            .size = size,
            .colour = colour,
            .align = line.align,
            .bold = line.bold,
            .room = {box.w, box.h}};
  if (line.turn == 0.0) return add(std::move(text));
  add(about(box.centre(), {std::move(text)}, 1.0, line.turn));
}

// An action behind a row: its sign above its name, seen once there is room for them.
void Painter::behind(const Piece& piece) {
  const Box& box = piece.box;
  const bool strong = piece.failed || piece.rank != Rank::plain;
  const Colour& ground = piece.failed || piece.rank == Rank::destructive ? colours_->brick
                         : piece.rank == Rank::main                      ? colours_->moss
                                                                         : colours_->ink;
  add(paper(box, 0.0, {.fill = ground.with_alpha((strong ? 1.0 : 0.12) * piece.opacity)}));
  if (piece.held)
    add(paper(box, 0.0, {.fill = colours_->heather.with_alpha(0.32 * piece.opacity)}));
  else if (piece.hover > 0.0)
    add(paper(box, 0.0, {.fill = hovered(piece)}));
  const Colour over = (strong ? colours_->bright : colours_->ink).with_alpha(piece.opacity);
  const std::string_view sign = piece.failed ? "warn" : piece.glyph;
  const bool stacked = !sign.empty() && box.h >= 56.0;
  if (box.w < glyph_size + 8.0) return;
  if (!sign.empty() && (stacked || piece.words.empty()))
    add_all(glyph(sign, box.centre() + Point{0.0, stacked ? -10.0 : 0.0}, glyph_size, over));
  const Box line{box.x + 8.0, box.centre().y + (stacked ? 8.0 : -11.0), box.w - 16.0, 22.0};
  // Only whole: letters that come out one by one say nothing.
  const double size = fitting_size(line_size, line.h, lettering_->scale);
  if (lettering_->measure(piece.words, size, true) > line.w) return;
  write({.words = piece.words, .box = line, .size = line_size, .bold = true, .align = Align::centre}, over);
}

void Painter::surface(const Piece& piece) {
  const bool tall = piece.box.h >= sheet_height;
  if (piece.bare) {
    // It has no shape of its own. What is as large as a sheet is a ground, whose content a shade would hide.
    const Colour edge = piece.held ? colours_->heather : hovered(piece);
    if (tall && (piece.held || piece.hover > 0.0))
      add(paper(piece.box, 0.0, {.stroke = edge, .width = 1.6}));
    else if (piece.held)
      add(paper(piece.box, 0.0,
                {.fill = colours_->heather.with_alpha(0.14), .stroke = colours_->heather, .width = 1.6}));
    else if (piece.hover > 0.0)
      add(paper(piece.box, 0.0, {.fill = edge}));
    return;
  }
  const double cut = tall ? sheet_cut : piece.notice ? button_cut + 2.0 : 0.0;
  const Point middle = piece.box.centre();
  const auto card = [&](const Box& box, Ink ink) {
    return turned_about(paper(box, cut, ink), middle, piece.turn);
  };
  // What lies higher throws a thin shadow.
  if (tall || piece.notice)
    add(card(piece.box + Point{0.0, 2.0}, {.fill = colours_->shade.with_alpha(0.14 * piece.opacity)}));
  const Colour raised = colours_->raised.with_alpha(piece.opacity);
  const Colour edge_colour =
      (piece.held ? colours_->heather : colours_->ink).with_alpha((piece.held ? 1.0 : 0.24) * piece.opacity);
  const double edge_width = piece.held ? 1.6 : 1.0;
  if (piece.image.empty() && !piece.notice) {
    add(card(piece.box, {.fill = raised, .stroke = edge_colour, .width = edge_width}));
    if (!piece.held && piece.hover > 0.0) add(card(piece.box, {.fill = hovered(piece)}));
    return;
  }
  add(card(piece.box, {.fill = raised}));
  if (!piece.image.empty()) {
    Picture pictured{Image{piece.image_box.value_or(piece.box), std::string(piece.image)}};
    if (piece.image_clip) pictured = {Group{.shapes = std::move(pictured), .clip = *piece.image_clip}};
    Group seen = about(middle, std::move(pictured), 1.0, piece.turn);
    seen.opacity = piece.opacity;
    add(std::move(seen));
    if (cut > 0.0) {
      // The cut corner, over the picture.
      Path corner{{{piece.box.right() - cut, piece.box.y},
                   {piece.box.right(), piece.box.y},
                   {piece.box.right(), piece.box.y + cut}},
                  true,
                  {.fill = colours_->paper.with_alpha(piece.opacity)}};
      if (piece.opacity >= 1.0 && piece.turn == 0.0) add(std::move(corner));
    }
  }
  if (piece.notice) {
    constexpr double edge = 6.0;
    const Box& box = piece.box;
    add(paper({right_to_left_ ? box.right() - edge : box.x, box.y + (right_to_left_ ? cut : 0.0), edge,
               box.h - (right_to_left_ ? cut : 0.0)},
              0.0, {.fill = colours_->heather.with_alpha(piece.opacity)}));
  }
  add(card(piece.box, {.stroke = edge_colour, .width = edge_width}));
}

void Painter::row(const Piece& piece) {
  const Box& box = piece.box;
  add(paper(box, 0.0, {.fill = colours_->raised.with_alpha(piece.opacity)}));
  if (piece.held) add(paper(box, 0.0, {.fill = colours_->heather.with_alpha(0.10 * piece.opacity)}));
  if (!piece.held && piece.hover > 0.0) add(paper(box, 0.0, {.fill = hovered(piece)}));
  if (box.h < 2.0) return;
  add(paper({box.x, box.bottom() - 1.0, box.w, 1.0}, 0.0,
            {.fill = colours_->ink.with_alpha(0.14 * piece.opacity)}));
}

void Painter::button(const Piece& piece) {
  const bool small = piece.box.h < 40.0;
  const bool main = piece.rank == Rank::main;
  const Colour& edge = piece.held                        ? colours_->heather
                       : piece.rank == Rank::destructive ? colours_->brick
                                                         : colours_->ink;
  const double strength = piece.held || piece.rank == Rank::destructive ? 1.0 : main ? 0.0 : 0.5;
  add(paper(piece.box, small ? 0.6 * button_cut : button_cut,
            {.fill = (piece.on ? colours_->heather
                      : main   ? colours_->honey
                               : colours_->raised)
                         .with_alpha(piece.opacity),
             .stroke = edge.with_alpha(strength * piece.opacity),
             .width = piece.held ? 2.0 : 1.2}));
  if (!piece.held && piece.hover > 0.0)
    add(paper(piece.box, small ? 0.6 * button_cut : button_cut, {.fill = hovered(piece)}));
}

void Painter::track(const Piece& piece) {
  const bool drawn_out = std::fmin(piece.box.w, piece.box.h) >= 10.0;
  const Ink ink{.fill = colours_->ink.with_alpha((drawn_out ? 0.12 : 0.20) * piece.opacity)};
  add(drawn_out ? cell(piece.box, ink) : paper(piece.box, 0.0, ink));
}

void Painter::fill(const Piece& piece) {
  if (piece.opacity <= 0.0 || piece.box.w <= 0.0 || piece.box.h <= 0.0) return;
  if (piece.name == std::string_view("overlay")) {
    add(turned_about(paper(piece.box, 0.0, {.fill = colours_->heather.with_alpha(piece.opacity)}),
                     piece.box.centre(), piece.turn));
    return;
  }
  // What a press darkens is no value.
  if (!piece.on || piece.name == std::string_view("press")) {
    add(paper(piece.box, button_cut, {.fill = colours_->ink.with_alpha(0.14 * piece.opacity)}));
    return;
  }
  const bool drawn_out =
      std::fmin(piece.box.w, piece.box.h) >= 10.0 && std::fmin(piece.box.w, piece.box.h) < 40.0;
  const Ink ink{.fill = colours_->honey.with_alpha(piece.opacity)};
  add(drawn_out ? cell(piece.box, ink) : paper(piece.box, 0.0, ink));
}

void Painter::mark(const Piece& piece) {
  if (!piece.glyph.empty())
    return add_all(glyph(piece.glyph, piece.box.centre(), std::fmin(piece.box.w, piece.box.h),
                         colours_->ink.with_alpha(piece.opacity)));
  const double radius = piece.box.w / 2;
  if (piece.hover > 0.0)
    add(hexagon(piece.box.centre(), radius + 5.0 * piece.hover,
                {.fill = hovered(piece).with_alpha(0.22 * piece.hover)}, piece.turn));
  constexpr double large = 8.0;  // a thing of its own, not a tick on a track
  const bool is_large = radius >= large;
  const Colour full = piece.held ? colours_->heather : colours_->honey;
  const auto painted = [&](bool on) {
    const double line = is_large ? (on ? 0.9 : 0.5) : on ? 0.55 : 0.4;
    return hexagon(piece.box.centre(), radius,
                   {.fill = faded(on ? full : colours_->raised, piece.opacity),
                    .stroke = colours_->ink.with_alpha(line * piece.opacity),
                    .width = is_large ? 1.4 : 1.0},
                   piece.turn);
  };
  const bool half = piece.on && piece.fraction < 1.0;
  add(painted(piece.on && !half));
  if (!half) return;
  // Only so much of it, from its leading side.
  Box seen = piece.box;
  seen.w *= piece.fraction;
  if (right_to_left_) seen.x = piece.box.right() - seen.w;
  add(Group{.shapes = {painted(true)}, .clip = Box{seen.x, seen.y - 2.0, seen.w, seen.h + 4.0}});
}

void Painter::handle(const Piece& piece) {
  const Box& box = piece.box;
  if (box.w > 2.0 * box.h) {  // a grip: two short parallel bars
    const double strength = piece.held ? 0.6 : 0.6 + 0.4 * piece.hover;
    for (const double y : {box.y + 1.0, box.bottom() - 1.0})
      add(line({box.x, y}, {box.right(), y},
               (piece.held || piece.hover > 0.5 ? colours_->heather : colours_->ink).with_alpha(strength),
               2.0));
    return;
  }
  const double radius = std::fmin(box.w, box.h) / 2;
  if (!piece.held && piece.hover > 0.0)
    add(hexagon(box.centre(), radius + 6.0 * piece.hover,
                {.fill = hovered(piece).with_alpha(0.2 * piece.hover)}, piece.turn));
  add(hexagon(box.centre(), radius,
              {.fill = (piece.on ? colours_->honey : colours_->raised).with_alpha(piece.opacity),
               .stroke = (piece.held ? colours_->heather : colours_->ink).with_alpha(piece.opacity),
               .width = piece.held ? 3.0 : 1.8},
              piece.turn));
  if (piece.words.empty()) return;
  const double side = radius * 1.5;
  write({.words = piece.words,
         .box = {box.centre().x - side / 2, box.centre().y - side / 2, side, side},
         .size = radius * (piece.words.size() < 3 ? 0.95 : 0.68),
         .bold = true,
         .align = Align::centre},
        (piece.on ? colours_->dark : colours_->ink).with_alpha(piece.opacity));
}

// A name at the leading side: one line, or two, beside a sign.
void Painter::label(const Piece& piece) {
  Box box = piece.box;
  const Colour ink = colours_->ink.with_alpha(piece.opacity);
  if (!piece.glyph.empty() && box.w > 2.0 * glyph_room) {
    const double x = right_to_left_ ? box.right() - glyph_size / 2 : box.x + glyph_size / 2;
    add_all(glyph(piece.glyph, {x, box.centre().y}, glyph_size, colours_->heather.with_alpha(piece.opacity)));
    box.w -= glyph_room;
    if (!right_to_left_) box.x += glyph_room;
  }
  // As high as its line is, so large it is meant.
  const bool two = !piece.detail.empty();
  const double size = two             ? row_size
                      : box.h >= 26.0 ? title_size
                      : box.h >= 22.0 ? row_size
                      : box.h >= 18.0 ? line_size
                                      : caption_size;
  if (piece.words.empty()) return;
  Box line = box;
  if (two) line.h = 0.54 * box.h;
  write({.words = piece.words, .box = line, .size = size, .bold = true, .align = leading()}, ink);
  if (!two) return;
  line = {box.x, box.y + 0.54 * box.h, box.w, 0.46 * box.h};
  write({.words = piece.detail, .box = line, .size = line_size, .align = leading()}, faded(ink, 0.78));
}

// Words in the middle of what they stand on.
void Painter::value(const Piece& piece) {
  Box box = piece.box;
  const bool is_label = piece.name == std::string_view("label");
  const Colour& ink = piece.notice && piece.name == std::string_view("caption") ? colours_->bright
                      : piece.on && is_label                                    ? colours_->bright
                      : piece.rank == Rank::destructive                         ? colours_->brick
                      : piece.rank == Rank::main && is_label                    ? colours_->dark
                                                                                : colours_->ink;
  const double size = box.h >= 26.0   ? title_size
                      : box.h >= 22.0 ? row_size
                      : box.h >= 18.0 ? line_size
                                      : caption_size;
  if (!piece.glyph.empty()) {
    const double letters = fitting_size(size, box.h, lettering_->scale);
    const double width =
        std::fmin(lettering_->measure(piece.words, letters, true), box.w - glyph_room + 12.0);
    const double left = box.centre().x - (width + glyph_room - 12.0) / 2;
    const double x = right_to_left_ ? box.centre().x * 2 - left - 10.0 : left + 10.0;
    add_all(glyph(piece.glyph, {x, box.centre().y}, 20.0, ink.with_alpha(piece.opacity)));
    box.w -= glyph_room - 12.0;
    if (!right_to_left_) box.x += glyph_room - 12.0;
  }
  if (piece.words.empty()) return;
  // What can be chosen by these words alone, such as a tab.
  if (piece.hover > 0.0)
    add(paper({piece.box.x + 4.0, piece.box.y - 6.0, std::fmax(piece.box.w - 8.0, 0.0), piece.box.h + 12.0},
              6.0, {.fill = hovered(piece)}));
  write({.words = piece.words,
         .box = box,
         .size = size,
         .bold = true,
         .align = Align::centre,
         .turn = piece.turn},
        ink.with_alpha(piece.opacity));
}

}  // namespace ubbo::skin
