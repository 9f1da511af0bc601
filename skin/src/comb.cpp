#include "ubbo/skin/comb.hpp"

#include <utility>

#include "painter.hpp"

namespace ubbo::skin {

namespace {

// Those that dim the rest, or all others.
Picture drawn_pieces(const Part& part, const CombColours& colours, const Lettering& lettering, bool dims) {
  Picture picture;
  Painter painter(picture, colours, lettering, part.context().right_to_left);
  pieces_of(part, [&](const Piece& piece) {
    if ((piece.role == Role::backdrop) != dims) return;
    const auto before = static_cast<std::ptrdiff_t>(picture.size());
    painter.paint(piece);
    if (!piece.clip) return;
    Group seen{
        .shapes = {std::make_move_iterator(picture.begin() + before), std::make_move_iterator(picture.end())},
        .clip = *piece.clip};
    picture.erase(picture.begin() + before, picture.end());
    picture.emplace_back(std::move(seen));
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

Picture comb(const Part& part, const CombColours& colours, const Lettering& lettering) {
  Picture picture = drawn_pieces(part, colours, lettering, true);
  for (Shape& shape : drawn_pieces(part, colours, lettering, false)) picture.push_back(std::move(shape));
  return picture;
}

Picture comb(const Stage& stage, const CombColours& colours, const Looks& looks, const Lettering& lettering) {
  Picture picture;
  picture.emplace_back(paper({0.0, 0.0, stage.width(), stage.height()}, 0.0, {.fill = colours.paper}));
  for (const Part* part : stage.parts()) {
    if (!part->in_sight()) continue;
    for (Shape& shape : drawn_pieces(*part, colours, lettering, true)) picture.push_back(std::move(shape));
    const auto own = looks.find(part->kind().name);
    Picture drawn =
        own == looks.end() ? drawn_pieces(*part, colours, lettering, false) : own->second(*part, colours);
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
  if (const Part* focused = stage.focused(); stage.shows_focus() && focused->in_sight()) {
    constexpr double clear = 3.0;
    const Box box = inner(focused->box(), {-clear, -clear, -clear, -clear});
    picture.emplace_back(paper(box, 0.0, {.stroke = colours.heather, .width = 2.0}));
  }
  return picture;
}

}  // namespace ubbo::skin
