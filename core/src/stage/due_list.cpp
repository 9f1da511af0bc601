#include "ubbo/stage/due_list.hpp"

namespace ubbo {

void DueList::put(std::size_t at, const Entry& entry) {
  heap_[at] = entry;
  entry.part->post_.heap_at = at + 1;
}

void DueList::rise(std::size_t at) {
  const Entry entry = heap_[at];
  while (at > 0 && sooner(entry, heap_[(at - 1) / 2])) {
    put(at, heap_[(at - 1) / 2]);
    at = (at - 1) / 2;
  }
  put(at, entry);
}

void DueList::sink(std::size_t at) {
  const Entry entry = heap_[at];
  for (std::size_t child = 2 * at + 1; child < heap_.size(); child = 2 * at + 1) {
    if (child + 1 < heap_.size() && sooner(heap_[child + 1], heap_[child])) ++child;
    if (!sooner(heap_[child], entry)) break;
    put(at, heap_[child]);
    at = child;
  }
  put(at, entry);
}

void DueList::change(Part& part, Micros due) {
  Part::Post& post = part.post_;
  post.due = due;
  if (due == never) {
    const std::size_t at = std::exchange(post.heap_at, 0) - 1;
    const Entry last = heap_.back();
    heap_.pop_back();
    if (at == heap_.size()) return;
    put(at, last);
    sink(at);
    rise(last.part->post_.heap_at - 1);
    return;
  }
  if (post.heap_at == 0) {
    heap_.push_back({due, post.age, &part});
    post.heap_at = heap_.size();
  } else {
    heap_[post.heap_at - 1].due = due;
    sink(post.heap_at - 1);
  }
  rise(post.heap_at - 1);
}

}  // namespace ubbo
