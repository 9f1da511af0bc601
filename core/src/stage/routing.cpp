#include "ubbo/stage/routing.hpp"

#include <algorithm>
#include <cmath>

namespace ubbo {

namespace {

Side side_along(Axis axis, Point way) {
  if (axis == Axis::horizontal) return way.x < 0.0 ? Side::left : Side::right;
  return way.y < 0.0 ? Side::up : Side::down;
}

Axis axis_of(Side side) {
  return side == Side::left || side == Side::right ? Axis::horizontal : Axis::vertical;
}

bool towards(const Standing& standing, Side side) {
  return standing.towards == Towards::any || static_cast<int>(standing.towards) == static_cast<int>(side) + 1;
}

bool follows(const Part& part, const Contact& contact, Axis axis) {
  return !part.standing().shares && part.wish(contact.down).follows(axis);
}

// A contact that goes down at `at` is on it: it takes it there, or is away and may be pulled in there.
bool on_it(const Part& part, Point at) {
  if (part.doomed()) return false;  // it only plays its way out
  if (part.visible()) return part.takes(at);
  return part.away() && !part.hidden() && part.pulled_at(at) &&
         (part.outer() == nullptr || part.outer()->visible());
}

bool among(const std::vector<Part*>& chain, const Part* part) {
  return std::find(chain.begin(), chain.end(), part) != chain.end();
}

// Inwards from the owner, then outwards: the order in which the others are asked.
template <class F>
bool ask_others(const std::vector<Part*>& chain, const Part* owner, F&& take) {
  const auto found = std::find(chain.begin(), chain.end(), owner);
  if (found == chain.end()) return false;
  const auto position = static_cast<std::size_t>(found - chain.begin());
  for (std::size_t step = 1; step < chain.size(); ++step)
    if (take(*chain[step <= position ? position - step : step])) return true;
  return false;
}

}  // namespace

void Routing::reserve(std::size_t depth) {
  for (Contest& contest : contests_) contest.chain.reserve(depth);
}

bool Routing::touch(Part& part, const Contact& contact, const Sample& sample) {
  keeper_->before(part);
  const bool took = part.touch(contact, sample);
  keeper_->after(part);
  return took;
}

void Routing::share(const Contest& contest, const Contact& contact, const Sample& sample) {
  for (std::size_t r = 0; r < contest.chain.size(); ++r)
    if (contest.chain[r] != contest.owner && contest.chain[r]->standing().shares)
      touch(*contest.chain[r], contact, sample);
}

void Routing::refuse(const Sample& sample, const Answer& answer, const Fact& fact) const {
  around_->journal.record(around_->now, {}, answer,
                          {Fact::plain("x", sample.at.x, "dp"), Fact::plain("y", sample.at.y, "dp"), fact});
}

void Routing::offer(const Parts& parts, Contact& contact, const Sample& sample) {
  Contest& contest = contest_of(contact);
  contest.chain.clear();
  contest.owner = nullptr;
  contest.contact = &contact;
  contest.before = sample.at;
  contest.open = false;
  const Feel& feel = around_->feels.of(sample.tool);
  if (feel.palm_size > 0.0 && sample.size >= feel.palm_size)
    return refuse(sample, answers::owner_palm, Fact::below("size", sample.size, "dp", feel.palm_size));
  const double from_edge = around_->screen.depth(sample.at);
  if (feel.bezel > 0.0 && from_edge <= feel.bezel)
    return refuse(sample, answers::owner_bezel, Fact::above("from the edge", from_edge, "dp", feel.bezel));
  for (std::size_t i = parts.size(); i-- > 0;) {
    Part& part = *parts[i];
    if (!on_it(part, sample.at)) continue;
    if (accept(part, contact, sample)) return;
  }
  around_->journal.record(around_->now, {}, answers::owner_nobody,
                          {Fact::plain("x", sample.at.x, "dp"), Fact::plain("y", sample.at.y, "dp")});
}

// True when the search for an owner is over.
bool Routing::accept(Part& topmost, Contact& contact, const Sample& sample) {
  Contest& contest = contest_of(contact);
  const auto says = [&](const Part& part, const Answer& answer) {
    part.decide(answer, {Fact::plain("x", sample.at.x, "dp"), Fact::plain("y", sample.at.y, "dp"),
                         Fact::above("inside by", part.box().depth(sample.at), "dp", 0.0),
                         Fact::plain("rivals", static_cast<double>(contest.chain.size()) - 1.0, ""),
                         Fact::plain("outside by", -part.box().depth(sample.at), "dp")});
  };
  const bool was_away = topmost.away();
  contest.chain.clear();
  for (Part* part = &topmost; part != nullptr; part = part->modal() ? nullptr : part->outer_)
    if (part->enabled()) contest.chain.push_back(part);
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
  contact.contested = contact.shared = contest.open = contest.chain.size() > 1;
  if (!touch(*first, contact, sample)) {
    says(*first, answers::owner_held);
    contest.chain.clear();
    contact.contested = contact.shared = contest.open = false;
    return false;
  }
  contest.owner = first;
  const bool beside = first->box().depth(sample.at) < 0.0;
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
    if (follows(*part, contact, axis) && part->wish(contact.down).handle) return part;
  for (Part* part : contest.chain) {
    if (!follows(*part, contact, axis)) continue;
    if (at_its_end == nullptr) at_its_end = part;
    if (!part->can_go(side)) continue;
    const Part* first = part->first_;
    const bool stands_back = first != nullptr && towards(part->standing(), side) &&
                             among(contest.chain, first) && follows(*first, contact, axis) &&
                             first->can_go(side);
    if (!stands_back) return part;
  }
  return at_its_end;
}

void Routing::explain(const Contest& contest, const Contact& contact, const Part& winner, Axis axis,
                      Side side, const Sample& sample) const {
  const Point moved = sample.at - contact.down.at;
  const bool by_handle = winner.wish(contact.down).handle;
  bool outside = false;
  for (const Part* part : contest.chain) {
    if (part == &winner) {
      outside = true;
      continue;
    }
    const Answer& why = part->standing().shares          ? answers::contest_shares
                        : !follows(*part, contact, axis) ? answers::contest_axis
                        : outside && !by_handle          ? answers::contest_inside
                        : by_handle                      ? answers::contest_handle
                        : !part->can_go(side)            ? answers::contest_end
                                                         : answers::contest_stands_back;
    part->decide(why, {Fact::plain("along", std::fabs(along(axis, moved)), "dp"),
                       Fact::plain("across", std::fabs(across(axis, moved)), "dp")});
  }
}

// Before anybody owns it, and where nobody does, by the stage's.
const Feel& Routing::feel_of(const Contest& contest, Tool tool) const {
  return contest.owner != nullptr ? contest.owner->feel_for(tool) : around_->feels.of(tool);
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
  const Fact passed = Fact::above("along", travel, "dp", threshold);
  if (winner == nullptr) return around_->journal.record(around_->now, {}, answers::contest_nobody, {passed});
  explain(contest, contact, *winner, axis, side, sample);
  if (winner != contest.owner) {
    if (Part* loser = std::exchange(contest.owner, nullptr)) {
      keeper_->before(*loser);
      loser->lose(contact, sample);
      keeper_->after(*loser);
    }
    Sample sent = sample;
    sent.phase = Phase::down;
    sent.at = contact.down.at;
    if (!touch(*winner, contact, sent)) {
      // Held by another contact: nobody drags, and the one that had it knows of its end already.
      winner->decide(answers::contest_held);
      return;
    }
    contest.owner = winner;
  }
  winner->decide(answers::contest_won, {passed, Fact::plain("across", std::fabs(across(axis, moved)), "dp"),
                                        Fact::plain("rivals", static_cast<double>(contest.rivals), "")});
}

void Routing::deliver(Contact& contact, const Sample& sample) {
  Contest& contest = contest_of(contact);
  if (contest.open && sample.phase != Phase::cancel) resolve(contact, sample);
  if (contact.shared) share(contest, contact, sample);
  if (contest.owner != nullptr) {
    const bool moves = sample.phase == Phase::move || sample.phase == Phase::up;
    if (moves && contact.shared && !contest.open) settle_standing(contact, sample);
    // An end first moves, then lifts, so that what is left over still finds its way.
    if (moves && contact.shared) {
      Sample moved = sample;
      moved.phase = Phase::move;
      touch(*contest.owner, contact, moved);
      pass_on(contact, moved);
    }
    if (sample.phase != Phase::move || !contact.shared) touch(*contest.owner, contact, sample);
    if (sample.phase == Phase::move && feel_of(contest, sample.tool).prediction > Micros{0})
      foresee(contact, sample);
  }
  contest.before = sample.at;
  if (sample.phase == Phase::up || sample.phase == Phase::cancel) end(contact);
}

// Where one part stands back for another in one direction only, who drags follows from where the finger goes.
void Routing::settle_standing(Contact& contact, const Sample& sample) {
  const Contest& contest = contest_of(contact);
  const Point step = sample.at - contest.before;
  if (step == Point{}) return;
  for (Part* part : contest.chain) {
    Part* first = part->first_;
    if (first == nullptr || part->standing().towards == Towards::any || !among(contest.chain, first))
      continue;
    const auto that_way = static_cast<Side>(static_cast<int>(part->standing().towards) - 1);
    const Side side = side_along(axis_of(that_way), step);
    if (along(axis_of(that_way), step) == 0.0) continue;
    Part* rightful = side == that_way ? first : part;
    const Part* other = side == that_way ? part : first;
    if (contest.owner != other || !rightful->can_go(side) || !follows(*rightful, contact, axis_of(that_way)))
      continue;
    return hand_to(*rightful, contact, contest.before, answers::comes_first,
                   Fact::plain("step", length(step), "dp"));
  }
}

void Routing::hand_to(Part& other, Contact& contact, Point anchor, const Answer& answer, const Fact& fact) {
  Contest& contest = contest_of(contact);
  keeper_->before(other);
  if (!other.take_over(contact, anchor)) return;
  Part& owner = *contest.owner;
  contest.owner = &other;
  keeper_->before(owner);
  owner.hand_over();
  other.decide(answer, {fact});
  keeper_->after(owner);
  keeper_->after(other);
}

void Routing::pass_on(Contact& contact, const Sample& sample) {
  Contest& contest = contest_of(contact);
  for (std::size_t turns = 0; turns < contest.chain.size(); ++turns) {
    const Part* before = contest.owner;
    const Point left = before->leftover();
    if (left == Point{}) return;
    const Side side = side_of(left);
    ask_others(contest.chain, before, [&](Part& other) {
      if (!follows(other, contact, axis_of(side)) || !other.can_go(side)) return false;
      hand_to(other, contact, sample.at - left, answers::goes_on,
              Fact::plain("left over", length(left), "dp"));
      return contest.owner != before;
    });
    if (contest.owner == before) break;
  }
  contest.owner->strain();
  keeper_->after(*contest.owner);
}

// The place that is predicted is shared out among the parts as the finger's own is.
void Routing::foresee(Contact& contact, const Sample& sample) {
  Contest& contest = contest_of(contact);
  if (contest.open || contest.owner == nullptr) return;
  const Feel& feel = feel_of(contest, sample.tool);
  const Point seen = predict(contact.history, sample.at, sample.time, feel.prediction, feel.velocity_rules());
  Point left = contest.owner->foresee(seen - sample.at);
  ask_others(contest.chain, contest.owner, [&](Part& other) {
    const Side side = side_of(left);
    const bool goes = left != Point{} && follows(other, contact, axis_of(side)) && other.can_go(side);
    if (goes)
      left = other.foresee(left);
    else
      other.foresee({});
    return false;
  });
}

void Routing::end(Contact& contact) {
  Contest& contest = contest_of(contact);
  contest.open = false;
  for (std::size_t r = 0; r < contest.chain.size(); ++r) {
    Part& part = *contest.chain[r];
    if (&part != contest.owner) {
      keeper_->before(part);
      part.foresee({});
      part.left_behind(contact);
    }
    keeper_->after(part);
  }
  contest.contact = nullptr;
}

bool Routing::pass_flick(Part& part, Point velocity) {
  const Side side = side_of(velocity);
  const auto take = [&](Part& other) {
    if (other.standing().shares || !other.visible() || !other.enabled() || !other.can_go(side)) return false;
    keeper_->before(other);
    const bool took = other.take_momentum(velocity);
    if (took) other.decide(answers::goes_on_with_flick, {Fact::plain("speed", length(velocity), "dp/s")});
    keeper_->after(other);
    return took;
  };
  for (Contest& contest : contests_)
    if (contest.owner == &part && contest.contact == nullptr) return ask_others(contest.chain, &part, take);
  for (Part* at = &part; !at->modal() && at->outer_ != nullptr; at = at->outer_)
    if (take(*at->outer_)) return true;
  return false;
}

void Routing::cancel(Part& part, Micros now) {
  for (Contest& contest : contests_) {
    if (contest.contact == nullptr || !among(contest.chain, &part)) continue;
    const bool owned = contest.owner == &part;
    if (!owned && !part.standing().shares) continue;
    Sample sample = contest.contact->seen;
    sample.phase = Phase::cancel;
    sample.time = std::max(sample.time, now);
    if (owned) contest.owner = nullptr;
    touch(part, *contest.contact, sample);
    part.foresee({});
    std::erase(contest.chain, &part);
  }
}

void Routing::forget(const Part& part) {
  for (Contest& contest : contests_) {
    std::erase(contest.chain, &part);
    if (contest.owner == &part) contest.owner = nullptr;
  }
}

}  // namespace ubbo
