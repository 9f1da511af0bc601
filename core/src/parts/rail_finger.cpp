// A rail under a finger.
#include <algorithm>
#include <cmath>

#include "ubbo/parts/press.hpp"
#include "ubbo/parts/rail.hpp"

namespace ubbo {

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

}  // namespace ubbo
