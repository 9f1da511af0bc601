#include "ubbo/stage/due_list.hpp"

namespace ubbo {

// `entry` goes where there is a hole, or as far above as it is sooner than what stands there.
void DueList::rise(std::size_t hole, const Entry& entry) {
  Entry* const heap = heap_.data();
  for (; hole > 0 && sooner(entry, heap[(hole - 1) / 2]); hole = (hole - 1) / 2)
    put(heap, hole, heap[(hole - 1) / 2]);
  put(heap, hole, entry);
}

// The hole sinks to the bottom first, since what fills it mostly belongs there: one comparison a level. The
// vector is not asked for its size at each, which it divides for.
void DueList::fill(std::size_t hole, const Entry& entry) {
  Entry* const heap = heap_.data();
  const std::size_t size = heap_.size();
  std::size_t child = 2 * hole + 1;
  for (; child + 1 < size; child = 2 * hole + 1) {
    child += static_cast<std::size_t>(sooner(heap[child + 1], heap[child]));
    put(heap, hole, heap[child]);
    hole = child;
  }
  if (child < size) {
    put(heap, hole, heap[child]);
    hole = child;
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
