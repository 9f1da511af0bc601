#pragma once

#include <array>
#include <cstddef>
#include <cstdint>

#include "ubbo/base/geometry.hpp"
#include "ubbo/base/time.hpp"

namespace ubbo {

/// How a velocity is taken from samples.
struct VelocityRules {
  Micros window{80'000};     ///< samples older than this before the newest do not count
  Micros staleness{50'000};  ///< rest at least this long before the lift makes the velocity zero
  double noise = 0.5;        ///< dp; the standard error of one place, as touch panels have it
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
/// The velocity is the slope of the straight line that fits the samples of the window best: v = Σtᵢxᵢ / Σtᵢ²,
/// with t and x from their means, for x and y apart (ordinary least squares). A line is late by half the
/// window where the contact speeds up or slows down. So where a parabola fits markedly better than noise
/// alone would let it (its curvature c along p₂(t) = t² - t·Σt³/Σt² - Σt²/n is k > 3 times its own standard
/// error, noise/√Σp₂²), the slope it adds at the newest sample, c·p₂′, counts by 1 - (3/k)²; below that it
/// would only add noise. What would turn the velocity back is a stop, and gives zero. Holds the newest 128
/// samples; a window with more is cut short. `add` costs O(1), `estimate` O(samples in the window).
class VelocityTracker {
 public:
  static constexpr std::size_t room = 128;

  // Leaves the ring as it is: what `count_` does not reach is never read, and a stage has 16 of these.
  VelocityTracker() {}  // NOLINT(modernize-use-equals-default,cppcoreguidelines-pro-type-member-init)

  void clear() { count_ = 0; }
  /// Adds a place; times must not decrease.
  void add(Micros time, const Point& at);
  /// The velocity of a contact asked about (lifted) at `now`.
  [[nodiscard]] VelocityEstimate estimate(Micros now, const VelocityRules& rules) const;

 private:
  struct Entry {
    Micros time;
    Point at;
  };
  struct Kept {  // the same without values to begin with
    std::int64_t micros;
    double x;
    double y;
  };
  [[nodiscard]] Entry back(std::size_t steps) const {
    const Kept& kept = ring_[(count_ - 1 - steps) % room];
    return {Micros{kept.micros}, {kept.x, kept.y}};
  }

  std::array<Kept, room> ring_;
  std::size_t count_ = 0;
};

}  // namespace ubbo
