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
  owes_landing_ = owes_snap_ = at_end_ = false;
  if (!plan_.snap_points.empty()) step_ = plan_.snap_points.look(mover_.value());
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

Point Rail::follow(const Contact& contact, const Sample& sample) {
  const Feel& feel = part_->feel_for(sample.tool);
  const double threshold = feel.threshold(plan_.axis);
  const bool may = off_handle_ <= 0.0 && !contact.contested;
  if (drag_.move(sample.at, may ? threshold : HUGE_VAL)) {
    part_->decide(answers::drags, {drag_.travel(), threshold}, to_ms(sample.time - contact.down.time));
    part_->moment(MomentKind::threshold_crossed);
  }
  if (!drag_.dragging()) return {};
  const double to = wanted();
  const double inside = within(to);
  if (!std::exchange(at_end_, inside != to) && at_end_) part_->moment(MomentKind::end_reached);
  show_dragged(inside);
  return inside == to ? Point{} : way_along(plan_.axis, (to - inside) * plan_.dp_per_unit);
}

void Rail::overscroll() {
  if (drag_.dragging()) show_dragged(yielded(wanted()));
}

// The finger has it there. What the app has written since the finger last chose counts until it chooses anew.
void Rail::show_dragged(double place) {
  mover_.put(place);
  double says = place;
  if (!plan_.snap_points.empty()) {
    if (plan_.snap_points.follow(place, step_)) part_->moment(MomentKind::step_passed);
    if (plan_.tells == Tells::choice) says = step_.place;
  }
  if (plan_.tells == Tells::target || plan_.tells == Tells::rest) return;
  if (asked_ && says == cell_value_) return;
  asked_.reset();
  tell(says);
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
  const Held way{travel, threshold};
  if (off_handle_ > 0.0 && travel >= threshold)
    part_->decide(answers::drag_off_handle, way, {off_handle_, handle_reach_});
  else if (travel < threshold && aside >= threshold)
    part_->decide(answers::drag_across, way, aside);
  else if (travel < threshold)
    part_->decide(answers::drag_too_short, way);
}

// The finger has gone.
void Rail::release() {
  drag_.end();
  held_ = nullptr;
  ahead_ = 0.0;
  ahead_until_ = never;
}

bool Rail::lift(const Contact& contact, const Sample& sample) {
  follow(contact, sample);
  const bool dragged = drag_.dragging();
  const double to = wanted();
  if (dragged) show_dragged(yielded(to));
  release();
  if (!dragged) return false;

  const Feel& feel = part_->feel_for(sample.tool);
  const VelocityEstimate found = contact.history.estimate(contact.last.time, feel.velocity_rules());
  const double speed = along(plan_.axis, found.velocity);
  const bool moving = !found.stale && std::fabs(speed) >= min_speed;
  part_->decide(moving        ? answers::lifted_moving
                : found.stale ? answers::lifted_resting
                              : answers::lifted_still,
                plan_.dp_per_unit < 0.0 ? -speed : speed, {to_ms(found.rested), to_ms(feel.staleness)},
                static_cast<double>(found.samples));
  // Past a bound it shows only as much of the speed as the bound lets through.
  const double through = to == within(to) ? 1.0 : overscroll_at(to).slope(std::fabs(to - within(to)));
  const double velocity = moving ? speed / plan_.dp_per_unit * through : 0.0;
  const bool flick = moving && std::fabs(speed) >= feel.flick_speed;
  if (plan_.snap_points.empty() && plan_.coast && velocity != 0.0 && to == within(to))
    fly(velocity);
  else
    land(plan_.projection_time > Micros{0} ? velocity : 0.0, flick && plan_.projection_time > Micros{0});
  return true;
}

void Rail::let_go(LetGo how) {
  release();
  const bool moved = mover_.value() != return_to_;
  if (how == LetGo::cancelled) {
    part_->decide(moved ? answers::goes_back : answers::stays_cancelled, own(mover_.value()),
                  own(return_to_));
    // A cell that says where it is does so at once, so that who shows it too goes back along with it.
    if (plan_.tells != Tells::rest) tell(plan_.tells == Tells::place ? position() : return_cell_);
  }
  if (moved || caught_) go(return_to_, 0.0, false);
}

void Rail::resume() {
  if (!caught_) {
    // A write under the finger is where it goes now.
    if (mover_.value() != return_to_) go(return_to_, 0.0, false);
    return;
  }
  const double place = position();
  if (!plan_.stays_caught) {
    const Amount at = own(place);
    if (place == return_to_)
      part_->decide(answers::caught_stays, at);
    else
      part_->decide(answers::caught_goes_on, at, own(return_to_));
    return go(return_to_, 0.0, false);
  }
  part_->decide(answers::caught_stays, own(place));
  if (plan_.snap_points.empty() && place == within(place))
    choose(place, 0.0);
  else
    land(0.0, false);
}

bool Rail::take_over(const Contact& contact, Point anchor) {
  if (held_ != nullptr && held_ != &contact) return false;
  hold(contact, anchor);
  drag_.go_on(anchor, contact.seen.at);  // the threshold was passed elsewhere
  follow(contact, contact.seen);
  return true;
}

void Rail::hand_over() {
  release();
  owes_landing_ = !plan_.snap_points.empty();
  owes_cell_ = true;
  if (plan_.tells != Tells::rest) tell(position());
}

void Rail::left_behind() {
  if (held_ != nullptr || !std::exchange(owes_landing_, false)) return;
  if (plan_.snap_points.snapped(position()) != position()) land(0.0, false);
}

Point Rail::predict(Point ahead) {
  const double here = position();
  const double wanted = here + along(plan_.axis, ahead) / plan_.dp_per_unit;
  ahead_ = std::clamp(wanted, std::min(plan_.min, here), std::max(plan_.max, here)) - here;
  ahead_until_ = ahead_ == 0.0 ? never : part_->context().now + part_->feel_for(Tool::finger).staleness;
  const double left = (wanted - here - ahead_) * plan_.dp_per_unit;
  return plan_.axis == Axis::horizontal ? Point{left, ahead.y} : Point{ahead.x, left};
}

}  // namespace ubbo
