#include "ubbo/motion/coast.hpp"

#include <cmath>
#include <numbers>
#include <string>

#include "ubbo/base/maths.hpp"
#include "ubbo/base/settings.hpp"

namespace ubbo {

namespace {

constexpr double min_friction = 1e-3;
constexpr double max_friction = 1e4;

}  // namespace

Coast Coast::friction(double per_second) {
  if (!(per_second >= min_friction && per_second <= max_friction))
    refuse("coast: friction = " + plain_number(per_second) +
           " is not taken; it takes 0.001 to 10000 per second");
  return Coast(per_second);
}

Coast Coast::half_life(Micros time) {
  const double friction = std::numbers::ln2 / to_seconds(time);
  if (!(friction >= min_friction && friction <= max_friction))
    refuse("coast: half-life = " + plain_number(to_ms(time)) +
           " ms is not taken; it takes 0.07 to 690000 ms");
  return Coast(friction);
}

std::optional<Coast> Coast::landing(double distance, double velocity) {
  const double friction = velocity / distance;
  if (!(friction >= min_friction && friction <= max_friction)) return std::nullopt;
  return Coast(friction);
}

double Coast::half_life() const { return std::numbers::ln2 / friction_; }

CoastState Coast::at(double velocity, double seconds) const {
  const double gone = -maths::expm1(-friction_ * seconds);
  return {velocity / friction_ * gone, velocity * (1.0 - gone)};
}

double Coast::rest_time(double velocity, double tolerance) const {
  const double whole = std::fabs(distance(velocity));
  return whole <= tolerance ? 0.0 : maths::log(whole / tolerance) / friction_;
}

}  // namespace ubbo
