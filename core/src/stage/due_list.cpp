#include "ubbo/stage/due_list.hpp"

namespace ubbo {

void DueList::put(std::size_t at, const Entry& entry) {
  heap_[at] = entry;
  entry.part->post_.heap_at = at + 1;
}

// `entry` goes where there is a hole, or as far above as it is sooner than what stands there.
void DueList::rise(std::size_t hole, const Entry& entry) {
  for (; hole > 0 && sooner(entry, heap_[(hole - 1) / 2]); hole = (hole - 1) / 2)
    put(hole, heap_[(hole - 1) / 2]);
  put(hole, entry);
}

// The hole sinks to the bottom first, since what fills it mostly belongs there: one comparison a level.
void DueList::fill(std::size_t hole, const Entry& entry) {
  for (std::size_t child = 2 * hole + 1; child < heap_.size(); child = 2 * hole + 1) {
    if (child + 1 < heap_.size()) child += static_cast<std::size_t>(sooner(heap_[child + 1], heap_[child]));
    put(hole, heap_[child]);
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
