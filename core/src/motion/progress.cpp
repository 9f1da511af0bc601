#include "ubbo/motion/progress.hpp"

namespace ubbo {

Micros duration_of(const Transition::Way& way, double velocity) {
  if (const auto* spring = std::get_if<Spring>(&way))
    return from_seconds(spring->rest_time({-1.0, velocity}, Spring::rest_share));
  if (const auto* coast = std::get_if<Coast>(&way))
    return from_seconds(coast->rest_time(coast->velocity_for(1.0), Coast::rest_share));
  return std::get<Timed>(way).duration;
}

Curve progress_of(const Transition::Way& way, double velocity) {
  if (const auto* timed = std::get_if<Timed>(&way)) return timed->curve;
  const double whole = to_seconds(duration_of(way, velocity));
  if (const auto* spring = std::get_if<Spring>(&way)) {
    const auto at = [=, spring = *spring](double p) { return spring.at({-1.0, velocity}, p * whole); };
    return Curve::own([=](double p) { return p <= 0.0   ? 0.0
                                             : p >= 1.0 ? 1.0
                                                        : 1.0 + at(p).distance; },
                      [=](double p) { return p < 0.0 || p > 1.0 ? 0.0 : at(p).velocity * whole; });
  }
  const Coast coast = std::get<Coast>(way);
  const auto at = [=](double p) { return coast.at(coast.velocity_for(1.0), p * whole); };
  return Curve::own([=](double p) { return p <= 0.0   ? 0.0
                                           : p >= 1.0 ? 1.0
                                                      : at(p).distance; },
                    [=](double p) { return p < 0.0 || p > 1.0 ? 0.0 : at(p).velocity * whole; });
}

}  // namespace ubbo
