#include "ubbo/parts/rail.hpp"

#include <algorithm>
#include <cmath>

namespace ubbo {

namespace {

constexpr double rest_floor_dp = 0.05;  // a twentieth of a dp: under a fifth of a pixel on any phone

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
