#pragma once

#include <array>
#include <cstddef>

#include "ubbo/base/geometry.hpp"
#include "ubbo/base/time.hpp"

namespace ubbo {

/// How a velocity is taken from samples.
struct VelocityRules {
  Micros window{80'000};     ///< samples older than this before the newest do not count
  Micros staleness{50'000};  ///< rest at least this long before the lift makes the velocity zero
  double rest_radius = 1.5;  ///< dp; staying this close to the last place is resting
};

/// A velocity and what it was made from.
struct VelocityEstimate {
  Point velocity{};         ///< dp/s
  Micros rested{};          ///< how long the contact had rested when asked
  std::size_t samples = 0;  ///< how many samples the fit used
  bool stale = false;       ///< true: it rested too long, so the velocity is zero
};

/// The last places of one contact, and its velocity by least squares.
///
/// The velocity is the slope of the straight line that fits the samples of the window best:
/// v = Σ(tᵢ - t̄)(xᵢ - x̄) / Σ(tᵢ - t̄)², for x and y apart (ordinary least squares). Holds the newest 128
/// samples, so a window is cut short above 128 samples in it. `add` costs O(1), `estimate` O(samples in the
/// window).
class VelocityTracker {
 public:
  static constexpr std::size_t room = 128;

  void clear() { count_ = 0; }
  /// Adds a place; times must not decrease.
  void add(Micros time, Point at);
  /// The velocity of a contact asked about (lifted) at `now`.
  [[nodiscard]] VelocityEstimate estimate(Micros now, const VelocityRules& rules) const;

 private:
  struct Entry {
    Micros time;
    Point at;
  };
  [[nodiscard]] const Entry& back(std::size_t steps) const { return ring_[(count_ - 1 - steps) % room]; }

  std::array<Entry, room> ring_{};
  std::size_t count_ = 0;
};

}  // namespace ubbo
