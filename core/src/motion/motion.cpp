#include "ubbo/motion/motion.hpp"

#include <algorithm>
#include <cmath>

namespace ubbo {

namespace {

// How long one run takes from rest, or from `velocity`.
Micros lasts(const Transition::Way& way, double from, double to, double velocity, double floor) {
  const double distance = from - to;
  if (const auto* spring = std::get_if<Spring>(&way)) {
    // What is thrown from near its target still has a way of about v/ω.
    const double reach = std::max(std::fabs(distance), std::fabs(velocity) / spring->frequency());
    const double tolerance = floor > 0.0 ? floor : Spring::rest_share * reach;
    return from_seconds(spring->rest_time({distance, velocity}, tolerance));
  }
  if (distance == 0.0) return Micros{0};
  if (const auto* coast = std::get_if<Coast>(&way)) {
    const double tolerance = floor > 0.0 ? floor : Coast::rest_share * std::fabs(distance);
    return from_seconds(coast->rest_time(coast->velocity_for(distance), tolerance));
  }
  return std::clamp(std::get<Timed>(way).duration, Micros{0}, farthest_time);
}

// Of a velocity that a curve's upright end left behind, or a caller made up.
double sound(double velocity) { return std::isfinite(velocity) ? velocity : 0.0; }

Micros later(Micros time, Micros by, std::int64_t times) {
  if (by.count() != 0 && times > (farthest_time.count() / by.count())) return never;
  return time + by * times;  // neither beyond 2^61
}

}  // namespace

Motion::Motion(double value, Micros begins)
    : from_(value), to_(value), begins_(begins), ends_(begins), transition_(Timed{}) {}

void Motion::stand(double value) {
  // Nothing else differs in one that stands already.
  if (ends_ != -farthest_time) *this = Motion(value);
  from_ = to_ = value;
}

Motion::Motion(const Plan& plan, const Transition& transition)
    : from_(plan.from),
      velocity_(sound(plan.velocity)),
      to_(plan.to),
      begins_(plan.begins),
      reduced_(plan.reduced),
      transition_(transition) {
  if (reduced_ != Reduced::full) {
    velocity_ = 0.0;
    transition_.runs = 1;
    if (reduced_ == Reduced::fade && from_ != to_) first_ = run_ = fade_time;
  } else {
    first_ = lasts(transition.way, from_, to_, velocity_, plan.rest_floor);
    // A run takes as long back as forth.
    run_ = transition.runs == 1 ? first_ : lasts(transition.way, from_, to_, 0.0, plan.rest_floor);
  }
  const Micros first_ends = later(begins_, first_, 1);
  if (transition_.runs == 1 || first_ends == never)
    ends_ = first_ends;
  else if (transition_.runs <= Transition::endless)
    ends_ = run_ > Micros{0} ? never : first_ends;
  else
    ends_ = later(first_ends, run_, transition_.runs - 1);
}

double Motion::goal() const { return transition_.alternate && transition_.runs % 2 == 0 ? from_ : to_; }

MotionState Motion::within(double seconds, double from, double to, double velocity) const {
  if (const auto* spring = std::get_if<Spring>(&transition_.way)) {
    const SpringState state = spring->at({from - to, velocity}, seconds);
    return {to + state.distance, state.velocity};
  }
  if (const auto* coast = std::get_if<Coast>(&transition_.way)) {
    const CoastState state = coast->at(coast->velocity_for(to - from), seconds);
    return {from + state.distance, state.velocity};
  }
  const auto& timed = std::get<Timed>(transition_.way);
  const double whole = to_seconds(timed.duration);
  const double fraction = seconds / whole;
  const double progress = timed.curve.value(fraction);
  if (!std::isfinite(progress)) return {to, 0.0};  // an app's own curve, beside its senses
  const double value = from + (to - from) * progress;
  const double slope = timed.curve.slope(fraction);
  if (std::fabs(slope) < upright_slope) return {value, (to - from) * slope / whole};
  // An upright place has no velocity of its own; what it covers in the next thousandth of the whole tells.
  return {value,
          (to - from) * (timed.curve.value(fraction + 1e-3) - timed.curve.value(fraction)) * 1e3 / whole};
}

MotionState Motion::at(Micros time) const {
  if (time >= ends_) return {goal(), 0.0};
  if (time < begins_) return {from_, 0.0};
  if (reduced_ == Reduced::fade) return {time - begins_ < fade_time / 2 ? from_ : to_, 0.0};
  const Micros since = time - begins_;
  if (since < first_) return within(to_seconds(since), from_, to_, velocity_);
  if (run_ <= Micros{0}) return {goal(), 0.0};
  const std::int64_t past = (since - first_) / run_ + 1;
  const Micros into = (since - first_) % run_;
  if (!transition_.alternate || past % 2 == 0) return within(to_seconds(into), from_, to_, 0.0);
  if (!std::holds_alternative<Timed>(transition_.way)) return within(to_seconds(into), to_, from_, 0.0);
  // A curve is gone back as it came.
  const MotionState back = within(to_seconds(run_ - into), from_, to_, 0.0);
  return {back.value, -back.velocity};
}

double Motion::opacity(Micros time) const {
  if (reduced_ != Reduced::fade || time >= ends_ || time <= begins_) return 1.0;
  return std::fabs(1.0 - 2.0 * to_seconds(time - begins_) / to_seconds(fade_time));
}

Motion Motion::refaded(double to, Micros time) const {
  Motion next = *this;
  next.to_ = to;
  if (time - begins_ < fade_time / 2 || to == to_) return next;
  next.from_ = to_;
  next.begins_ = time - (fade_time - (time - begins_));
  next.ends_ = next.begins_ + fade_time;
  return next;
}

}  // namespace ubbo
