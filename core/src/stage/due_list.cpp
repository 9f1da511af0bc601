#include "ubbo/stage/due_list.hpp"

#include <algorithm>

namespace ubbo {

// Four below each: half as many levels as with two, and a part is told its new place at each.
constexpr std::size_t below_each = 4;

// `entry` goes where there is a hole, or as far above as it is sooner than what stands there.
void DueList::rise(std::size_t hole, const Entry& entry) {
  Entry* const heap = heap_.data();
  while (hole > 0) {
    const std::size_t above = (hole - 1) / below_each;
    if (!sooner(entry, heap[above])) break;
    put(heap, hole, heap[above]);
    hole = above;
  }
  put(heap, hole, entry);
}

// The hole sinks to the bottom first, since what fills it mostly belongs there. The vector is not asked for
// its size at each level, which it divides for.
void DueList::fill(std::size_t hole, const Entry& entry) {
  Entry* const heap = heap_.data();
  const std::size_t size = heap_.size();
  for (std::size_t first = below_each * hole + 1; first < size; first = below_each * hole + 1) {
    const std::size_t end = std::min(first + below_each, size);
    std::size_t next = first;
    for (std::size_t one = first + 1; one < end; ++one) next = sooner(heap[one], heap[next]) ? one : next;
    put(heap, hole, heap[next]);
    hole = next;
  }
  rise(hole, entry);
}

void DueList::change(Part& part, Micros due) {
  Part::Post& post = part.post_;
  post.due = due;
  if (due == never) {
    const std::size_t at = std::exchange(post.heap_at, 0) - 1;
    const Entry last = heap_.back();
    heap_.pop_back();
    if (at < heap_.size()) fill(at, last);
  } else if (post.heap_at == 0) {
    heap_.emplace_back();
    rise(heap_.size() - 1, {due, post.age, &part});
  } else {
    fill(post.heap_at - 1, {due, post.age, &part});
  }
}

}  // namespace ubbo
