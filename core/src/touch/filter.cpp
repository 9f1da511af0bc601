#include "ubbo/touch/filter.hpp"

#include <cmath>

#include "ubbo/base/maths.hpp"

namespace ubbo {

Point Smoother::next(Micros time, Point at, Micros lag) {
  const double passed = to_seconds(time - time_);
  const double fraction = lag > Micros{0} ? -maths::expm1(-passed / to_seconds(lag)) : 1.0;
  at_ = at_ + (at - at_) * fraction;
  time_ = time;
  return at_;
}

Point predict(const VelocityTracker& history, Point at, Micros now, Micros ahead,
              const VelocityRules& rules) {
  if (ahead <= Micros{0}) return at;
  return at + history.estimate(now, rules).velocity * to_seconds(ahead);
}

}  // namespace ubbo
