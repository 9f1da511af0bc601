#include "ubbo/touch/velocity.hpp"

#include <algorithm>
#include <cmath>

namespace ubbo {

void VelocityTracker::add(Micros time, const Point& at) {
  ring_[count_++ % room] = {time.count(), at.x, at.y};
}

VelocityEstimate VelocityTracker::estimate(Micros now, const VelocityRules& rules) const {
  VelocityEstimate found;
  if (count_ == 0) return found;
  const std::size_t held = std::min(count_, room);
  const Entry newest = back(0);

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

  double squares = 0.0;
  double cubes = 0.0;
  Point slope{};
  const auto time_at = [&](std::size_t i) { return to_seconds(back(i).time - newest.time) - mean_t; };
  for (std::size_t i = 0; i < used; ++i) {
    const double t = time_at(i);
    slope = slope + (back(i).at - newest.at - mean) * t;
    squares += t * t;
    cubes += t * t * t;
  }
  if (squares <= 0.0) return found;
  found.velocity = slope * (1.0 / squares);

  // Is it a parabola rather than a line?
  double bend_squares = 0.0;
  Point bend{};
  for (std::size_t i = 0; i < used; ++i) {
    const double t = time_at(i);
    const double p2 = t * t - t * cubes / squares - squares / static_cast<double>(used);
    bend = bend + (back(i).at - newest.at - mean) * p2;
    bend_squares += p2 * p2;
  }
  if (used < 4 || bend_squares <= 0.0) return found;
  constexpr double marked = 3.0;
  const double sureness = length(bend) / (rules.noise * std::sqrt(bend_squares));
  if (!(sureness > marked)) return found;
  const double fraction = 1.0 - (marked / sureness) * (marked / sureness);
  const double rate_now = 2.0 * time_at(0) - cubes / squares;
  const Point line = found.velocity;
  found.velocity = line + bend * (fraction * rate_now / bend_squares);
  // A parabola through a stop turns back; the contact stopped.
  if (found.velocity.x * line.x + found.velocity.y * line.y < 0.0) found.velocity = {};
  return found;
}

}  // namespace ubbo
