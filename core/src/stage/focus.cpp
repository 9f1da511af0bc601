#include "ubbo/stage/focus.hpp"

namespace ubbo {

namespace {

// Not away, nor on its way out, nor on a page that another covers.
bool in_use(const Part& part) {
  for (const Part* at = &part; at != nullptr; at = at->outer())
    if (at->leaving() || (at->outer() != nullptr && at->outer()->child_use_of(*at) != ChildUse::used))
      return false;
  return part.visible() && part.enabled() && !part.removing();
}

}  // namespace

bool Focus::can_have(const Part& part) { return in_use(part) && !part.accessible().keys.empty(); }

Part* Focus::part() const { return part_ != nullptr && in_use(*part_) ? part_ : nullptr; }

void Focus::move(bool on, std::size_t lowest, bool stays) {
  const std::size_t count = order_->size();
  constexpr auto back = static_cast<std::size_t>(-1);
  // From just before the first part, or just behind the last.
  const std::size_t outside = on ? lowest + back : count;
  std::size_t at = outside;
  if (const std::size_t here = order_->place_of(part_); here >= lowest && here < count) at = here;
  part_ = nullptr;
  const int rounds = stays ? 2 : 1;
  for (int round = 0; round < rounds; ++round, at = outside)
    for (at += on ? 1U : back; at >= lowest && at < count; at += on ? 1U : back)
      if (can_have((*order_)[at])) {
        part_ = &(*order_)[at];
        return;
      }
}

}  // namespace ubbo
