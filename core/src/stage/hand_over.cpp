// Handing a finger over within one touch. A move is offered along the chain: the owner follows as far as it
// can and says what is left; the nearest other that can go that way goes on from the very place of the
// owner's end, and so forth; what nobody takes the last one may show by overscroll. What is left of a flick
// goes the same way, and so does the place that prediction sees.
#include "chain.hpp"
#include "ubbo/stage/routing.hpp"

namespace ubbo {

using namespace chain;

void Routing::drag(Contact& contact, const Sample& sample) {
  Contest& contest = contest_of(contact);
  timekeeper_->before(*contest.owner);
  Point left = contest.owner->surface_->drag_to(contact, sample);
  for (std::size_t turns = 0; turns < contest.chain.size() && !(left == Point{}); ++turns) {
    const Side side = side_of(left);
    const bool handed = ask_others(contest.chain, contest.owner, [&](Part& other) {
      return other.surface_ != nullptr && follows(other, contact, axis_of(side)) && other.can_go(side) &&
             hand_to(other, contact, sample.at - left, answers::goes_on, length(left));
    });
    if (!handed) break;
    left = contest.owner->surface_->drag_to(contact, sample);
  }
  contest.left = left;
  if (!(left == Point{}) && sample.tool != Tool::wheel) contest.owner->surface_->overscroll();
  timekeeper_->after(*contest.owner);  // once all of the move has reached it
}

// The other goes on from `anchor`. False: it cannot.
bool Routing::hand_to(Part& other, Contact& contact, Point anchor, const answers::HandedOver& answer,
                      double distance) {
  Contest& contest = contest_of(contact);
  timekeeper_->before(other);
  if (!other.surface_->take_over(contact, anchor)) return false;
  Part& owner = *contest.owner;
  own(contest, &other);
  other.post_.captured |= bit_of(contact);
  owner.post_.captured &= static_cast<std::uint16_t>(~bit_of(contact));
  timekeeper_->before(owner);
  owner.surface_->hand_over();
  other.decide(answer, distance);
  timekeeper_->after(owner);
  timekeeper_->after(other);
  return true;
}

// Where one part yields to another in one direction only, who drags follows from where the finger goes.
void Routing::settle_yielding(Contact& contact, const Sample& sample) {
  const Contest& contest = contest_of(contact);
  const Point step = sample.at - contest.before;
  if (step == Point{}) return;
  for (Part* part : contest.chain) {
    Part* first = part->first_;
    const auto that_way = side_of(part->contact_rules().yield_direction);
    if (first == nullptr || !that_way || !among(contest.chain, first)) continue;
    const Axis axis = axis_of(*that_way);
    const Side side = side_along(axis, step);
    if (along(axis, step) == 0.0) continue;
    Part* rightful = side == *that_way ? first : part;
    const Part* other = side == *that_way ? part : first;
    if (contest.owner != other || other->surface_ == nullptr || rightful->surface_ == nullptr ||
        !rightful->can_go(side) || !follows(*rightful, contact, axis))
      continue;
    hand_to(*rightful, contact, contest.before, answers::comes_first, length(step));
    return;
  }
}

void Routing::predict(const Contact& contact, const Sample& sample) {
  Contest& contest = contest_of(contact);
  if (contest.open || contest.owner == nullptr || contest.owner->surface_ == nullptr) return;
  const Feel& feel = feel_of(contest, sample.tool);
  const Point seen =
      ubbo::predict(contact.history, sample.at, sample.time, feel.prediction, feel.velocity_rules());
  Point left = contest.owner->surface_->predict(seen - sample.at);
  ask_others(contest.chain, contest.owner, [&](Part& other) {
    if (other.surface_ == nullptr) return false;
    const Side side = side_of(left);
    const bool goes = !(left == Point{}) && follows(other, contact, axis_of(side)) && other.can_go(side);
    if (goes)
      left = other.surface_->predict(left);
    else
      other.surface_->predict({});
    return false;
  });
}

bool Routing::pass_flick(Part& part, Point velocity) {
  const Side side = side_of(velocity);
  const auto take = [&](Part& other) {
    if (other.surface_ == nullptr || other.contact_rules().observes || !other.visible() || !other.enabled() ||
        !other.can_go(side))
      return false;
    timekeeper_->before(other);
    const bool took = other.surface_->take_momentum(velocity);
    if (took) other.decide(answers::goes_on_with_flick, length(velocity));
    timekeeper_->after(other);
    return took;
  };
  for (Contest& contest : contests_)
    if (contest.owner == &part && contest.contact == nullptr) return ask_others(contest.chain, &part, take);
  for (Part* at = &part; !at->modal() && at->outer_ != nullptr; at = at->outer_)
    if (take(*at->outer_)) return true;
  return false;
}

}  // namespace ubbo
