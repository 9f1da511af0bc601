#pragma once

#include <cstddef>
#include <vector>

namespace ubbo {

/// Lengths side by side with equal gaps between them, such as the items of a list: where each begins, and
/// which one lies where.
///
/// While all are of the usual size it keeps nothing of them. From the first that is measured on it keeps one
/// number an item, in a tree of sums (P. M. Fenwick, "A new data structure for cumulative frequency tables",
/// 1994): measuring, finding a start and finding an item then take O(log n), inserting and removing O(n).
class Spans {
 public:
  /// `size` and `gap` are not negative, and not both 0.
  explicit Spans(std::size_t count = 0, double size = 1.0, double gap = 0.0)
      : count_(count), size_(size), gap_(gap) {}

  [[nodiscard]] std::size_t count() const { return count_; }
  [[nodiscard]] double size(std::size_t i) const { return more_.empty() ? size_ : size_ + more_[i]; }
  /// Where item `i` begins; `i` up to and with `count()`, behind the last and its gap.
  [[nodiscard]] double start(std::size_t i) const;
  /// From the start of the first to the end of the last.
  [[nodiscard]] double total() const { return count_ == 0 ? 0.0 : start(count_) - gap_; }
  /// The item at `place`, or the last one that begins before it; the first where none does. Needs an item.
  [[nodiscard]] std::size_t at(double place) const;

  /// Item `i` has this size, not negative. Returns by how much it grew.
  double measure(std::size_t i, double size);
  /// One more item, before `i`, of the usual size.
  void insert(std::size_t i);
  void remove(std::size_t i);

 private:
  void build();
  [[nodiscard]] double extra(std::size_t before) const;

  std::size_t count_;
  double size_;
  double gap_;
  std::vector<double> more_;  // than the usual size, of each; empty: none of them is measured
  std::vector<double> sums_;  // node k holds the sum of the (k & -k) items that end with item k
};

}  // namespace ubbo
