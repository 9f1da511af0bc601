#include "ubbo/stage/layers.hpp"

#include <algorithm>

namespace ubbo {

namespace {

constexpr int max_above = 4;  // layers on it that a part is told of

}  // namespace

void Layers::reserve(std::size_t parts) {
  open_.reserve(parts);
  changed_.reserve(2 * parts);
}

void Layers::look_at(Part& part) {
  const bool open = part.layer_->is_open();
  if (open == part.post_.open && !(open && part.post_.rises)) return;
  part.post_.open = open;
  part.post_.rises = false;
  changed_.push_back(&part);
}

void Layers::settle(Micros now) {
  for (std::size_t i = 0; i < changed_.size(); ++i) {  // one that steps back may be looked at meanwhile
    Part& part = *changed_[i];
    if (!part.post_.gone) part.post_.open ? opened(part, now) : closed(part);
  }
  changed_.clear();
}

const Part* Layers::modal() const {
  if (open_.empty()) return nullptr;
  for (std::size_t i = order_->size(); i-- > 0;)
    if ((*order_)[i].modal() && (*order_)[i].visible()) return &(*order_)[i];
  return nullptr;
}

std::size_t Layers::lowest_in_use() const {
  const Part* top = modal();
  return top == nullptr ? 0 : order_->place_of(top);
}

void Layers::opened(Part& part, Micros now) {
  closed(part);  // where it was open already
  order_->raise(part);
  Part* before = focus_->given();
  if (part.modal()) {
    // What was under a finger below it has it no longer, and the keyboard goes into it.
    for (std::size_t i = 0; i < order_->size() && &(*order_)[i] != &part; ++i)
      if (!lies_in(part, (*order_)[i])) routing_->cancel((*order_)[i], now);
    focus_->give(nullptr);
    for (std::size_t i = order_->place_of(&part); i < order_->size() && focus_->given() == nullptr; ++i)
      if (&(*order_)[i] != &part && lies_in((*order_)[i], part) && Focus::can_have((*order_)[i]))
        focus_->give(&(*order_)[i]);
    if (focus_->given() == nullptr && Focus::can_have(part)) focus_->give(&part);
  }
  open_.push_back({&part, before});
  tell_covered();
}

// The focus goes back to where it was before the layer opened; where another opened since, once that closes.
void Layers::closed(const Part& part) {
  const auto found =
      std::find_if(open_.begin(), open_.end(), [&](const Layer& one) { return one.part == &part; });
  if (found == open_.end()) return;
  Part* before = found->focus_before;
  open_.erase(found);
  for (Layer& one : open_)
    if (one.focus_before != nullptr && lies_in(*one.focus_before, part)) one.focus_before = before;
  if (focus_->given() == nullptr || lies_in(*focus_->given(), part))
    focus_->give(before != nullptr && Focus::can_have(*before) ? before : nullptr);
  tell_covered();
}

void Layers::forget(const Part& part) {
  closed(part);
  for (Layer& one : open_)
    if (one.focus_before == &part) one.focus_before = nullptr;
  if (focus_->given() == &part) focus_->give(nullptr);
  std::erase(changed_, &part);
}

void Layers::tell_covered() {
  int above = 0;
  for (std::size_t i = open_.size(); i-- > 0;) {
    Part& part = *open_[i].part;
    if (std::exchange(open_[i].above, above) != above && !part.post_.gone) {
      timekeeper_->before(part);
      part.layer_->covered(above);
      timekeeper_->after(part);
    }
    above = std::min(above + (part.modal() ? 1 : 0), max_above);
  }
}

}  // namespace ubbo
