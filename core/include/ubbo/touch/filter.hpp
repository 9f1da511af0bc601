#pragma once

#include "ubbo/base/geometry.hpp"
#include "ubbo/base/time.hpp"
#include "ubbo/touch/velocity.hpp"

namespace ubbo {

/// Smooths the places of a contact by a first-order low-pass: y += (1 - e^(-Δt/τ))·(x - y).
///
/// Sensor noise shrinks the more the larger τ is against the time Δt between samples. The cost is latency:
/// behind a finger that moves evenly the smoothed place is late by Δt / (e^(Δt/τ) - 1), about τ - Δt/2. At
/// 120 Hz that is 1.2 ms for τ = 4 ms, 4.6 ms for 8 ms, 12.2 ms for 16 ms. τ = 0 changes nothing.
class Smoother {
 public:
  void start(Micros time, Point at) {
    time_ = time;
    at_ = at;
  }
  /// The smoothed place after a sample; `lag` is τ.
  Point next(Micros time, Point at, Micros lag);

 private:
  Micros time_{};
  Point at_{};
};

/// Where a contact will be `ahead` of its last sample if it keeps its velocity: x + v·ahead, with v by least
/// squares. A contact that rests is not predicted. Errs by about ½·a·ahead² where it accelerates by a.
[[nodiscard]] Point predict(const VelocityTracker& history, Point at, Micros now, Micros ahead,
                            const VelocityRules& rules);

}  // namespace ubbo
