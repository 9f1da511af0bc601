#include "ubbo/enter_exit/one_by_one.hpp"

#include <algorithm>

namespace ubbo {

void OneByOne::remove(const void* thing) {
  std::erase_if(coming_, [&](const Coming& one) { return one.thing == thing; });
}

void OneByOne::set_out(const Transition& transition, Micros gap, Reduced reduced, Micros now) {
  Micros wait = transition.delay;
  for (Coming& one : coming_) {
    one.mover.set_reduced(reduced);
    one.mover.send(1.0, transition.after(wait), now);
    wait += gap;
  }
}

void OneByOne::put(bool here) {
  for (Coming& one : coming_) one.mover.put(here ? 1.0 : 0.0);
}

const OneByOne::Coming* OneByOne::find(const void* thing) const {
  for (const Coming& one : coming_)
    if (one.thing == thing) return &one;
  return nullptr;
}

double OneByOne::fraction(const void* thing, Micros now) const {
  const Coming* one = find(thing);
  return one == nullptr ? 1.0 : one->mover.at(now).value;
}

double OneByOne::seen(const void* thing, Micros now) const {
  const Coming* one = find(thing);
  return one == nullptr ? 1.0 : one->mover.opacity_at(now);
}

bool OneByOne::moving() const {
  return std::any_of(coming_.begin(), coming_.end(), [](const Coming& one) { return one.mover.moving(); });
}

Micros OneByOne::due() const {
  Micros next = never;
  for (const Coming& one : coming_) next = std::min(next, one.mover.due());
  return next;
}

void OneByOne::advance(Micros now) {
  for (Coming& one : coming_) one.mover.advance(now);
}

}  // namespace ubbo
