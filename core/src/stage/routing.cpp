#include "ubbo/stage/routing.hpp"

#include <algorithm>
#include <cmath>

namespace ubbo {

namespace {

bool follows(const Part& part, const Sample& sample, Axis axis) {
  const Wish wish = part.wish(sample);
  return axis == Axis::horizontal ? wish.horizontal : wish.vertical;
}

Part& part_at(const Routing::Parts& parts, int index) { return *parts[static_cast<std::size_t>(index)]; }

}  // namespace

void Routing::gather(const Parts& parts, std::size_t topmost, Contest& contest) const {
  contest.count = 0;
  contest.open = false;
  for (int at = static_cast<int>(topmost); at >= 0 && contest.count < most_rivals;) {
    contest.chain[contest.count++] = at;
    const std::string& outer = part_at(parts, at).standing().inside;
    if (outer.empty()) break;
    // What a part lies in was added before it.
    do --at;
    while (at >= 0 && part_at(parts, at).id() != outer);
  }
}

void Routing::refuse(const Sample& sample, std::string_view why, const Fact& fact) const {
  around_->journal.record(around_->now, {}, questions::owner, why,
                          {Fact::plain("x", sample.at.x, "dp"), Fact::plain("y", sample.at.y, "dp"), fact});
}

void Routing::offer(const Parts& parts, Contact& contact, const Sample& sample) {
  Contest& contest = contest_of(contact);
  contest = {};
  const Feel& feel = around_->feel_for(sample.tool);
  if (feel.palm_size > 0.0 && sample.size >= feel.palm_size)
    return refuse(sample, "nobody, it is a palm", Fact::below("size", sample.size, "dp", feel.palm_size));
  const double from_edge = around_->screen.depth(sample.at);
  if (feel.bezel > 0.0 && from_edge <= feel.bezel)
    return refuse(sample, "nobody, it began on the bezel",
                  Fact::above("from the edge", from_edge, "dp", feel.bezel));

  const Fact x = Fact::plain("x", sample.at.x, "dp");
  const Fact y = Fact::plain("y", sample.at.y, "dp");
  for (std::size_t i = parts.size(); i-- > 0;) {
    Part& part = *parts[i];
    if (!part.takes(sample.at)) continue;
    const Fact depth = Fact::above("inside by", part.box().depth(sample.at), "dp", 0.0);
    if (!part.touch(contact, sample)) {
      around_->journal.record(around_->now, part.id(), questions::owner,
                              "not this part, another contact holds it", {x, y, depth});
      continue;
    }
    contact.owner = static_cast<int>(i);
    gather(parts, i, contest);
    contest.open = contest.count > 1 && !part.wish(sample).at_once;
    for (std::size_t r = 1; r < contest.count; ++r)
      if (part_at(parts, contest.chain[r]).standing().shares)
        part_at(parts, contest.chain[r]).touch(contact, sample);
    around_->journal.record(around_->now, part.id(), questions::owner, part.id(),
                            {x, y, depth, Fact::plain("rivals", static_cast<double>(contest.count - 1), "")});
    return;
  }
  around_->journal.record(around_->now, {}, questions::owner, "nobody", {x, y});
}

// Says of each rival why it did not win, and gives the winner; -1: nobody follows such a drag.
int Routing::choose(const Parts& parts, const Contest& contest, const Contact& contact,
                    const Sample& sample) const {
  const Point moved = sample.at - contact.down.at;
  const Side side = side_of(moved);
  const Axis axis = side == Side::left || side == Side::right ? Axis::horizontal : Axis::vertical;
  const auto able = [&](const Part& part) {
    return !part.standing().shares && follows(part, sample, axis) && part.can_go(side);
  };
  const auto in_chain = [&](const std::string& id) -> const Part* {
    for (std::size_t i = 0; i < contest.count; ++i)
      if (part_at(parts, contest.chain[i]).id() == id) return &part_at(parts, contest.chain[i]);
    return nullptr;
  };
  int winner = -1;
  int at_its_end = -1;
  for (std::size_t i = 0; i < contest.count; ++i) {
    const int index = contest.chain[i];
    const Part& part = part_at(parts, index);
    const char* why = nullptr;
    const Part* first =
        part.standing().stands_back_for.empty() ? nullptr : in_chain(part.standing().stands_back_for);
    if (part.standing().shares)
      why = "no, it shares";
    else if (!follows(part, sample, axis))
      why = "no, it does not follow this axis";
    else if (winner >= 0)
      why = "no, a part inside it has it";
    else if (!part.can_go(side))
      why = "no, it is at its end";
    else if (first != nullptr && able(*first))
      why = "no, it stands back";
    if (why == nullptr) {
      winner = index;
      continue;
    }
    if (at_its_end < 0 && follows(part, sample, axis) && !part.standing().shares) at_its_end = index;
    around_->journal.record(around_->now, part.id(), questions::contest, why,
                            {Fact::plain("along", std::fabs(along(axis, moved)), "dp"),
                             Fact::plain("across", std::fabs(across(axis, moved)), "dp")});
  }
  return winner >= 0 ? winner : at_its_end;
}

void Routing::resolve(const Parts& parts, Contact& contact, const Sample& sample) {
  Contest& contest = contest_of(contact);
  const Point moved = sample.at - contact.down.at;
  const Axis axis = std::fabs(moved.x) >= std::fabs(moved.y) ? Axis::horizontal : Axis::vertical;
  const double travel = std::fabs(along(axis, moved));
  const double threshold = around_->feel_for(sample.tool).threshold(axis);
  if (travel < threshold || travel == 0.0) return;
  contest.open = false;
  const int winner = choose(parts, contest, contact, sample);
  if (winner < 0) return;
  Part& part = part_at(parts, winner);
  if (winner != contact.owner) {
    Sample sent = sample;
    sent.phase = Phase::cancel;
    part_at(parts, contact.owner).touch(contact, sent);
    sent.phase = Phase::down;
    sent.at = contact.down.at;
    const int before = std::exchange(contact.owner, winner);
    if (!part.touch(contact, sent)) {
      // Held by another contact: nobody drags, and the one that had it knows of its end already.
      contact.owner = Contact::nobody;
      around_->journal.record(around_->now, part.id(), questions::contest, "nobody, another contact holds it",
                              {Fact::plain("before", before, "")});
      return;
    }
  }
  around_->journal.record(around_->now, part.id(), questions::contest, part.id(),
                          {Fact::above("along", travel, "dp", threshold),
                           Fact::plain("across", std::fabs(across(axis, moved)), "dp"),
                           Fact::plain("rivals", static_cast<double>(contest.count - 1), "")});
}

void Routing::deliver(const Parts& parts, Contact& contact, const Sample& sample) {
  Contest& contest = contest_of(contact);
  if (contest.open && sample.phase != Phase::cancel) resolve(parts, contact, sample);
  for (std::size_t r = 1; r < contest.count; ++r)
    if (contest.chain[r] != contact.owner && part_at(parts, contest.chain[r]).standing().shares)
      part_at(parts, contest.chain[r]).touch(contact, sample);
  if (contact.owner == Contact::nobody) return;
  // An end first moves, then lifts, so that what is left over still finds its way.
  if (sample.phase == Phase::up && contest.count > 1) {
    Sample last_move = sample;
    last_move.phase = Phase::move;
    part_at(parts, contact.owner).touch(contact, last_move);
    pass_on(parts, contact, last_move);
  }
  part_at(parts, contact.owner).touch(contact, sample);
  if (sample.phase == Phase::move && contest.count > 1) pass_on(parts, contact, sample);
}

void Routing::pass_on(const Parts& parts, Contact& contact, const Sample& sample) {
  const Contest& contest = contest_of(contact);
  for (std::size_t turns = 0; turns < contest.count; ++turns) {
    Part& owner = part_at(parts, contact.owner);
    const Point left = owner.leftover();
    if (left == Point{}) return;
    const Side side = side_of(left);
    const auto* mine = std::find(contest.chain.begin(), contest.chain.begin() + contest.count, contact.owner);
    const auto position = static_cast<std::size_t>(mine - contest.chain.begin());
    bool passed = false;
    // Inwards from the owner, then outwards.
    for (std::size_t step = 1; step < contest.count && !passed; ++step) {
      const std::size_t r = step <= position ? position - step : step;
      const int index = contest.chain[r];
      Part& other = part_at(parts, index);
      if (other.standing().shares || !other.can_go(side) || !other.take_over(contact, sample.at - left))
        continue;
      owner.hand_over();
      contact.owner = index;
      passed = true;
      around_->journal.record(around_->now, other.id(), questions::hand_over, other.id(),
                              {Fact::plain("left over", length(left), "dp")});
    }
    if (!passed) return;
  }
}

}  // namespace ubbo
