#include "ubbo/parts/rail.hpp"

#include <algorithm>
#include <cmath>

namespace ubbo {

namespace {

constexpr double rest_floor_dp = 0.05;  // a twentieth of a dp: under a fifth of a pixel on any phone

}  // namespace

Rail::Rail(Part& part, RailPlan plan, NumberLink cell)
    : TimedMember(part), part_(&part), plan_(std::move(plan)), drag_(plan_.axis) {
  link(std::move(cell));
  const bool usable = cell_.linked() && std::isfinite(cell_.get());
  double start = within(usable ? cell_.get() : 0.0);
  if (plan_.snaps_writes) start = plan_.snap_points.snapped(start);
  mover_ = Mover(start, floor());
}

Rail::~Rail() = default;

Amount Rail::own(double place) const {
  Sense sense = plan_.sense;
  if (plan_.dp_per_unit < 0.0) {  // it grows the other way on the screen
    if (sense == Sense::rightwards) sense = Sense::leftwards;
    if (sense == Sense::downwards) sense = Sense::upwards;
  }
  return {plan_.said_as != nullptr ? plan_.said_as(*part_, place) : place, plan_.unit, sense, plan_.of};
}

double Rail::floor() const { return rest_floor_dp / std::fabs(plan_.dp_per_unit); }

void Rail::link(NumberLink cell) {
  cell_ = std::move(cell);
  watch_.stop();
  asked_.reset();
  if (!cell_.linked()) return;
  cell_value_ = cell_.get();
  watch_ = cell_.watch([this](double value) {
    if (value == cell_value_ && !asked_) return;  // our own write coming round
    asked_ = Asked{value, detail::Writing::now()};
    if (held_ != nullptr && asked_->how != Write::carried) part_->decide(answers::write_waits, own(value));
    part_->hear();
  });
}

void Rail::add_flick_speeds(std::vector<Threshold>& out) const {
  if (plan_.snap_points.size() < 2 || plan_.projection_time == Micros{0}) return;
  const double speed = part_->feel_for(Tool::finger).flick_speed / std::fabs(plan_.dp_per_unit);
  out.insert(out.end(), {Threshold{speed, 1}, Threshold{-speed, -1}});
}

double Rail::position() const {
  const double value = mover_.at(part_->context().now).value;
  const double inside = within(value);
  return value == inside || overscroll_at(value).how != Overscroll::How::none ? value : inside;
}

double Rail::velocity() const {
  if (!dragging()) {
    const MotionState own = mover_.at(part_->context().now);
    return own.value == position() ? own.velocity : 0.0;  // where a bound hides its motion, it stands still
  }
  const Feel& feel = part_->feel_for(held_->seen.tool);
  const VelocityEstimate found = held_->history.estimate(part_->context().now, feel.velocity_rules());
  return found.stale ? 0.0 : along(plan_.axis, found.velocity) / plan_.dp_per_unit;
}

// What shows when the finger wants it at `wanted`, and the other way about.
double Rail::yielded(double wanted) const {
  const double inside = within(wanted);
  if (inside == wanted) return wanted;
  return inside + std::copysign(overscroll_at(wanted).shown(std::fabs(wanted - inside)), wanted - inside);
}

double Rail::pulled(double shown) const {
  const double inside = within(shown);
  if (inside == shown) return shown;
  return inside + std::copysign(overscroll_at(shown).past(std::fabs(shown - inside)), shown - inside);
}

bool Rail::can_go(Side side) const {
  const bool sideways = side == Side::left || side == Side::right;
  if (sideways != (plan_.axis == Axis::horizontal)) return false;
  const bool grows = (side == Side::right || side == Side::down) == (plan_.dp_per_unit > 0.0);
  return grows ? position() < plan_.max : position() > plan_.min;
}

void Rail::key(double place) {
  const double from = target();
  if (held_ != nullptr) return part_->decide(answers::key_held);
  const double wanted = plan_.snap_points.snapped(within(place));
  part_->decide(wanted == from ? answers::key_at_end : answers::key_moves, own(from), own(wanted));
  if (wanted != from) choose(wanted, speed());
}

void Rail::advance(Micros now) {
  if (hit_ <= now) reach_bound();
  if (ahead_until_ <= now) {
    ahead_until_ = never;
    ahead_ = 0.0;
  }
  if (!mover_.advance(now)) return;
  const auto onward = std::exchange(onward_, std::nullopt);
  if (!onward) return rest();
  mover_.send(onward->target, plan_.transition, part_->context().now, onward->velocity);
  if (!mover_.moving()) rest();
}

// Not while something that the app has written waits: that counts.
void Rail::tell(double value) {
  if (asked_) return;
  cell_value_ = value;
  if (plan_.tells != Tells::place) return cell_.set(value, watch_);
  const detail::Writing carried(Write::carried);
  cell_.set(value, watch_);
}

void Rail::tell_place() {
  if (plan_.tells != Tells::place || !mover_.moving() || !cell_.linked()) return;
  if (const double place = position(); cell_.get() != place) tell(place);
}

void Rail::carry(const void* /*cell*/) { asked_ = Asked{cell_.get(), Write::carried}; }

void Rail::heed_cell() {
  if (cell_.linked() && held_ == nullptr && !asked_ && cell_.get() != target())
    asked_ = Asked{cell_.get(), part_->context().write};
}

void Rail::cell_changed() {
  if (!cell_.linked() || !asked_) return;
  const Asked asked = *std::exchange(asked_, std::nullopt);
  const double value = asked.how == Write::carried ? cell_.get() : asked.value;
  if (!std::isfinite(value)) return part_->decide(answers::write_unusable);
  cell_value_ = value;
  double place = within(value);
  if (plan_.snaps_writes) place = plan_.snap_points.snapped(place);
  if (asked.how == Write::carried) {
    if (drag_.dragging()) return;  // the finger says where it is
    owes_cell_ = owes_snap_ = false;
    stop_short();
    mover_.put(place);
    // A mere press holds it only against itself.
    grabbed_ = pulled(place);
    return_to_ = place;
    return_cell_ = value;
    caught_ = false;
    return;
  }
  owes_cell_ = owes_snap_ = false;
  if (held_ != nullptr) {  // without a stage nobody waits for the lift
    return_to_ = place;
    return_cell_ = value;
    return;
  }
  const Amount written = own(value);
  const Amount to = own(place);
  if (target() == place && (asked.how == Write::travels || !mover_.moving())) {
    part_->decide(answers::write_is_there, written, to);
    if (plan_.tells == Tells::place) tell(position());  // what it cannot follow is put right
    return;
  }
  part_->decide(place == value ? answers::write_moves : answers::write_limited, written, to);
  go(place, speed(), false);
  tell_place();  // from here on the cell says where it is, and others that show it go along
}

void Rail::set_dp_per_unit(double dp_per_unit) { plan_.dp_per_unit = dp_per_unit; }

void Rail::change(RailPlan plan, NumberLink cell) {
  if (held_ != nullptr && plan.axis != plan_.axis) {
    release();
    part_->forget_contacts();
  }
  const bool coasts = mover_.moving() && std::holds_alternative<Coast>(mover_.motion().transition().way);
  // Where the app has put it between its places it stays, unless these are others.
  const bool snaps = plan.snaps_writes || !(plan.snap_points == plan_.snap_points);
  give_up_hidden(plan.min, plan.max);
  plan_ = std::move(plan);
  step_.around = 0.0;
  mover_.set_rest_floor(floor());
  if (held_ == nullptr) drag_ = Drag(plan_.axis);
  if (dragging()) grabbed_ += pulled(mover_.value()) - wanted();  // it stays where it is under the finger
  const bool other_cell = cell.cell() != cell_.cell();
  const double before = held_ != nullptr ? return_to_ : goal();
  double place = before;
  if (other_cell) {
    link(std::move(cell));
    if (cell_.linked() && std::isfinite(cell_value_)) place = cell_value_;
  }
  if (coasts && !other_cell && plan_.coast) return meet_bound();
  place = snaps ? plan_.snap_points.snapped(within(place)) : within(place);
  if (held_ != nullptr)
    return_to_ = place;
  else if (place == before)
    return;
  else if (other_cell)
    go(place, speed(), false);
  else
    choose(place, speed());
}

void Rail::aim_at(double place) {
  if (held_ != nullptr || !mover_.moving()) return;
  set_off();
  mover_.send(within(place), plan_.transition, part_->context().now, speed());
}

// A bound that does not yield hides how far a spring goes past it. Before the bound goes elsewhere, what it
// hides is given up: else it would show at once.
void Rail::give_up_hidden(double min, double max) {
  if (held_ != nullptr || !mover_.moving() || (min == plan_.min && max == plan_.max)) return;
  const double shown = position();
  if (shown == mover_.at(part_->context().now).value) return;
  const double to = goal();
  mover_.put(shown);
  go(to, 0.0, false);
}

void Rail::set_bounds(double min, double max) {
  give_up_hidden(min, max);
  const double to_before = goal();
  plan_.min = min;
  plan_.max = std::max(min, max);
  return_to_ = within(return_to_);
  const double to = within(to_before);
  if (held_ != nullptr || to == to_before) return;
  // It may not go there any more, nor when the bounds are wider again.
  if (mover_.moving()) return go(to, speed(), false);
  mover_.put(to);
  if (plan_.tells == Tells::place) tell(to);
}

void Rail::shift(double by, double min, double max) {
  const bool coasts =
      mover_.moving() && plan_.coast && std::holds_alternative<Coast>(mover_.motion().transition().way);
  plan_.min += by;
  plan_.max += by;
  mover_.shift(by);
  grabbed_ += by;
  origin_ += by;
  return_to_ += by;
  return_cell_ += by;
  if (onward_) onward_->target += by;
  if (!coasts) {
    set_bounds(min, max);
  } else {
    plan_.min = min;
    plan_.max = std::max(min, max);
    meet_bound();
  }
  if (plan_.tells == Tells::place) tell(position());
}

void Rail::put_at(double place) {
  stop_short();
  mover_.put(within(place));
  owes_cell_ = owes_snap_ = false;
}

void Rail::put(double place) {
  put_at(place);
  tell(mover_.value());
}

}  // namespace ubbo
