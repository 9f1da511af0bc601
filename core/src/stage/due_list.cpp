#include "ubbo/stage/due_list.hpp"

#include <algorithm>

namespace ubbo {

struct DueOrder {
  static bool sooner(const Part& a, const Part& b) {
    const auto& x = a.post_;
    const auto& y = b.post_;
    return x.due != y.due ? x.due < y.due : x.age < y.age;
  }
  static Part::Post& post(Part& part) { return part.post_; }
};

Micros DueList::due() const { return heap_.empty() ? never : DueOrder::post(*heap_.front()).due; }

void DueList::put(std::size_t at, Part& part) {
  heap_[at] = &part;
  DueOrder::post(part).heap_at = at + 1;
}

void DueList::rise(std::size_t at) {
  Part& part = *heap_[at];
  while (at > 0 && DueOrder::sooner(part, *heap_[(at - 1) / 2])) {
    put(at, *heap_[(at - 1) / 2]);
    at = (at - 1) / 2;
  }
  put(at, part);
}

void DueList::sink(std::size_t at) {
  Part& part = *heap_[at];
  for (std::size_t child = 2 * at + 1; child < heap_.size(); child = 2 * at + 1) {
    if (child + 1 < heap_.size() && DueOrder::sooner(*heap_[child + 1], *heap_[child])) ++child;
    if (!DueOrder::sooner(*heap_[child], part)) break;
    put(at, *heap_[child]);
    at = child;
  }
  put(at, part);
}

void DueList::set(Part& part, Micros due) {
  auto& post = DueOrder::post(part);
  if (post.due == due) return;
  post.due = due;
  if (due == never) {
    const std::size_t at = std::exchange(post.heap_at, 0) - 1;
    Part& last = *heap_.back();
    heap_.pop_back();
    if (at == heap_.size()) return;
    put(at, last);
    sink(at);
    rise(DueOrder::post(last).heap_at - 1);
    return;
  }
  if (post.heap_at == 0) {
    heap_.push_back(&part);
    post.heap_at = heap_.size();
  } else {
    sink(post.heap_at - 1);
  }
  rise(post.heap_at - 1);
}

}  // namespace ubbo
