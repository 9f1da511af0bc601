#pragma once

#include <array>
#include <cmath>
#include <cstddef>
#include <initializer_list>
#include <span>
#include <vector>

namespace ubbo {

/// The places at which a part may come to rest, in growing order: an even row of steps, or a list.
class SnapPoints {
 public:
  /// No snap points: a part rests wherever it is let go.
  SnapPoints() = default;

  /// `from`, `from + step`, … and always `to`, which may be nearer to its neighbour than a step. Each point
  /// is the double nearest to its decimal value (0.1 steps give exactly 0.3, not 0.30000000000000004). Costs
  /// no memory. Throws `std::invalid_argument` unless from < to, both finite, and 0 < step with at most 1e9
  /// steps.
  static SnapPoints even(double from, double to, double step);
  /// These places, sorted, each once; up to eight cost no memory. Throws `std::invalid_argument` when
  /// one is not finite.
  static SnapPoints list(std::span<const double> places);
  static SnapPoints list(std::initializer_list<double> places) {
    return list(std::span<const double>(places.begin(), places.size()));
  }

  [[nodiscard]] std::size_t size() const { return size_; }
  [[nodiscard]] bool empty() const { return size_ == 0; }
  /// The place of point `index`, which must be below `size()`.
  [[nodiscard]] double at(std::size_t index) const;
  /// The index of the point nearest to `place`, the later one of two as near; needs a point. O(1) for an even
  /// row, O(log n) for a list.
  [[nodiscard]] std::size_t nearest(double place) const { return look(place).index; }
  struct Found {
    std::size_t index = 0;
    double place = 0.0;
    double around = 0.0;  ///< it is the nearest of all to places less than that away from it; 0: not known
  };
  /// That point's index and its place.
  [[nodiscard]] Found look(double place) const {
    Found found;
    look(place, found);
    return found;
  }
  /// Brings what was found before up to date. Returns true when another point is nearest now.
  bool follow(double place, Found& found) const {
    if (std::fabs(place - found.place) < found.around) return false;
    const std::size_t before = found.index;
    look(place, found);
    return found.index != before;
  }
  /// The place of that point; `place` itself where there is none.
  [[nodiscard]] double snapped(double place) const { return empty() ? place : look(place).place; }
  friend bool operator==(const SnapPoints&, const SnapPoints&) = default;

 private:
  // Into its place: a copy made at once, wider than what was written, waits for that to reach the memory.
  void look(double place, Found& found) const;
  void set_around(double smallest_gap);
  [[nodiscard]] std::span<const double> listed() const {
    return many_.empty() ? std::span<const double>(few_.data(), listed_) : std::span<const double>(many_);
  }

  std::array<double, 8> few_{};
  std::size_t listed_ = 0;    // of these
  std::vector<double> many_;  // where there are more
  std::size_t size_ = 0;
  double from_ = 0.0;
  double to_ = 0.0;
  double step_ = 0.0;
  double around_ = 0.0;  // each point is the nearest to what is less than that away; 0: that is not known
  double scale_ = 0.0;   // 10^decimals of from and step; 0 when they have no short decimal form
};

}  // namespace ubbo
