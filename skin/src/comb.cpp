#include "ubbo/skin/comb.hpp"

#include <utility>

#include "painter.hpp"

namespace ubbo::skin {

namespace {

// A part's pieces: those that dim the rest, which lie below all else of it and show as they are, and the
// others.
struct Drawn {
  Picture& dims;
  Picture others;
};

void draw_pieces(const Part& part, Drawn& drawn, const CombColours& colours, const Lettering& lettering) {
  const bool mirrored = part.context().right_to_left;
  Painter dims(drawn.dims, colours, lettering, mirrored);
  Painter others(drawn.others, colours, lettering, mirrored);
  pieces_of(part, [&](const Piece& piece) {
    const bool dim = piece.role == Role::backdrop;
    Picture& picture = dim ? drawn.dims : drawn.others;
    const auto before = static_cast<std::ptrdiff_t>(picture.size());
    (dim ? dims : others).paint(piece);
    if (!piece.clip) return;
    Group seen{
        .shapes = {std::make_move_iterator(picture.begin() + before), std::make_move_iterator(picture.end())},
        .clip = *piece.clip};
    picture.erase(picture.begin() + before, picture.end());
    picture.emplace_back(std::move(seen));
  });
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

Picture comb(const Part& part, const CombColours& colours, const Lettering& lettering) {
  Picture picture;
  Drawn drawn{picture, {}};
  draw_pieces(part, drawn, colours, lettering);
  for (Shape& shape : drawn.others) picture.push_back(std::move(shape));
  return picture;
}

Picture comb(const Stage& stage, const CombColours& colours, const Looks& looks, const Lettering& lettering) {
  Picture picture;
  picture.reserve(16);
  picture.emplace_back(paper({0.0, 0.0, stage.width(), stage.height()}, 0.0, {.fill = colours.paper}));
  for (const Part* part : stage.parts()) {
    if (!part->in_sight()) continue;
    Drawn pieces{picture, {}};
    pieces.others.reserve(4);
    draw_pieces(*part, pieces, colours, lettering);
    const auto own = looks.find(part->kind().name);
    Picture drawn = own == looks.end() ? std::move(pieces.others) : own->second(*part, colours);
    constexpr double disabled = 0.4;
    const VisualState state = part->visual_state();
    dress(drawn, state, part->box(), state.opacity * (part->enabled() ? 1.0 : disabled));
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
          visual_state.opacity >= 1.0)
        continue;
      cut();
      dress(drawn, visual_state, outer->box(), visual_state.opacity);
    }
    cut();
    for (Shape& shape : drawn) picture.push_back(std::move(shape));
  }
  if (const Part* focused = stage.focused(); stage.shows_focus() && focused->in_sight()) {
    constexpr double clear = 3.0;
    const Box box = inner(focused->box(), {-clear, -clear, -clear, -clear});
    picture.emplace_back(paper(box, 0.0, {.stroke = colours.heather, .width = 2.0}));
  }
  return picture;
}

}  // namespace ubbo::skin
