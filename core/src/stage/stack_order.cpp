#include "ubbo/stage/stack_order.hpp"

#include <algorithm>

#include "ubbo/parts/part.hpp"

namespace ubbo {

namespace {

// The part that lies in `container` itself and that `part` is or lies in, however deep; null where it lies
// elsewhere. A null container is the screen.
const Part* child_over(const Part* part, const Part* container) {
  while (part != nullptr && part->outer() != container) part = part->outer();
  return part;
}

}  // namespace

std::size_t StackOrder::place_of(const Part* part) const {
  return static_cast<std::size_t>(std::find(parts_.begin(), parts_.end(), part) - parts_.begin());
}

void StackOrder::add(Part& part) {
  const Part* container = part.outer();
  std::size_t at = parts_.size();
  while (at > 0 && container != nullptr && !lies_in(*parts_[at - 1], *container)) --at;
  if (!part.is_layer()) {
    // Each open layer, with all that lies in it.
    const auto below_layer = [&](std::size_t from) {
      const Part* child = from == 0 ? nullptr : child_over(parts_[from - 1], container);
      if (child == nullptr || !child->open_layer()) return from;
      while (from > 0 && lies_in(*parts_[from - 1], *child)) --from;
      return from;
    };
    for (std::size_t next = below_layer(at); next != at; next = below_layer(at)) at = next;
  }
  parts_.insert(parts_.begin() + static_cast<std::ptrdiff_t>(at), &part);
}

// In place, since a touch may lead to it.
void StackOrder::move(Part& part, bool up) {
  const auto run_ends = [&](std::size_t from, const Part* container) {
    while (from < parts_.size() && (container == nullptr || lies_in(*parts_[from], *container))) ++from;
    return parts_.begin() + static_cast<std::ptrdiff_t>(from);
  };
  const std::size_t at = place_of(&part);
  const auto from = parts_.begin() + static_cast<std::ptrdiff_t>(at);
  const auto to = run_ends(at, &part);
  if (up)
    std::rotate(from, to, run_ends(at, part.outer()));
  else
    std::rotate(parts_.begin() +
                    (part.outer() == nullptr ? 0 : static_cast<std::ptrdiff_t>(place_of(part.outer())) + 1),
                from, to);
}

}  // namespace ubbo
