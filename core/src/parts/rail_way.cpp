// Where a rail goes by itself, and how.
#include <algorithm>
#include <cmath>
#include <cstdint>

#include "ubbo/base/maths.hpp"
#include "ubbo/parts/rail.hpp"

namespace ubbo {

void Rail::land(double velocity, bool flick) {
  const double from = position();
  const Landing landing =
      choose_landing(plan_.snap_points, {.place = from,
                                         .velocity = velocity,
                                         .projection_time = to_seconds(plan_.projection_time),
                                         .flick = flick,
                                         .min = plan_.min,
                                         .max = plan_.max,
                                         .origin = origin_,
                                         .max_per_flick = plan_.max_per_flick,
                                         .commit_distance = plan_.commit_distance});
  const Amount start = own(from);
  const Amount place = own(landing.place);
  const Amount aimed = own(landing.aimed);
  const Amount other = own(landing.contested ? landing.other : landing.place);
  const double speed = velocity * std::fabs(plan_.dp_per_unit);
  if (landing.limited) {
    part_->decide(answers::land_limited, start, place, aimed, plan_.max_per_flick, other, speed);
  } else if (landing.commit > 0.0) {
    part_->decide(landing.moved >= landing.commit ? answers::land_committed : answers::land_returns, start,
                  place, aimed, {landing.moved, landing.commit, plan_.unit}, other, speed);
  } else if (landing.contested) {
    part_->decide(landing.flicked                              ? answers::land_flicked
                  : landing.distance == landing.other_distance ? answers::land_tie
                  : velocity != 0.0                            ? answers::land_nearest_aimed
                                                               : answers::land_nearest,
                  start, place, aimed, {landing.distance, landing.other_distance, plan_.unit}, other, speed);
  } else {
    const bool bound = landing.place == plan_.min || landing.place == plan_.max;
    part_->decide(!plan_.snap_points.empty() ? answers::land_only
                  : landing.place == from    ? answers::land_free
                  : bound                    ? answers::land_bound
                                             : answers::land_thrown,
                  start, place, aimed, difference(landing.distance), speed);
  }
  owes_snap_ = !plan_.snap_points.empty();
  choose(landing.place, velocity, flick);
}

void Rail::fly(double velocity) {
  const double from = position();
  const Coast& coast = *plan_.coast;
  const double end = from + coast.distance(velocity);
  const double place = within(end);
  const Amount start = own(from);
  const double speed = velocity * std::fabs(plan_.dp_per_unit);
  if (part_->reduced(plan_.reduced_motion) != Reduced::full) {
    part_->decide(answers::land_coasts, start, speed, own(place));
    return choose(place, 0.0);
  }
  owes_cell_ = true;
  const Micros now = part_->context().now;
  double after = 0.0;
  if (place != end) after = -maths::log1p(-coast.friction() * (place - from) / velocity) / coast.friction();
  if (place == end)
    part_->decide(answers::land_coasts, start, speed, own(place));
  else
    part_->decide(answers::land_coasts_past, start, speed, own(place), own(end), after * 1e3);
  if (plan_.tells == Tells::target || plan_.tells == Tells::choice) tell(place);
  set_off();
  mover_.coast(coast, now, velocity);
  hit_ = place == end ? never : now + from_seconds(after);
  if (hit_ <= now) return reach_bound();
  if (!mover_.moving()) rest();
}

void Rail::reach_bound() {
  const Micros when = std::exchange(hit_, never);
  const double velocity = mover_.at(when).velocity;
  const double bound = velocity < 0.0 ? plan_.min : plan_.max;
  const Overscroll& overscroll = velocity < 0.0 ? plan_.overscroll_min : plan_.overscroll_max;
  const double speed = velocity * std::fabs(plan_.dp_per_unit);
  mover_.put(bound);
  part_->moment(MomentKind::end_reached);
  const auto says = [&](const answers::AtBound& answer) { part_->decide(answer, own(bound), speed); };
  PartOwner* part_owner = part_->context().part_owner;
  if (part_owner != nullptr &&
      part_owner->pass_on(*part_, way_along(plan_.axis, velocity * plan_.dp_per_unit))) {
    says(answers::bound_passes_on);
    return rest();
  }
  if (overscroll.how == Overscroll::How::none) {
    says(answers::bound_stops);
    return rest();
  }
  says(answers::bound_yields);
  const auto* spring = std::get_if<Spring>(&plan_.transition.way);
  mover_.send(bound, spring != nullptr ? *spring : Spring::settling(Micros{250'000}, 0.0),
              part_->context().now, velocity);
  if (!mover_.moving()) rest();
}

bool Rail::take_momentum(Point velocity) {
  const double speed = along(plan_.axis, velocity);
  if (held_ != nullptr || std::fabs(speed) < min_speed || !can_go(side_of(way_along(plan_.axis, speed))))
    return false;
  origin_ = target();
  mover_.put(position());
  stop_short();
  if (plan_.snap_points.empty() && plan_.coast)
    fly(speed / plan_.dp_per_unit);
  else
    land(speed / plan_.dp_per_unit, std::fabs(speed) >= part_->feel_for(Tool::finger).flick_speed);
  return true;
}

void Rail::tapped_at(double place) {
  const double meant = within(place);
  const double to = plan_.snap_points.snapped(meant);
  part_->decide(plan_.snap_points.empty() ? answers::land_tapped_free : answers::land_tapped, own(meant),
                own(to), difference(std::fabs(to - meant)));
  choose(to, speed());
}

void Rail::choose(double target, double velocity, bool thrown) {
  owes_cell_ = true;
  const Cause cause = part_->context().cause;
  if (cause == Cause::key || cause == Cause::call) owes_snap_ = false;  // it goes where no finger let it go
  if (plan_.tells == Tells::choice || plan_.tells == Tells::target) tell(target);
  go(target, velocity, thrown);
}

// Never faster than the finger that let go. A spring does not speed up when ω·d ≤ 2ζ·v, since then x″(0) =
// ω²·d - 2ζω·v ≤ 0, and from there on it only slows. So from further away it first keeps the finger's speed,
// up to where d = 2ζ·v/ω. A coast lands exactly there, if it can.
void Rail::throw_to(double target, double velocity) {
  const double distance = target - mover_.value();
  const Micros now = part_->context().now;
  const bool onwards =
      distance * velocity > 0.0 && !plan_.hurries && part_->reduced(plan_.reduced_motion) == Reduced::full;
  if (const auto* spring = std::get_if<Spring>(&plan_.transition.way); spring != nullptr && onwards) {
    const double near = 2.0 * spring->ratio() * std::fabs(velocity) / spring->frequency();
    // Whole microseconds, and as far as the speed goes in them: else the rest of one would be another speed.
    const double lasts = std::floor((std::fabs(distance) - near) / std::fabs(velocity) * 1e6);
    if (lasts >= 1.0 && lasts < 1e9) {
      onward_ = Onward{target, velocity};
      return mover_.send(mover_.value() + velocity * lasts * 1e-6,
                         Timed{Curve{}, Micros{static_cast<std::int64_t>(lasts)}}, now, velocity);
    }
  }
  Transition transition = plan_.transition;
  if (std::holds_alternative<Coast>(transition.way))
    if (const auto lands = Coast::landing(distance, velocity)) transition.way = *lands;
  mover_.send(target, transition, now, velocity);
}

void Rail::set_off() {
  mover_.set_reduced(part_->reduced(plan_.reduced_motion));
  stop_short();
}

void Rail::stop_short() {
  hit_ = never;
  onward_.reset();
}

void Rail::go(double target, double velocity, bool thrown) {
  set_off();
  if (thrown)
    throw_to(target, velocity);
  else
    mover_.send(target, plan_.transition, part_->context().now, velocity);
  if (!mover_.moving()) rest();
}

void Rail::rest() {
  const double value = mover_.value();
  part_->decide(answers::at_rest, own(value));
  if (std::exchange(owes_snap_, false)) part_->moment(MomentKind::snapped);
  // What the app itself wrote is not written back to it, not even limited.
  if (std::exchange(owes_cell_, false) || plan_.tells == Tells::place) tell(value);
  if (on_rest) on_rest(value);
}

// When what coasts meets a bound: as `fly` finds it, from where it is now.
void Rail::meet_bound() {
  hit_ = never;
  const double end = mover_.target();
  if (end == within(end) || !plan_.coast) return;
  const Micros now = part_->context().now;
  const MotionState here = mover_.at(now);
  if (here.velocity == 0.0 || (end - here.value) * here.velocity <= 0.0) return;
  const double fraction = plan_.coast->friction() * (within(end) - here.value) / here.velocity;
  hit_ = fraction > 0.0 ? now + from_seconds(-maths::log1p(-fraction) / plan_.coast->friction()) : now;
}

// Looked at in steps, and closer where it has left: a motion that leaves and is back within one step has not
// left for whoever asks.
Micros Rail::leaves(double min, double max, Micros from) const {
  if (!mover_.moving()) return never;
  const auto inside = [&](Micros at) {
    const double place = mover_.at(at).value;
    return place >= min && place <= max;
  };
  if (!inside(from)) return from;
  constexpr Micros step{8'000};
  constexpr Micros longest{4'000'000};
  const Micros last = std::min(due(), from + longest);
  for (Micros before = from; before < last;) {
    const Micros at = std::min(before + step, last);
    if (inside(at)) {
      before = at;
      continue;
    }
    Micros out = at;
    while (out - before > Micros{1}) {
      const Micros middle = before + (out - before) / 2;
      (inside(middle) ? before : out) = middle;
    }
    return out;
  }
  return never;
}

}  // namespace ubbo
