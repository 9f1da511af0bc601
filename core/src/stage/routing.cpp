#include "ubbo/stage/routing.hpp"

#include <algorithm>
#include <cmath>

#include "chain.hpp"
#include "ubbo/parts/kind.hpp"
#include "ubbo/stage/wheeling.hpp"

namespace ubbo {

using namespace chain;

namespace {

// A contact that goes down at `at` is on it: it takes it there, or is away and may be pulled in there.
bool on_it(const Part& part, Point at) {
  if (part.removing()) return false;  // it only plays its way out
  if (part.visible()) return part.takes(at);
  return part.absent() && !part.hidden() && part.pulled_at(at) &&
         (part.outer() == nullptr || part.outer()->visible());
}

// How far inside it, or inside a piece of it that lies beside it, such as the action that a row uncovers;
// below 0 beside all of these, as on the backdrop of a layer. dp.
double depth_in(const Part& part, Point at) {
  const double depth = part.box().depth(at);
  if (depth >= 0.0) return depth;
  const Box piece = piece_under(part, at).box;
  return piece.contains(at) ? piece.depth(at) : depth;
}

// A wheel drags it along, or zooms it.
bool follows_wheel(const Part& part, const Sample& sample) {
  const PartKind& kind = part.kind();
  if (Wheeling::zooms_by(sample)) return kind.wheel_zooms;
  const DragInterest interest = part.drag_interest(sample);
  return (kind.wheel == WheelUse::scrolls || kind.wheel == WheelUse::both) &&
         (interest.horizontal || interest.vertical);
}

}  // namespace

void Routing::Chain::erase(const Part& part) {
  size_ = static_cast<std::size_t>(std::remove(room_, room_ + size_, &part) - room_);
}

void Routing::Chain::move_to(Part** room) {
  std::copy_n(room_, size_, room);
  room_ = room;
}

void Routing::reserve(std::size_t depth) {
  if (depth <= depth_) return;
  std::vector<Part*> chains(contests_.size() * depth);
  for (std::size_t i = 0; i < contests_.size(); ++i) contests_[i].chain.move_to(&chains[i * depth]);
  chains_.swap(chains);
  depth_ = depth;
}

// Who has how many contacts is what waits for the lift goes by.
void Routing::own(Contest& contest, Part* part) {
  if (contest.contact != nullptr && contest.owner != nullptr) --contest.owner->post_.contacts;
  contest.owner = part;
  if (contest.contact != nullptr && part != nullptr) ++part->post_.contacts;
}

bool Routing::capture(Part& part, const Contact& contact, const Sample& sample) {
  timekeeper_->before(part);
  const bool captured = part.capture(contact, sample);
  if (captured) part.post_.captured |= bit_of(contact);
  timekeeper_->after(part);
  return captured;
}

// A move or a lift, to one that has captured the contact.
void Routing::pass(Part& part, const Contact& contact, const Sample& sample) {
  if ((part.post_.captured & bit_of(contact)) == 0) return;
  timekeeper_->before(part);
  if (sample.phase == Phase::up) {
    part.post_.captured &= static_cast<std::uint16_t>(~bit_of(contact));
    part.lift(contact, sample);
  } else {
    part.move(contact, sample);
  }
  timekeeper_->after(part);
}

void Routing::let_go(Part& part, const Contact& contact, LetGo how) {
  if ((part.post_.captured & bit_of(contact)) == 0) return;
  part.post_.captured &= static_cast<std::uint16_t>(~bit_of(contact));
  timekeeper_->before(part);
  part.let_go(contact, how);
  timekeeper_->after(part);
}

void Routing::share(const Contest& contest, const Contact& contact, const Sample& sample) {
  for (std::size_t r = 0; r < contest.chain.size(); ++r) {
    Part& part = *contest.chain[r];
    if (&part == contest.owner || !part.contact_rules().observes) continue;
    if (sample.phase == Phase::down)
      capture(part, contact, sample);
    else if (sample.phase == Phase::cancel)
      let_go(part, contact, LetGo::cancelled);
    else
      pass(part, contact, sample);
  }
}

void Routing::offer(const Parts& parts, Contact& contact, const Sample& sample) {
  Contest& contest = contest_of(contact);
  contest.chain.clear();
  contest.owner = nullptr;
  contest.contact = &contact;
  contest.before = sample.at;
  contest.open = false;
  contest.left = {};
  const Feel& feel = context_->feels.of(sample.tool);
  const auto nobody = [&](const auto& why, auto... held) {
    context_->journal.record(context_->now, {}, why, sample.at.x, sample.at.y, held...);
  };
  if (feel.palm_size > 0.0 && sample.size >= feel.palm_size)
    return nobody(answers::owner_palm, Held{sample.size, feel.palm_size});
  const double from_edge = context_->screen.depth(sample.at);
  if (feel.bezel > 0.0 && from_edge <= feel.bezel)
    return nobody(answers::owner_bezel, Held{from_edge, feel.bezel});
  for (std::size_t i = parts.size(); i-- > 0;) {
    Part& part = *parts[i];
    if (!on_it(part, sample.at)) continue;
    if (accept(part, contact, sample)) return;
  }
  nobody(answers::owner_nobody);
}

Part* Routing::topmost(const Parts& parts, Point at) const {
  for (std::size_t i = parts.size(); i-- > 0;)
    if (parts[i]->visible() && on_it(*parts[i], at))
      return depth_in(*parts[i], at) < 0.0 ? nullptr : parts[i];
  return nullptr;
}

Part* Routing::under(const Parts& parts, Point at) const {
  for (Part* part = topmost(parts, at); part != nullptr; part = part->modal() ? nullptr : part->outer_)
    if (part->enabled()) return part;
  return nullptr;
}

const Part* Routing::offered(const Parts& parts, Point at) const {
  const double bezel = context_->feels.of(Tool::finger).bezel;
  if (bezel > 0.0 && context_->screen.depth(at) <= bezel) return nullptr;
  const auto top =
      std::find_if(parts.rbegin(), parts.rend(), [&](const Part* part) { return on_it(*part, at); });
  const Part* first = nullptr;
  for (const Part* part = top == parts.rend() ? nullptr : *top; part != nullptr;
       part = part->modal() ? nullptr : part->outer_) {
    if (!part->enabled()) continue;
    if (part->catches()) return part;
    if (first == nullptr) first = part;
  }
  return first;
}

// True when the search for an owner is over.
bool Routing::accept(Part& topmost, Contact& contact, const Sample& sample) {
  Contest& contest = contest_of(contact);
  const auto says = [&](const Part& part, const answers::Owner& answer) {
    const double depth = depth_in(part, sample.at);
    part.decide(answer, sample.at.x, sample.at.y, {depth, 0.0},
                static_cast<double>(contest.chain.size()) - 1.0, -depth);
  };
  const bool was_away = topmost.absent();
  contest.chain.clear();
  for (Part* part = &topmost; part != nullptr; part = part->modal() ? nullptr : part->outer_)
    if (part->enabled() && (sample.tool != Tool::wheel || follows_wheel(*part, sample)))
      contest.chain.push_back(part);
  if (contest.chain.empty() && sample.tool == Tool::wheel) return true;
  if (contest.chain.empty()) {
    // It hides what lies below all the same.
    says(topmost, answers::owner_disabled);
    return true;
  }
  contest.rivals = contest.chain.size() - 1;
  Part* first = contest.chain.front();
  const auto caught = std::find_if(contest.chain.begin(), contest.chain.end(),
                                   [](const Part* part) { return part->catches(); });
  const bool catches = caught != contest.chain.end();
  if (catches) first = *caught;
  contact.contested = contest.open = contest.chain.size() > 1;
  if (!capture(*first, contact, sample)) {
    says(*first, answers::owner_held);
    contest.chain.clear();
    contact.contested = contest.open = false;
    return false;
  }
  own(contest, first);
  const bool beside = depth_in(*first, sample.at) < 0.0;
  says(*first, was_away       ? answers::owner_pulled
               : beside       ? answers::owner_beside
               : catches      ? answers::owner_catches
               : contest.open ? answers::owns_first
                              : answers::owns);
  share(contest, contact, sample);
  return true;
}

// The part that is to drag along `axis` towards `side`, or null.
Part* Routing::choose(const Contest& contest, const Contact& contact, Axis axis, Side side) const {
  Part* at_its_end = nullptr;
  for (Part* part : contest.chain)
    if (follows(*part, contact, axis) && part->drag_interest(contact.down).handle) return part;
  for (Part* part : contest.chain) {
    if (!follows(*part, contact, axis)) continue;
    if (at_its_end == nullptr) at_its_end = part;
    if (!part->can_go(side)) continue;
    // Moved at once what lies around it scrolls; held still before, it is this one that is meant.
    const bool waits = axis == Axis::vertical && part->drag_interest(contact.down).after_hold &&
                       contact.last.time - contact.down.time < part->feel_for(contact.down.tool).hold_delay;
    if (waits && std::any_of(contest.chain.begin(), contest.chain.end(), [&](const Part* other) {
          return other != part && lies_in(*part, *other) && follows(*other, contact, axis) &&
                 other->can_go(side);
        }))
      continue;
    const Part* first = part->first_;
    const bool yields = first != nullptr && yields_towards(part->contact_rules(), side) &&
                        among(contest.chain, first) && follows(*first, contact, axis) && first->can_go(side);
    if (!yields) return part;
  }
  return at_its_end;
}

void Routing::explain(const Contest& contest, const Contact& contact, const Part& winner, Axis axis,
                      Side side, const Sample& sample) const {
  const Point moved = sample.at - contact.down.at;
  const bool by_handle = winner.drag_interest(contact.down).handle;
  bool outside = false;
  for (const Part* part : contest.chain) {
    if (part == &winner) {
      outside = true;
      continue;
    }
    const answers::ContestLost& why = part->contact_rules().observes   ? answers::contest_observes
                                      : !follows(*part, contact, axis) ? answers::contest_axis
                                      : outside && !by_handle          ? answers::contest_inside
                                      : by_handle                      ? answers::contest_handle
                                      : !part->can_go(side)            ? answers::contest_end
                                                                       : answers::contest_yields;
    part->decide(why, std::fabs(along(axis, moved)), std::fabs(across(axis, moved)));
  }
}

// Before anybody owns it, and where nobody does, by the stage's.
const Feel& Routing::feel_of(const Contest& contest, Tool tool) const {
  return contest.owner != nullptr ? contest.owner->feel_for(tool) : context_->feels.of(tool);
}

void Routing::resolve(Contact& contact, const Sample& sample) {
  Contest& contest = contest_of(contact);
  const Point moved = sample.at - contact.down.at;
  const Feel& feel = feel_of(contest, sample.tool);
  const Axis axis = feel.main_axis(moved);
  const double travel = std::fabs(along(axis, moved));
  const double threshold = feel.threshold(axis);
  if (travel < threshold || travel == 0.0) return;
  contest.open = contact.contested = false;
  const Side side = side_along(axis, moved);
  Part* winner = choose(contest, contact, axis, side);
  const Held passed{travel, threshold};
  if (winner == nullptr) return context_->journal.record(context_->now, {}, answers::contest_nobody, passed);
  explain(contest, contact, *winner, axis, side, sample);
  if (winner != contest.owner) {
    if (Part* loser = contest.owner) {
      own(contest, nullptr);
      // One that shares goes on seeing it.
      if (!loser->contact_rules().observes) let_go(*loser, contact, LetGo::lost);
    }
    Sample down = contact.down;
    down.time = sample.time;
    if (!capture(*winner, contact, down)) {
      // Held by another contact: nobody drags, and the one that had it knows of its end already.
      winner->decide(answers::contest_held);
      return;
    }
    own(contest, winner);
  }
  winner->decide(answers::contest_won, passed, std::fabs(across(axis, moved)),
                 static_cast<double>(contest.rivals));
}

void Routing::deliver(Contact& contact, const Sample& sample) {
  Contest& contest = contest_of(contact);
  if (contest.open && sample.phase != Phase::cancel) resolve(contact, sample);
  if (contest.chain.size() > 1) share(contest, contact, sample);
  if (contest.owner == nullptr) {
    // Nobody has it.
  } else if (sample.phase == Phase::cancel) {
    let_go(*contest.owner, contact, LetGo::cancelled);
  } else {
    if (contest.chain.size() > 1 && !contest.open) settle_yielding(contact, sample);
    // An end first moves, then lifts, so that what is left over still finds its way.
    if (contest.owner->surface_ != nullptr) drag(contact, sample);
    if (sample.phase == Phase::up || contest.owner->surface_ == nullptr)
      pass(*contest.owner, contact, sample);
    if (sample.phase == Phase::move && feel_of(contest, sample.tool).prediction > Micros{0})
      predict(contact, sample);
  }
  contest.before = sample.at;
  if (sample.phase == Phase::up || sample.phase == Phase::cancel) end(contact);
}

void Routing::end(Contact& contact) {
  Contest& contest = contest_of(contact);
  Part* owner = contest.owner;
  own(contest, nullptr);
  contest.owner = owner;  // whose flick may yet go on
  contest.contact = nullptr;
  contest.open = false;
  for (std::size_t r = 0; r < contest.chain.size(); ++r) {
    Part& part = *contest.chain[r];
    if (&part != owner && part.surface_ != nullptr) {
      timekeeper_->before(part);
      part.surface_->predict({});
      part.surface_->left_behind();
    }
    timekeeper_->after(part);
  }
}

void Routing::cancel(Part& part, Micros now) {
  for (Contest& contest : contests_) {
    if (contest.contact == nullptr || !among(contest.chain, &part)) continue;
    const bool owned = contest.owner == &part;
    if (!owned && !part.contact_rules().observes) continue;
    Contact& contact = *contest.contact;
    contact.seen.time = std::max(contact.seen.time, now);
    if (owned) own(contest, nullptr);
    let_go(part, contact, LetGo::cancelled);
    if (part.surface_ != nullptr) part.surface_->predict({});
    contest.chain.erase(part);
  }
}

void Routing::forget(const Part& part) {
  for (Contest& contest : contests_) {
    contest.chain.erase(part);
    if (contest.owner == &part) contest.owner = nullptr;
  }
}

}  // namespace ubbo
