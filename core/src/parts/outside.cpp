#include "ubbo/parts/outside.hpp"

#include "ubbo/parts/press.hpp"

namespace ubbo {

bool Outside::down(const Contact& contact, const Sample& sample, On on) {
  if (slot_ != none) return false;
  slot_ = contact.slot;
  on_ = on;
  from_ = sample.at;
  strayed_ = 0.0;
  return true;
}

bool Outside::lift(const Part& part, const Contact& contact, const Sample& sample) {
  follow(sample);
  slot_ = none;
  return was_tap(part, contact, sample, strayed_);
}

}  // namespace ubbo
