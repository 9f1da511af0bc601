#include "ubbo/parts/hover.hpp"

#include <algorithm>
#include <utility>

#include "ubbo/parts/kind.hpp"

namespace ubbo {

template <>
std::span<const Setting<HoverContent>> settings_of<HoverContent>() {
  using declare::number;
  using H = HoverContent;
  static const std::array table{
      declare::text<&H::words>("words", "a caption; {item}: the number of its item"),
      number<&H::overlay>("overlay", "", 0.0, 1.0, "how much a shade under the caption hides"),
      number<&H::scale>("scale", "", 1.0, 4.0, "how large its picture becomes"),
      declare::choice<&H::from>("from", hover_from_names, "the side from which shade and caption come"),
      number<&H::distance>("distance", "", 0.0, 1.0, "how far they come, as a share of its size"),
      declare::transition<&H::opacity_transition>("opacity_transition",
                                                  "how shade and caption fade in and out"),
      declare::transition<&H::offset_transition>("offset_transition", "how they come and go"),
      declare::transition<&H::scale_transition>("scale_transition", "how the picture becomes larger"),
  };
  return table;
}

namespace {

bool same_pointer(const Sample& a, const Sample& b) { return a.device == b.device && a.tool == b.tool; }

}  // namespace

void Hover::point(const Sample& sample) {
  if (clock_ == nullptr) {
    clock_ = unseen_part(*context_);
    for (Shown& one : shown_) one.mover = std::make_unique<Clocked<Mover>>(*clock_, 0.0, 1e-3);
  }
  before_ = pointing_ ? pointer_.at : sample.at;
  pointing_ = true;
  pointer_ = sample;
}

void Hover::leave(const Sample& sample) {
  if (same_pointer(sample, pointer_)) pointing_ = false;
}

void Hover::follow(const Sample& sample) {
  if (pointing_ && same_pointer(sample, pointer_)) pointer_.at = sample.at;
}

void Hover::send(const Part& part, int piece, HoverShare share, const Transition& way, double to, Side side,
                 Micros now) {
  auto found = std::find_if(shown_.begin(), shown_.end(), [&](const Shown& one) {
    return one.part == &part && one.piece == piece && one.share == share;
  });
  if (found == shown_.end()) {
    if (to == 0.0) return;
    const auto seen = [now](const Shown& one) {
      return one.part == nullptr ? -1.0 : one.mover->at(now).value;
    };
    found = std::min_element(shown_.begin(), shown_.end(),
                             [&](const Shown& a, const Shown& b) { return seen(a) < seen(b); });
    found->part = &part;
    found->piece = piece;
    found->share = share;
    found->mover->put(0.0);
  }
  // Where it is all the way in or out the side can change unseen.
  const double here = found->mover->at(now).value;
  if (here == 0.0 || here == 1.0) found->side = side;
  found->mover->set_reduced(context_->reduced_motion == Reduced::still ? Reduced::still : Reduced::full);
  found->mover->send(to, way, now);
}

void Hover::show(const Part& part, int piece, double to, const Box& box, Micros now) {
  const Point from = to > 0.0 ? before_ : pointer_.at;
  const std::array outside{box.x - from.x, box.y - from.y, from.x - box.right(), from.y - box.bottom()};
  constexpr std::array sides{Side::left, Side::up, Side::right, Side::down};
  const Side side =
      sides[static_cast<std::size_t>(std::max_element(outside.begin(), outside.end()) - outside.begin())];
  send(part, piece, HoverShare::shown, transition_, to, side, now);
  const auto& content = part.content().hover;
  if (!content) return;
  send(part, piece, HoverShare::opacity, content->opacity_transition, to, side, now);
  send(part, piece, HoverShare::offset, content->offset_transition, to, side, now);
  send(part, piece, HoverShare::scale, content->scale_transition, to, side, now);
}

void Hover::move_to(const Over& over, Micros now) {
  if (clock_ == nullptr) return;
  const Over before = std::exchange(over_, over);
  const bool other_part = before.part != over.part;
  const bool other_piece = other_part || before.piece.key != over.piece.key;
  if (before.part != nullptr && before.piece.key != 0 && other_piece)
    show(*before.part, before.piece.key, 0.0, before.piece.box, now);
  if (before.part != nullptr && other_part) show(*before.part, 0, 0.0, before.part->box(), now);
  if (over.part != nullptr && other_part) show(*over.part, 0, 1.0, over.part->box(), now);
  if (over.part != nullptr && over.piece.key != 0 && other_piece)
    show(*over.part, over.piece.key, 1.0, over.piece.box, now);
}

double Hover::share_of(const Part& part, int piece, HoverShare share) const {
  for (const Shown& one : shown_)
    if (one.part == &part && one.piece == piece && one.share == share)
      return one.mover->at(context_->now).value;
  return 0.0;
}

Side Hover::side_of(const Part& part, int piece) const {
  for (const Shown& one : shown_)
    if (one.part == &part && one.piece == piece && one.share == HoverShare::offset) return one.side;
  return Side::up;
}

void Hover::forget(const Part& part) {
  if (over_.part == &part) over_ = {};
  for (Shown& one : shown_)
    if (one.part == &part) one.part = nullptr;
}

}  // namespace ubbo
