#include "ubbo/visit/visit.hpp"

#include <algorithm>

namespace ubbo {

namespace {

constexpr std::array visit_names{"away", "arriving", "here", "leaving"};

}  // namespace

const char* name_of(Visit::State state) { return visit_names[static_cast<std::size_t>(state)]; }

Visit::Visit(VisitPlan plan, bool here) : state_(here ? State::here : State::away) {
  movers_.reserve(trait_count);
  set_plan(std::move(plan));
}

void Visit::set_plan(VisitPlan plan) {
  const bool other_start = !(plan.from == plan_.from);
  plan_ = std::move(plan);
  for (std::size_t i = 0; i < trait_count; ++i) {
    const auto which = static_cast<Trait>(i);
    const double rests = trait(Guise{}, which);
    if (trait(plan_.from, which) != rests || trait(plan_.to, which) != rests) mover_of(which);
  }
  if (state_ == State::away && other_start) put(false);
}

Mover& Visit::mover_of(Trait trait) {
  for (Moving& one : movers_)
    if (one.trait == trait) return one.mover;
  return movers_.emplace_back(Moving{trait, Mover(ubbo::trait(Guise{}, trait))}).mover;
}

void Visit::put(bool here) {
  state_ = here ? State::here : State::away;
  for (Moving& one : movers_) one.mover.put(trait(here ? Guise{} : plan_.from, one.trait));
}

void Visit::send(const Guise& goal, const Passages& by, Micros now) {
  for (Moving& one : movers_) {
    const double to = trait(goal, one.trait);
    one.mover.set_reduced(reduced_);
    if (one.mover.moving() || one.mover.value() != to) one.mover.send(to, by.of(one.trait), now);
  }
  settle();
}

bool Visit::open(Micros now) {
  advance(now);
  if (open()) return false;
  if (state_ == State::away) put(false);
  state_ = State::arriving;
  send({}, plan_.enter, now);
  return true;
}

bool Visit::close(Micros now) {
  advance(now);
  if (!open()) return false;
  state_ = State::leaving;
  send(plan_.to, plan_.exit, now);
  return true;
}

void Visit::show_leaving(double share) {
  if (state_ != State::here) return;
  for (Moving& one : movers_) {
    const double rests = trait(Guise{}, one.trait);
    one.mover.put(rests + (trait(plan_.to, one.trait) - rests) * share);
  }
}

void Visit::come_back(Micros now) {
  advance(now);
  if (state_ != State::here) return;
  state_ = State::arriving;
  send({}, plan_.enter, now);
}

bool Visit::settle() {
  if (!moving()) return false;
  for (const Moving& one : movers_)
    if (one.mover.moving()) return false;
  state_ = state_ == State::arriving ? State::here : State::away;
  return true;
}

Guise Visit::guise(Micros now) const {
  Guise guise;
  double seen = 1.0;  // a fade that stands for all travel
  for (const Moving& one : movers_) {
    trait(guise, one.trait) = one.mover.at(now).value;
    seen = std::min(seen, one.mover.opacity_at(now));
  }
  guise.opacity = std::clamp(guise.opacity, 0.0, 1.0) * seen;
  return guise;
}

double Visit::velocity(Trait trait, Micros now) const {
  for (const Moving& one : movers_)
    if (one.trait == trait) return one.mover.at(now).velocity;
  return 0.0;
}

Micros Visit::due() const {
  Micros next = never;
  for (const Moving& one : movers_) next = std::min(next, one.mover.due());
  return next;
}

bool Visit::advance(Micros now) {
  for (Moving& one : movers_) one.mover.advance(now);
  return settle();
}

}  // namespace ubbo
