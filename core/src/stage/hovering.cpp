// Which part is under a pointer that touches nothing, and when another one will be.
#include <algorithm>

#include "ubbo/stage/stage.hpp"

namespace ubbo {

namespace {

// What moves is looked at this often, at times that do not depend on frames or on when it began; between two
// of them the change is closed in on.
constexpr Micros apart{4'000};
// No further ahead than this at a time.
constexpr Micros ahead{64'000};

}  // namespace

bool Stage::take_hover(const Sample& sample) {
  if (sample.tool == Tool::finger) return false;  // none is over a screen that it does not touch
  pointed_ = true;
  if (sample.phase == Phase::hover)
    hover_.point(sample);
  else
    hover_.leave(sample);
  return false;
}

Hover::Over Stage::under_pointer() const {
  if (!hover_.pointing() || open_contacts() > 0) return {};
  Part* part = routing_.under(order_.parts(), hover_.at());
  return part == nullptr ? Hover::Over{} : Hover::Over{part, piece_under(*part, hover_.at())};
}

Cursor Stage::cursor() const {
  if (!hover_.pointing()) return Cursor::automatic;
  const Part* part = hover_.over().part;
  if (open_contacts() > 0) {
    Cursor held = Cursor::automatic;
    contacts_.each_open([&](const Contact& contact) {
      const Part* owner = contact.last.tool == Tool::mouse ? routing_.owner(contact) : nullptr;
      if (owner == nullptr || held != Cursor::automatic) return;
      pieces_of(*owner, [&held](const Piece& piece) {
        if (piece.held && piece.cursor != Cursor::automatic) held = piece.cursor;
      });
    });
    return held;
  }
  if (const Part* top = routing_.topmost(order_.parts(), hover_.at()); top != nullptr && !top->enabled())
    return Cursor::not_allowed;
  return part == nullptr ? Cursor::automatic : piece_under(*part, hover_.at()).cursor;
}

void Stage::look_under_pointer() {
  if (hover_.clock() == nullptr) return;
  const Hover::Over found = under_pointer();
  if (const Hover::Over before = hover_.over(); found != before) {
    if (before.part != nullptr && before.part != found.part)
      before.part->decide(answers::hover_leaves, hover_.at().x, hover_.at().y);
    if (found.part != nullptr && before.part != found.part)
      found.part->decide(answers::hover_enters, hover_.at().x, hover_.at().y);
    hover_.move_to(found, context_.now);
    after(*hover_.clock());
  }
  look_ahead_of_hover();
}

// Motions are known beforehand up to what is due next.
void Stage::look_ahead_of_hover() {
  hover_due_ = hover_look_ = never;
  if (!hover_.pointing() || open_contacts() > 0 || unsettled_ == 0) return;
  const Micros now = context_.now;
  const Hover::Over present = hover_.over();
  const auto differs_at = [&](Micros time) {
    context_.now = time;
    const bool differs = under_pointer() != present;
    context_.now = now;
    return differs;
  };
  const Micros until = std::min(now + ahead, next_due());
  Micros same = now;
  for (Micros next = (now / apart + 1) * apart; same < until; next += apart) {
    Micros other = std::min(next, until);
    if (!differs_at(other)) {
      same = other;
      continue;
    }
    while (other - same > Micros{1}) {
      const Micros middle = same + (other - same) / 2;
      (differs_at(middle) ? other : same) = middle;
    }
    hover_due_ = other;
    return;
  }
  if (until == now + ahead) hover_look_ = until;
}

}  // namespace ubbo
