#pragma once

#include <cstddef>
#include <cstdint>
#include <utility>
#include <vector>

#include "ubbo/parts/part.hpp"

namespace ubbo {

/// The parts that have something due, the earliest first; of those due at the same time the one added first.
/// A heap in which each part knows its place, so that a change costs O(log parts).
class DueList {
 public:
  /// Makes room, so that no change allocates.
  void reserve(std::size_t parts) { heap_.reserve(parts); }
  /// `part` is due at `due` from now on; `never`: not at all.
  void set(Part& part, Micros due) {
    if (part.post_.due != due) change(part, due);
  }
  [[nodiscard]] bool empty() const { return heap_.empty(); }
  [[nodiscard]] Part& first() const { return *heap_.front().part; }
  [[nodiscard]] Micros due() const { return heap_.empty() ? never : heap_.front().due; }

 private:
  struct Entry {
    Micros due;
    std::uint64_t age;
    Part* part;
  };
  static bool sooner(const Entry& a, const Entry& b) {
    return (a.due < b.due) | ((a.due == b.due) & (a.age < b.age));  // without a branch that is hard to guess
  }
  void change(Part& part, Micros due);
  static void put(Entry* heap, std::size_t at, const Entry& entry) {
    heap[at] = entry;
    entry.part->post_.heap_at = at + 1;
  }
  void rise(std::size_t hole, const Entry& entry);
  void fill(std::size_t hole, const Entry& entry);

  std::vector<Entry> heap_;
};

}  // namespace ubbo
