// Which part has the keyboard, and which layers keep it.
#include <algorithm>

#include "ubbo/stage/stage.hpp"

namespace ubbo {

namespace {

constexpr int most_above = 4;  // layers on it that a part is told of

// Not away, nor on its way out, nor on a page that another covers.
bool in_use(const Part& part) {
  for (const Part* at = &part; at != nullptr; at = at->outer())
    if (at->leaving() || (at->outer() != nullptr && at->outer()->presence_of(*at) != Presence::used))
      return false;
  return part.visible() && part.enabled();
}

}  // namespace

bool Stage::can_focus(const Part& part) { return in_use(part) && !part.accessible().keys.empty(); }

const Part* Stage::focused() const { return focus_ != nullptr && in_use(*focus_) ? focus_ : nullptr; }

const Part* Stage::modal() const {
  for (std::size_t i = order_.size(); i-- > 0;)
    if (order_[i]->modal() && order_[i]->visible()) return order_[i];
  return nullptr;
}

// The first part that no modal layer covers: the topmost such layer itself, with what lies in it and above.
std::size_t Stage::lowest_in_use() const {
  const Part* top = layers_.empty() ? nullptr : modal();
  if (top == nullptr) return 0;
  return static_cast<std::size_t>(std::find(order_.begin(), order_.end(), top) - order_.begin());
}

bool Stage::focus(std::string_view id) {
  Part* part = find(id);
  if (part != nullptr && !can_focus(*part)) part = nullptr;
  const auto lowest = order_.begin() + static_cast<std::ptrdiff_t>(lowest_in_use());
  if (part != nullptr && std::find(lowest, order_.end(), part) == order_.end()) part = nullptr;
  focus_ = part;
  return id.empty() || part != nullptr;
}

void Stage::move_focus(bool on) {
  const std::size_t count = order_.size();
  const std::size_t lowest = lowest_in_use();
  constexpr auto back = static_cast<std::size_t>(-1);
  // From just before the first part, or just behind the last.
  const std::size_t outside = on ? lowest + back : count;
  std::size_t at = outside;
  for (std::size_t i = lowest; focus_ != nullptr && i < count; ++i)
    if (order_[i] == focus_) at = i;
  focus_ = nullptr;
  // Past the other end the focus leaves the stage, so that the app's own order goes on; a modal layer keeps
  // it.
  const int rounds = modal() != nullptr ? 2 : 1;
  for (int round = 0; round < rounds; ++round, at = outside)
    for (at += on ? 1U : back; at >= lowest && at < count; at += on ? 1U : back)
      if (can_focus(*order_[at])) {
        focus_ = order_[at];
        return;
      }
}

// Layers.

void Stage::opened(Part& layer) {
  do_or_wait([this, handle = handle(layer)] {
    Part* found = get(handle);
    if (found == nullptr) return;
    forget_layer(*found);
    move_in_order(*found, true);
    Part* before = focus_;
    if (found->modal()) {
      // What was under a finger below it has it no longer, and the keyboard goes into it.
      for (std::size_t i = 0; i < order_.size() && order_[i] != found; ++i)
        if (!lies_in(*found, *order_[i])) routing_.cancel(*order_[i], around_.now);
      focus_ = nullptr;
      for (std::size_t i = 0; i < order_.size() && focus_ == nullptr; ++i)
        if (order_[i] != found && lies_in(*order_[i], *found) && can_focus(*order_[i])) focus_ = order_[i];
      if (focus_ == nullptr && can_focus(*found)) focus_ = found;
    }
    layers_.push_back({found, before});
    tell_covered();
  });
}

void Stage::closed(Part& layer) {
  do_or_wait([this, handle = handle(layer)] {
    Part* found = get(handle);
    if (found == nullptr) return;
    forget_layer(*found);
    tell_covered();
  });
}

// The focus goes back to where it was before the layer opened; where another opened since, once that closes.
void Stage::forget_layer(const Part& layer) {
  const auto found =
      std::find_if(layers_.begin(), layers_.end(), [&](const Layer& one) { return one.part == &layer; });
  if (found == layers_.end()) {
    for (Layer& one : layers_)
      if (one.focus_before == &layer) one.focus_before = nullptr;
    return;
  }
  Part* before = found->focus_before;
  layers_.erase(found);
  for (Layer& one : layers_)
    if (one.focus_before != nullptr && lies_in(*one.focus_before, layer)) one.focus_before = before;
  if (focus_ == nullptr || lies_in(*focus_, layer))
    focus_ = before != nullptr && can_focus(*before) ? before : nullptr;
}

void Stage::tell_covered() {
  int above = 0;
  for (std::size_t i = layers_.size(); i-- > 0;) {
    Part& part = *layers_[i].part;
    if (std::exchange(layers_[i].above, above) != above) {
      before(part);
      part.covered(above);
      after(part);
    }
    above = std::min(above + (part.modal() ? 1 : 0), most_above);
  }
}

}  // namespace ubbo
