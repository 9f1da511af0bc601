#include "ubbo/stage/seen_pieces.hpp"

#include <algorithm>
#include <cmath>

#include "ubbo/base/maths.hpp"

namespace ubbo {

namespace {

// The box around a box that is scaled and turned about a point.
Box context(const Box& box, Point centre, double scale, double radians) {
  const Point middle = centre + turned(box.centre() - centre, radians) * scale;
  const auto [sin, cos] = maths::sin_cos(radians);
  const double s = std::fabs(sin);
  const double c = std::fabs(cos);
  const Size size{(box.w * c + box.h * s) * scale, (box.w * s + box.h * c) * scale};
  return {middle.x - size.w / 2, middle.y - size.h / 2, size.w, size.h};
}

// What of a box its visual state leaves uncovered.
std::optional<Box> uncovered(const Box& box, const Insets& covered) {
  if (covered == Insets{}) return {};
  return inner(box,
               {covered.left * box.w, covered.top * box.h, covered.right * box.w, covered.bottom * box.h});
}

std::optional<Box> both(const std::optional<Box>& a, const std::optional<Box>& b) {
  return a && b ? common(*a, *b) : a ? a : b;
}

}  // namespace

SeenThrough::SeenThrough(const Part& part) {
  const VisualState own = part.visual_state();
  add(part.box().centre(), own, uncovered(part.box(), own.covered));
  const Part* inner = &part;
  for (const Part* outer = part.outer(); outer != nullptr; inner = std::exchange(outer, outer->outer())) {
    const VisualState by = outer->visual_state_of(*inner);
    const Box box = inner->box();
    add(box.centre(), by, both(uncovered(box, by.covered), outer->window()));
    const VisualState visual_state = outer->visual_state();
    add(outer->box().centre(), visual_state, uncovered(outer->box(), visual_state.covered));
  }
}

void SeenThrough::add(Point centre, const VisualState& visual_state, std::optional<Box> clip) {
  const bool changes =
      visual_state.scale != 1.0 || visual_state.turn != 0.0 || visual_state.opacity != 1.0 || clip;
  if (!changes || count_ == steps_.size()) return;
  steps_[count_++] = {centre, visual_state.scale, visual_state.turn, visual_state.opacity, clip};
}

Piece SeenThrough::operator()(Piece piece) const {
  for (std::size_t i = 0; i < count_; ++i) {
    const Step& step = steps_[i];
    piece.clip = both(piece.clip, step.clip);
    piece.opacity *= std::clamp(step.opacity, 0.0, 1.0);
    if (step.scale == 1.0 && step.turn == 0.0) continue;
    const Point middle = step.centre + turned(piece.box.centre() - step.centre, step.turn) * step.scale;
    const double w = piece.box.w * step.scale;
    const double h = piece.box.h * step.scale;
    if (piece.image_box) {
      const Box& at = *piece.image_box;
      piece.image_box =
          Box{middle.x - w / 2 + (at.x - piece.box.x) * step.scale,
              middle.y - h / 2 + (at.y - piece.box.y) * step.scale, at.w * step.scale, at.h * step.scale};
    }
    piece.box = {middle.x - w / 2, middle.y - h / 2, w, h};
    piece.turn += step.turn;
    if (piece.clip) piece.clip = context(*piece.clip, step.centre, step.scale, step.turn);
  }
  return piece;
}

}  // namespace ubbo
