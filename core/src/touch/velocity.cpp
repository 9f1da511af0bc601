#include "ubbo/touch/velocity.hpp"

#include <algorithm>

namespace ubbo {

void VelocityTracker::add(Micros time, Point at) { ring_[count_++ % room] = {time, at}; }

VelocityEstimate VelocityTracker::estimate(Micros now, const VelocityRules& rules) const {
  VelocityEstimate found;
  if (count_ == 0) return found;
  const std::size_t held = std::min(count_, room);
  const Entry& newest = back(0);

  // Rest is the run of newest samples that stay near the last place, and the silence after it.
  Micros rest_began = newest.time;
  for (std::size_t i = 1; i < held && length(back(i).at - newest.at) <= rules.rest_radius; ++i)
    rest_began = back(i).time;
  found.rested = now - rest_began;
  found.stale = found.rested >= rules.staleness;

  std::size_t used = 0;
  double mean_t = 0.0;
  Point mean{};
  for (; used < held && newest.time - back(used).time <= rules.window; ++used) {
    mean_t += to_seconds(back(used).time - newest.time);
    mean = mean + (back(used).at - newest.at);
  }
  found.samples = used;
  if (found.stale || used < 2) return found;
  mean_t /= static_cast<double>(used);
  mean = mean * (1.0 / static_cast<double>(used));

  double spread = 0.0;
  Point slope{};
  for (std::size_t i = 0; i < used; ++i) {
    const double t = to_seconds(back(i).time - newest.time) - mean_t;
    slope = slope + (back(i).at - newest.at - mean) * t;
    spread += t * t;
  }
  if (spread > 0.0) found.velocity = slope * (1.0 / spread);
  return found;
}

}  // namespace ubbo
