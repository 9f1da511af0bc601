#include "ubbo/parts/rail.hpp"

#include <algorithm>
#include <cmath>

#include "ubbo/parts/press.hpp"

namespace ubbo {

namespace {

constexpr double rest_floor_dp = 0.05;  // a twentieth of a dp: under a fifth of a pixel on any phone
constexpr double least_speed = 0.5;     // dp/s; slower than that is no speed

}  // namespace

Rail::Rail(Part& part, RailPlan plan, Link<double> cell)
    : part_(&part), plan_(std::move(plan)), drag_(plan_.axis) {
  link(std::move(cell));
  const bool usable = cell_.linked() && std::isfinite(cell_.get());
  double start = within(usable ? cell_.get() : 0.0);
  if (plan_.snaps_writes) start = plan_.rests.snapped(start);
  mover_ = Mover(start, floor());
}

double Rail::floor() const { return rest_floor_dp / std::fabs(plan_.dp_per_unit); }

void Rail::link(Link<double> cell) {
  cell_ = std::move(cell);
  watch_.stop();
  if (!cell_.linked()) return;
  cell_value_ = cell_.get();
  watch_ = cell_.watch([this](double value) {
    if (value != cell_value_) part_->hear();
  });
}

double Rail::position() const {
  const double value = mover_.at(part_->around().now).value;
  const double inside = within(value);
  return value == inside || give_at(value).how != Give::How::none ? value : inside;
}

// What shows when the finger wants it at `wanted`, and the other way about.
double Rail::yielded(double wanted) const {
  const double inside = within(wanted);
  if (inside == wanted) return wanted;
  return inside + std::copysign(give_at(wanted).shown(std::fabs(wanted - inside)), wanted - inside);
}

double Rail::pulled(double shown) const {
  const double inside = within(shown);
  if (inside == shown) return shown;
  return inside + std::copysign(give_at(shown).past(std::fabs(shown - inside)), shown - inside);
}

bool Rail::can_go(Side side) const {
  const bool sideways = side == Side::left || side == Side::right;
  if (sideways != (plan_.axis == Axis::horizontal)) return false;
  const bool grows = (side == Side::right || side == Side::down) == (plan_.dp_per_unit > 0.0);
  return grows ? position() < plan_.most : position() > plan_.least;
}

void Rail::hold(const Contact& contact, Point at) {
  held_ = &contact;
  pressed_at_ = at;
  caught_ = mover_.moving();
  origin_ = return_to_ = target();
  return_cell_ = cell_value_;
  mover_.put(position());
  stop_short();
  grabbed_ = pulled(mover_.value());
  leftover_ = 0.0;
  owes_landing_ = false;
  drag_.press(at);
}

bool Rail::down(const Contact& contact, const Sample& sample, double off_handle, double reach) {
  if (held_ != nullptr) return false;
  hold(contact, sample.at);
  off_handle_ = off_handle;
  handle_reach_ = reach;
  if (caught_ && plan_.tells == Tells::place) tell(position());
  return true;
}

void Rail::follow(const Contact& contact, const Sample& sample) {
  const Feel& feel = part_->feel_for(sample.tool);
  const double threshold = feel.threshold(plan_.axis);
  const bool may = off_handle_ <= 0.0 && !contact.contested;
  if (drag_.move(sample.at, may ? threshold : HUGE_VAL))
    part_->decide(answers::drags, {Fact::above("travel", drag_.travel(), "dp", threshold),
                                   Fact::plain("after", to_ms(sample.time - contact.down.time), "ms")});
  if (!drag_.dragging()) return;
  const double wanted = grabbed_ + along(plan_.axis, drag_.offset()) / plan_.dp_per_unit;
  const double inside = within(wanted);
  leftover_ = wanted - inside;
  // While others could go on with the contact, a bound yields only once they have been asked; at the lift
  // they have.
  const bool ask_first = contact.shared && leftover_ != 0.0 && sample.phase != Phase::up;
  mover_.put(ask_first ? inside : yielded(wanted));
  if (ask_first || plan_.tells == Tells::target || plan_.tells == Tells::rest) return;
  tell(plan_.tells == Tells::choice ? plan_.rests.snapped(position()) : position());
}

void Rail::strain() {
  if (leftover_ == 0.0 || !drag_.dragging()) return;
  mover_.put(yielded(mover_.value() + leftover_));
  if (plan_.tells == Tells::place || plan_.tells == Tells::choice) tell(position());
}

bool Rail::was_tap(const Contact& contact, const Sample& sample) const {
  return ubbo::was_tap(*part_, contact, sample, strayed());
}

void Rail::explain_press(const Contact& contact, const Sample& sample) const {
  const Feel& feel = part_->feel_for(sample.tool);
  if (drag_.strayed() <= feel.rest_radius) return;
  const double threshold = feel.threshold(plan_.axis);
  const Point moved = sample.at - contact.down.at;
  const double travel = std::fabs(along(plan_.axis, moved));
  const double aside = std::fabs(across(plan_.axis, moved));
  const Fact way = Fact::above("travel", travel, "dp", threshold);
  if (off_handle_ > 0.0 && travel >= threshold)
    part_->decide(answers::drag_off_handle,
                  {way, Fact::below("from handle", off_handle_, "dp", handle_reach_)});
  else if (travel < threshold && aside >= threshold)
    part_->decide(answers::drag_across, {way, Fact::plain("across", aside, "dp")});
  else if (travel < threshold)
    part_->decide(answers::drag_too_short, {way});
}

bool Rail::lift(const Contact& contact, const Sample& sample) {
  follow(contact, sample);
  const bool dragged = drag_.dragging();
  const double wanted = grabbed_ + along(plan_.axis, drag_.offset()) / plan_.dp_per_unit;
  drag_.end();
  held_ = nullptr;
  leftover_ = ahead_ = 0.0;
  if (!dragged) return false;

  const Feel& feel = part_->feel_for(sample.tool);
  const VelocityEstimate found = contact.history.estimate(contact.last.time, feel.velocity_rules());
  const double speed = along(plan_.axis, found.velocity);
  const bool moving = !found.stale && std::fabs(speed) >= least_speed;
  part_->decide(moving        ? answers::lifted_moving
                : found.stale ? answers::lifted_resting
                              : answers::lifted_still,
                {Fact::plain("velocity", speed, "dp/s"),
                 Fact::below("rested", to_ms(found.rested), "ms", to_ms(feel.staleness)),
                 Fact::plain("samples", static_cast<double>(found.samples), "")});
  // Past a bound it shows only as much of the speed as the bound lets through.
  const double through =
      wanted == within(wanted) ? 1.0 : give_at(wanted).slope(std::fabs(wanted - within(wanted)));
  const double velocity = moving ? speed / plan_.dp_per_unit * through : 0.0;
  const bool flick = moving && std::fabs(speed) >= feel.flick_speed;
  if (plan_.rests.empty() && plan_.glide && velocity != 0.0 && wanted == within(wanted))
    fly(velocity);
  else
    land(plan_.carry > Micros{0} ? velocity : 0.0, flick && plan_.carry > Micros{0});
  return true;
}

void Rail::land(double velocity, bool flick) {
  const double from = position();
  const Landing landing = choose_landing(plan_.rests, {.place = from,
                                                       .velocity = velocity,
                                                       .carry = to_seconds(plan_.carry),
                                                       .flick = flick,
                                                       .least = plan_.least,
                                                       .most = plan_.most,
                                                       .origin = origin_,
                                                       .at_most = plan_.at_most,
                                                       .commit = plan_.commit});
  const char* unit = plan_.unit;
  const bool thrown = velocity != 0.0;
  const Answer& answer = landing.limited                                           ? answers::land_limited
                         : landing.commit > 0.0 && landing.moved >= landing.commit ? answers::land_committed
                         : landing.commit > 0.0                                    ? answers::land_returns
                         : landing.flicked                                         ? answers::land_flicked
                         : landing.contested && landing.distance == landing.other_distance ? answers::land_tie
                         : landing.contested && thrown ? answers::land_nearest_aimed
                         : landing.contested           ? answers::land_nearest
                         : !plan_.rests.empty()        ? answers::land_only
                         : landing.place == from       ? answers::land_free
                         : landing.place == plan_.least || landing.place == plan_.most ? answers::land_bound
                                                                                       : answers::land_thrown;
  const Fact why = landing.limited        ? Fact::plain("most", plan_.at_most, "")
                   : landing.commit > 0.0 ? Fact::above("moved", landing.moved, unit, landing.commit)
                   : landing.contested
                       ? Fact::below("distance", landing.distance, unit, landing.other_distance)
                       : Fact::plain("distance", landing.distance, unit);
  part_->decide(answer, {Fact::plain("from", from, unit), Fact::plain("place", landing.place, unit),
                         Fact::plain("aimed", landing.aimed, unit), why,
                         Fact::plain("other", landing.contested ? landing.other : landing.place, unit),
                         Fact::plain("speed", velocity * plan_.dp_per_unit, "dp/s")});
  choose(landing.place, velocity, flick);
}

void Rail::fly(double velocity) {
  const double from = position();
  const Coast& glide = *plan_.glide;
  const double end = from + glide.distance(velocity);
  const double place = within(end);
  const Fact start = Fact::plain("from", from, plan_.unit);
  const Fact speed = Fact::plain("speed", velocity * plan_.dp_per_unit, "dp/s");
  if (reduced_for(plan_.reduced_motion, part_->around().reduced_motion) != Reduced::full) {
    part_->decide(answers::land_glides, {start, speed, Fact::plain("place", place, plan_.unit)});
    return choose(place, 0.0);
  }
  owes_cell_ = true;
  const Micros now = part_->around().now;
  double after = 0.0;
  if (place != end) after = -std::log1p(-glide.friction() * (place - from) / velocity) / glide.friction();
  if (place == end)
    part_->decide(answers::land_glides, {start, speed, Fact::plain("place", place, plan_.unit)});
  else
    part_->decide(answers::land_glides_past,
                  {start, speed, Fact::plain("place", place, plan_.unit),
                   Fact::plain("aimed", end, plan_.unit), Fact::plain("after", after * 1e3, "ms")});
  if (plan_.tells == Tells::target || plan_.tells == Tells::choice) tell(place);
  set_off();
  mover_.coast(glide, now, velocity);
  hit_ = place == end ? never : now + from_seconds(after);
  if (hit_ <= now) return reach_bound();
  if (!mover_.moving()) rest();
}

void Rail::reach_bound() {
  const Micros when = std::exchange(hit_, never);
  const double velocity = mover_.at(when).velocity;
  const double bound = velocity < 0.0 ? plan_.least : plan_.most;
  const Give& give = velocity < 0.0 ? plan_.give_least : plan_.give_most;
  const double speed = velocity * plan_.dp_per_unit;
  mover_.put(bound);
  const auto says = [&](const Answer& answer) {
    part_->decide(answer, {Fact::plain("place", bound, plan_.unit), Fact::plain("speed", speed, "dp/s")});
  };
  Keeper* keeper = part_->around().keeper;
  if (keeper != nullptr && keeper->pass_on(*part_, way_along(plan_.axis, speed))) {
    says(answers::bound_passes_on);
    return rest();
  }
  if (give.how == Give::How::none) {
    says(answers::bound_stops);
    return rest();
  }
  says(answers::bound_yields);
  const bool springs = std::holds_alternative<Spring>(plan_.passage.way);
  const Passage back = springs ? Passage(std::get<Spring>(plan_.passage.way)) : Mover().usual();
  mover_.send(bound, back, part_->around().now, velocity);
  if (!mover_.moving()) rest();
}

bool Rail::take_momentum(Point velocity) {
  const double speed = along(plan_.axis, velocity);
  if (held_ != nullptr || std::fabs(speed) < least_speed || !can_go(side_of(way_along(plan_.axis, speed))))
    return false;
  origin_ = target();
  mover_.put(position());
  stop_short();
  if (plan_.rests.empty() && plan_.glide)
    fly(speed / plan_.dp_per_unit);
  else
    land(speed / plan_.dp_per_unit, std::fabs(speed) >= part_->feel_for(Tool::finger).flick_speed);
  return true;
}

void Rail::cancel() {
  drag_.end();
  held_ = nullptr;
  leftover_ = ahead_ = 0.0;
  const bool moved = mover_.value() != return_to_;
  part_->decide(moved ? answers::goes_back : answers::stays_cancelled,
                {Fact::plain("from", mover_.value(), plan_.unit), Fact::plain("to", return_to_, plan_.unit)});
  // A cell that says where it is does so at once, so that who shows it too goes back along with it.
  if (plan_.tells != Tells::rest) tell(plan_.tells == Tells::place ? position() : return_cell_);
  if (moved || caught_) go(return_to_, 0.0, false);
}

void Rail::lose() {
  drag_.end();
  held_ = nullptr;
  leftover_ = ahead_ = 0.0;
  if (caught_) go(return_to_, 0.0, false);
}

void Rail::tapped_at(double place) {
  const double meant = within(place);
  const double to = plan_.rests.snapped(meant);
  part_->decide(plan_.rests.empty() ? answers::land_tapped_free : answers::land_tapped,
                {Fact::plain("from", meant, plan_.unit), Fact::plain("place", to, plan_.unit),
                 Fact::plain("distance", std::fabs(to - meant), plan_.unit)});
  choose(to, 0.0);
}

void Rail::resume() {
  if (!caught_) {
    // A write under the finger is where it goes now.
    if (mover_.value() != return_to_) go(return_to_, 0.0, false);
    return;
  }
  const double place = position();
  if (!plan_.stays_caught) {
    part_->decide(answers::caught_goes_on,
                  {Fact::plain("place", place, plan_.unit), Fact::plain("to", return_to_, plan_.unit)});
    return go(return_to_, 0.0, false);
  }
  part_->decide(answers::caught_stays, {Fact::plain("place", place, plan_.unit)});
  if (plan_.rests.empty() && place == within(place))
    choose(place, 0.0);
  else
    land(0.0, false);
}

bool Rail::take_over(const Contact& contact, Point anchor) {
  if (held_ != nullptr && held_ != &contact) return false;
  off_handle_ = 0.0;
  hold(contact, anchor);
  // Already a drag: the threshold was passed elsewhere.
  drag_.move(anchor + way_along(plan_.axis, 1e-9), 0.0);
  follow(contact, contact.seen);
  return true;
}

void Rail::hand_over() {
  held_ = nullptr;
  leftover_ = ahead_ = 0.0;
  drag_.end();
  owes_landing_ = !plan_.rests.empty();
  owes_cell_ = true;
  if (plan_.tells != Tells::rest) tell(position());
}

void Rail::left_behind() {
  if (held_ != nullptr || !std::exchange(owes_landing_, false)) return;
  if (plan_.rests.snapped(position()) != position()) land(0.0, false);
}

Point Rail::foresee(Point ahead) {
  const double here = position();
  const double wanted = here + along(plan_.axis, ahead) / plan_.dp_per_unit;
  ahead_ = std::clamp(wanted, std::min(plan_.least, here), std::max(plan_.most, here)) - here;
  const double left = (wanted - here - ahead_) * plan_.dp_per_unit;
  return plan_.axis == Axis::horizontal ? Point{left, ahead.y} : Point{ahead.x, left};
}

void Rail::choose(double target, double velocity, bool thrown) {
  owes_cell_ = true;
  if (plan_.tells == Tells::choice || plan_.tells == Tells::target) tell(target);
  go(target, velocity, thrown);
}

// Never faster than the finger that let go. A spring does not speed up when ω·d ≤ 2ζ·v, since then x″(0) =
// ω²·d - 2ζω·v ≤ 0, and from there on it only slows. So from further away it first keeps the finger's speed,
// up to where d = 2ζ·v/ω. A coast lands exactly there, if it can.
void Rail::throw_to(double target, double velocity) {
  const double distance = target - mover_.value();
  const Micros now = part_->around().now;
  const bool onwards = distance * velocity > 0.0 && !plan_.hurries &&
                       reduced_for(plan_.reduced_motion, part_->around().reduced_motion) == Reduced::full;
  if (const auto* spring = std::get_if<Spring>(&plan_.passage.way); spring != nullptr && onwards) {
    const double near = 2.0 * spring->ratio() * std::fabs(velocity) / spring->frequency();
    if (std::fabs(distance) > near) {
      const double until = target - std::copysign(near, distance);
      onward_ = Onward{target, velocity};
      const Micros lasts = from_seconds((std::fabs(distance) - near) / std::fabs(velocity));
      return mover_.send(until, Timed{Curve{}, lasts}, now, velocity);
    }
  }
  Passage passage = plan_.passage;
  if (std::holds_alternative<Coast>(passage.way))
    if (const auto lands = Coast::landing(distance, velocity)) passage.way = *lands;
  mover_.send(target, passage, now, velocity);
}

void Rail::set_off() {
  mover_.set_reduced(reduced_for(plan_.reduced_motion, part_->around().reduced_motion));
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
    mover_.send(target, plan_.passage, part_->around().now, velocity);
  if (!mover_.moving()) rest();
}

void Rail::rest() {
  const double value = mover_.value();
  part_->decide(answers::at_rest, {Fact::plain("value", value, plan_.unit)});
  // What the app itself wrote is not written back to it, not even limited.
  if (std::exchange(owes_cell_, false) || plan_.tells == Tells::place) tell(value);
  if (on_rest) on_rest(value);
}

void Rail::key(double place) {
  const double from = target();
  if (held_ != nullptr) return part_->decide(answers::key_held);
  const double wanted = plan_.rests.snapped(within(place));
  part_->decide(wanted == from ? answers::key_at_end : answers::key_moves,
                {Fact::plain("from", from, plan_.unit), Fact::plain("to", wanted, plan_.unit)});
  if (wanted != from) choose(wanted, velocity());
}

void Rail::advance(Micros now) {
  if (hit_ <= now) reach_bound();
  if (!mover_.advance(now)) return;
  const auto onward = std::exchange(onward_, std::nullopt);
  if (!onward) return rest();
  mover_.send(onward->target, plan_.passage, part_->around().now, onward->velocity);
  if (!mover_.moving()) rest();
}

void Rail::tell(double value) {
  cell_value_ = value;
  if (plan_.tells != Tells::place) return cell_.set(value);
  const Part::Carrying carrying(*part_);
  cell_.set(value);
}

void Rail::tell_place() {
  if (plan_.tells != Tells::place || !mover_.moving() || !cell_.linked()) return;
  const double place = position();
  const double found = cell_.get();
  if (found != cell_value_ && found != place) asked_ = found;  // a write that is heard of in a moment
  if (found != place) tell(place);
}

void Rail::heard() {
  if (!cell_.linked()) return;
  const Write how = part_->around().write;
  const auto asked = how == Write::carried ? std::nullopt : std::exchange(asked_, std::nullopt);
  const double value = asked.value_or(cell_.get());
  if (value == cell_value_ && how != Write::carried) return;  // our own write coming round
  if (!std::isfinite(value)) return part_->decide(answers::write_unusable);
  cell_value_ = value;
  owes_cell_ = false;
  double place = within(value);
  if (plan_.snaps_writes) place = plan_.rests.snapped(place);
  const Fact written = Fact::plain("written", value, plan_.unit);
  const Fact to = Fact::plain("to", place, plan_.unit);
  if (how == Write::carried) {
    if (drag_.dragging()) return;  // the finger says where it is
    stop_short();
    mover_.put(place);
    // A mere press holds it only against itself.
    grabbed_ = pulled(place);
    return_to_ = place;
    return_cell_ = value;
    caught_ = false;
    return;
  }
  if (held_ != nullptr) {
    return_to_ = place;
    return_cell_ = value;
    return part_->decide(answers::write_waits, {written, to});
  }
  if (target() == place && (how == Write::travels || !mover_.moving())) {
    part_->decide(answers::write_is_there, {written, to});
    if (plan_.tells == Tells::place && !mover_.moving()) tell(place);  // what it cannot follow is put right
    return;
  }
  part_->decide(place == value ? answers::write_moves : answers::write_limited, {written, to});
  if (how == Write::travels) {
    go(place, velocity(), false);
    return tell_place();  // from here on the cell says where it is, and others that show it go along
  }
  stop_short();
  mover_.put(place);
  rest();
}

void Rail::set_dp_per_unit(double dp_per_unit) { plan_.dp_per_unit = dp_per_unit; }

void Rail::change(RailPlan plan, Link<double> cell) {
  plan_ = std::move(plan);
  drag_ = Drag(plan_.axis);
  const double here = mover_.at(part_->around().now).value;
  const double speed = velocity();
  double place = target();
  link(std::move(cell));
  if (cell_.linked() && std::isfinite(cell_value_)) place = within(cell_value_);
  place = plan_.rests.snapped(place);
  const bool there = !mover_.moving() && place == here;
  mover_ = Mover(here, floor());
  stop_short();
  if (!there) choose(place, speed);
}

void Rail::set_bounds(double least, double most) {
  const double goal = onward_ ? onward_->target : mover_.target();
  plan_.least = least;
  plan_.most = std::max(least, most);
  return_to_ = within(return_to_);
  const double to = within(goal);
  if (held_ != nullptr || to == goal) return;
  // It may not go there any more, nor when the bounds are wider again.
  if (mover_.moving()) return go(to, velocity(), false);
  mover_.put(to);
  if (plan_.tells == Tells::place) tell(to);
}

// When what coasts meets a bound: as `fly` finds it, from where it is now.
void Rail::meet_bound() {
  hit_ = never;
  const double end = mover_.target();
  if (end == within(end) || !plan_.glide) return;
  const Micros now = part_->around().now;
  const MotionState here = mover_.at(now);
  if (here.velocity == 0.0 || (end - here.value) * here.velocity <= 0.0) return;
  const double share = plan_.glide->friction() * (within(end) - here.value) / here.velocity;
  hit_ = share > 0.0 ? now + from_seconds(-std::log1p(-share) / plan_.glide->friction()) : now;
}

void Rail::shift(double by, double least, double most) {
  const bool coasts =
      mover_.moving() && plan_.glide && std::holds_alternative<Coast>(mover_.motion().passage().way);
  mover_.shift(by);
  grabbed_ += by;
  origin_ += by;
  return_to_ += by;
  return_cell_ += by;
  if (onward_) onward_->target += by;
  if (!coasts) {
    set_bounds(least, most);
  } else {
    plan_.least = least;
    plan_.most = std::max(least, most);
    meet_bound();
  }
  if (plan_.tells == Tells::place) tell(position());
}

void Rail::put(double place) {
  stop_short();
  mover_.put(within(place));
  owes_cell_ = false;
  tell(mover_.value());
}

}  // namespace ubbo
