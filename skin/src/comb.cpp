#include "ubbo/skin/comb.hpp"

#include <cmath>
#include <string>

#include "ubbo/base/maths.hpp"

namespace ubbo::skin {

namespace {

// Surfaces as tall as this are sheets, which have a cut corner.
constexpr double sheet_height = 160.0;
constexpr double sheet_cut = 18.0;

// Paints one piece after another.
class Painter {
 public:
  Painter(Picture& picture, const CombColours& colours, bool right_to_left)
      : picture_(&picture), colours_(&colours), right_to_left_(right_to_left) {}

  void paint(const Piece& piece) {
    switch (piece.role) {
      case Role::backdrop:
        add(paper(piece.box, 0.0, {.fill = day.ink.with_alpha(piece.opacity)}));
        break;
      case Role::behind:
        backdrop(piece);
        break;
      case Role::surface:
        surface(piece);
        break;
      case Role::track:
        add(paper(piece.box, 0.0, {.fill = colours_->ink.with_alpha(0.16 * piece.opacity)}));
        break;
      case Role::fill:
        add(paper(piece.box, 0.0, {.fill = colours_->honey.with_alpha(piece.opacity)}));
        break;
      case Role::mark:
        mark(piece);
        break;
      case Role::handle:
        handle(piece);
        break;
      case Role::label:
      case Role::value:
        words(piece);
        break;
    }
  }

 private:
  void add(Shape shape) { picture_->push_back(std::move(shape)); }

  // What it says is seen as far as it is laid bare.
  void backdrop(const Piece& piece) {
    const Box& box = piece.box;
    add(paper(box, 0.0, {.fill = (piece.on ? colours_->moss : colours_->brick).with_alpha(piece.opacity)}));
    if (piece.words.empty()) return;
    constexpr double size = 15.0;
    add(Group{.shapes = {Text{.at = box.centre() + Point{0.0, size * 0.36},
                              .words = std::string(piece.words),
                              .size = size,
                              .colour = colours_->paper.with_alpha(piece.opacity),
                              .align = Align::centre,
                              .bold = true}},
              .clip = box});
  }

  void surface(const Piece& piece) {
    if (piece.bare) {
      if (piece.held)
        add(paper(piece.box, 8.0,
                  {.fill = colours_->heather.with_alpha(0.14), .stroke = colours_->heather, .width = 1.6}));
      return;
    }
    // What comes up over others stands out from them; like a sheet it has a cut corner.
    const double cut = piece.box.h >= sheet_height ? sheet_cut : piece.notice ? 0.6 * sheet_cut : 0.0;
    Path sheet = paper(piece.box, cut,
                       {.fill = (piece.notice ? colours_->ink : colours_->paper).with_alpha(piece.opacity),
                        .stroke = colours_->ink.with_alpha((piece.held ? 0.8 : 0.3) * piece.opacity),
                        .width = 1.2});
    const Point middle = piece.box.centre();
    for (Point& corner : sheet.points) corner = middle + turned(corner - middle, piece.turn);
    add(std::move(sheet));
  }

  static Colour faded(const Colour& colour, double by) { return colour.with_alpha(colour.alpha * by); }

  void mark(const Piece& piece) {
    const double radius = piece.box.w / 2;
    constexpr double large = 8.0;  // a thing of its own, not a tick on a track
    const bool is_large = radius >= large;
    const Colour full =
        piece.held ? colours_->heather.with_alpha(0.6) : colours_->honey.with_alpha(is_large ? 0.75 : 1.0);
    const auto painted = [&](bool on) {
      const double line = is_large ? 1.0 : piece.on ? 0.55 : 0.35;
      return hexagon(piece.box.centre(), radius,
                     {.fill = faded(on ? full : colours_->paper, piece.opacity),
                      .stroke = colours_->ink.with_alpha(line * piece.opacity),
                      .width = is_large ? 1.6 : 1.0},
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

  void handle(const Piece& piece) {
    const Box& box = piece.box;
    if (box.w > 2.0 * box.h) {  // a grip: two short parallel bars
      for (const double y : {box.y + 1.0, box.bottom() - 1.0})
        add(line({box.x, y}, {box.right(), y}, colours_->ink.with_alpha(0.6), 2.0));
      return;
    }
    const double radius = std::fmin(box.w, box.h) / 2;
    add(hexagon(box.centre(), radius,
                {.fill = colours_->honey.with_alpha(piece.opacity),
                 .stroke = (piece.held ? colours_->heather : colours_->ink).with_alpha(piece.opacity),
                 .width = piece.held ? 3.0 : 2.0},
                piece.turn));
    if (piece.words.empty()) return;
    const double size = radius * (piece.words.size() < 3 ? 0.95 : 0.68);
    add(Text{.at = box.centre() + Point{0.0, size * 0.36},
             .words = std::string(piece.words),
             .size = size,
             .colour = day.ink.with_alpha(piece.opacity),
             .align = Align::centre,
             .bold = true});
  }

  void words(const Piece& piece) {
    if (piece.words.empty()) return;
    const bool centred = piece.role == Role::value;
    const Box& box = piece.box;
    const Colour& colour = !piece.notice ? colours_->ink : centred ? colours_->honey : colours_->paper;
    add(Text{.at = {centred          ? box.centre().x
                    : right_to_left_ ? box.right()
                                     : box.x,
                    box.y + 0.8 * box.h},
             .words = std::string(piece.words),
             .size = 0.7 * box.h,
             .colour = colour.with_alpha(piece.opacity),
             .align = centred          ? Align::centre
                      : right_to_left_ ? Align::right
                                       : Align::left,
             .bold = true});
  }

  Picture* picture_;
  const CombColours* colours_;
  bool right_to_left_;
};

}  // namespace

namespace {

Picture pieces_of(const Part& part, const CombColours& colours, bool veils) {
  Picture picture;
  Painter painter(picture, colours, part.context().right_to_left);
  part.kind().pieces(part, [&](const Piece& piece) {
    if ((piece.role == Role::backdrop) == veils) painter.paint(piece);
  });
  return picture;
}

// What is drawn of what lies in `box` as a visual state has it: smaller, turned, covered from a side.
void dress(Picture& drawn, const VisualState& visual_state, const Box& box, double opacity) {
  if (visual_state.covered != Insets{}) {
    const Insets off{visual_state.covered.left * box.w, visual_state.covered.top * box.h,
                     visual_state.covered.right * box.w, visual_state.covered.bottom * box.h};
    Group clipped{.shapes = std::move(drawn), .clip = inner(box, off)};
    drawn.clear();
    drawn.emplace_back(std::move(clipped));
  }
  if (visual_state.scale == 1.0 && visual_state.turn == 0.0 && opacity >= 1.0) return;
  Group shown = about(box.centre(), std::move(drawn), visual_state.scale, visual_state.turn);
  shown.opacity = opacity;
  drawn.clear();
  drawn.emplace_back(std::move(shown));
}

}  // namespace

Picture comb(const Part& part, const CombColours& colours) {
  Picture picture = pieces_of(part, colours, true);
  for (Shape& shape : pieces_of(part, colours, false)) picture.push_back(std::move(shape));
  return picture;
}

Picture comb(const Stage& stage, const CombColours& colours, const Looks& looks) {
  Picture picture;
  picture.emplace_back(paper({0.0, 0.0, stage.width(), stage.height()}, 0.0, {.fill = colours.paper}));
  for (const Part* part : stage.parts()) {
    if (!part->in_sight()) continue;
    for (Shape& shape : pieces_of(*part, colours, true)) picture.push_back(std::move(shape));
    const auto own = looks.find(part->kind().name);
    Picture drawn = own == looks.end() ? pieces_of(*part, colours, false) : own->second(*part, colours);
    constexpr double disabled = 0.4;
    dress(drawn, part->visual_state(), part->box(), part->opacity() * (part->enabled() ? 1.0 : disabled));
    // What lies in other parts is seen only within all of them, and as they show.
    std::optional<Box> window;
    const auto cut = [&] {
      if (!window) return;
      Group within{.shapes = std::move(drawn), .clip = *std::exchange(window, std::nullopt)};
      drawn.clear();
      drawn.emplace_back(std::move(within));
    };
    const Part* inner = part;
    for (const Part* outer = part->outer(); outer != nullptr; inner = std::exchange(outer, outer->outer())) {
      if (const VisualState by = outer->visual_state_of(*inner); !(by == VisualState{})) {
        cut();
        dress(drawn, by, inner->box(), by.opacity);
      }
      window = window ? common(*window, outer->window()) : outer->window();
      const VisualState visual_state = outer->visual_state();
      if (visual_state.scale == 1.0 && visual_state.turn == 0.0 && visual_state.covered == Insets{} &&
          outer->opacity() >= 1.0)
        continue;
      cut();
      dress(drawn, visual_state, outer->box(), outer->opacity());
    }
    cut();
    for (Shape& shape : drawn) picture.push_back(std::move(shape));
  }
  return picture;
}

}  // namespace ubbo::skin
