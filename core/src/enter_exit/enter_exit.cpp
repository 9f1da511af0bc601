#include "ubbo/enter_exit/enter_exit.hpp"

#include <algorithm>

namespace ubbo {

namespace {

constexpr std::array state_names{"absent", "entering", "present", "leaving"};

}  // namespace

const char* name_of(EnterExit::State state) { return state_names[static_cast<std::size_t>(state)]; }

EnterExit::EnterExit(EnterExitPlan plan, bool here) : state_(here ? State::present : State::absent) {
  movers_.reserve(property_count);
  set_plan(std::move(plan));
}

void EnterExit::set_plan(EnterExitPlan plan) {
  const bool other_start = !(plan.from == plan_.from);
  plan_ = std::move(plan);
  for (std::size_t i = 0; i < property_count; ++i) {
    const auto which = static_cast<Property>(i);
    const double present = property(VisualState{}, which);
    if (property(plan_.from, which) != present || property(plan_.to, which) != present) mover_of(which);
  }
  if (state_ == State::absent && other_start) put(false);
}

Mover& EnterExit::mover_of(Property property) {
  for (Moving& one : movers_)
    if (one.property == property) return one.mover;
  return movers_.emplace_back(Moving{property, Mover(ubbo::property(VisualState{}, property))}).mover;
}

void EnterExit::put(bool here) {
  state_ = here ? State::present : State::absent;
  for (Moving& one : movers_) one.mover.put(property(here ? VisualState{} : plan_.from, one.property));
}

void EnterExit::send(const VisualState& goal, const Transitions& by, Micros now) {
  for (Moving& one : movers_) {
    const double to = property(goal, one.property);
    one.mover.set_reduced(reduced_);
    if (one.mover.moving() || one.mover.value() != to) one.mover.send(to, by.of(one.property), now);
  }
  settle();
}

bool EnterExit::open(Micros now) {
  advance(now);
  if (open()) return false;
  if (state_ == State::absent) put(false);
  state_ = State::entering;
  send({}, plan_.enter, now);
  return true;
}

bool EnterExit::close(Micros now) {
  advance(now);
  if (!open()) return false;
  state_ = State::leaving;
  send(plan_.to, plan_.exit, now);
  return true;
}

void EnterExit::show_leaving(double fraction) {
  if (state_ != State::present) return;
  for (Moving& one : movers_) {
    const double present = property(VisualState{}, one.property);
    one.mover.put(present + (property(plan_.to, one.property) - present) * fraction);
  }
}

void EnterExit::come_back(Micros now) {
  advance(now);
  if (state_ != State::present) return;
  state_ = State::entering;
  send({}, plan_.enter, now);
}

bool EnterExit::settle() {
  if (!moving()) return false;
  for (const Moving& one : movers_)
    if (one.mover.moving()) return false;
  state_ = state_ == State::entering ? State::present : State::absent;
  return true;
}

VisualState EnterExit::visual_state(Micros now) const {
  VisualState visual_state;
  double seen = 1.0;  // a fade that stands for all travel
  for (const Moving& one : movers_) {
    property(visual_state, one.property) = one.mover.at(now).value;
    seen = std::min(seen, one.mover.opacity_at(now));
  }
  visual_state.opacity = std::clamp(visual_state.opacity, 0.0, 1.0) * seen;
  return visual_state;
}

double EnterExit::velocity(Property property, Micros now) const {
  for (const Moving& one : movers_)
    if (one.property == property) return one.mover.at(now).velocity;
  return 0.0;
}

Micros EnterExit::due() const {
  Micros next = never;
  for (const Moving& one : movers_) next = std::min(next, one.mover.due());
  return next;
}

bool EnterExit::advance(Micros now) {
  for (Moving& one : movers_) one.mover.advance(now);
  return settle();
}

}  // namespace ubbo
