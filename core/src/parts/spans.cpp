#include "ubbo/parts/spans.hpp"

#include <bit>

namespace ubbo {

namespace {

constexpr std::size_t lowest_bit(std::size_t k) { return k & (~k + 1); }

}  // namespace

void Spans::build() {
  sums_.assign(count_ + 1, 0.0);
  for (std::size_t k = 1; k <= count_; ++k) {
    sums_[k] += more_[k - 1];
    if (const std::size_t above = k + lowest_bit(k); above <= count_) sums_[above] += sums_[k];
  }
}

double Spans::extra(std::size_t before) const {
  double sum = 0.0;
  if (!more_.empty())
    for (std::size_t k = before; k > 0; k -= lowest_bit(k)) sum += sums_[k];
  return sum;
}

double Spans::start(std::size_t i) const { return static_cast<double>(i) * (size_ + gap_) + extra(i); }

std::size_t Spans::at(double place) const {
  if (!(place > 0.0)) return 0;
  std::size_t passed = 0;  // items that end before it
  double reached = 0.0;
  // From the largest run of items to the smallest: each that ends at or before the place is passed.
  for (std::size_t run = std::bit_floor(count_); run > 0; run /= 2) {
    const std::size_t next = passed + run;
    if (next > count_) continue;
    const double end =
        reached + static_cast<double>(run) * (size_ + gap_) + (more_.empty() ? 0.0 : sums_[next]);
    if (end > place) continue;
    passed = next;
    reached = end;
  }
  return passed < count_ ? passed : count_ - 1;
}

double Spans::measure(std::size_t i, double size) {
  const double grown = size - this->size(i);
  if (grown == 0.0) return 0.0;
  if (more_.empty()) {
    more_.assign(count_, 0.0);
    sums_.assign(count_ + 1, 0.0);
  }
  more_[i] += grown;
  for (std::size_t k = i + 1; k <= count_; k += lowest_bit(k)) sums_[k] += grown;
  return grown;
}

void Spans::insert(std::size_t i) {
  ++count_;
  if (more_.empty()) return;
  more_.insert(more_.begin() + static_cast<std::ptrdiff_t>(i), 0.0);
  build();
}

void Spans::remove(std::size_t i) {
  --count_;
  if (more_.empty()) return;
  more_.erase(more_.begin() + static_cast<std::ptrdiff_t>(i));
  build();
}

}  // namespace ubbo
