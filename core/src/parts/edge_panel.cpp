#include "ubbo/parts/edge_panel.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "edge_panel_kind.hpp"

namespace ubbo {

namespace {

Side panel_side(Edge edge, bool right_to_left) { return side_at(edge, right_to_left).value_or(Side::down); }

}  // namespace

RailPlan EdgePanel::rail_plan(const Plan& plan, bool right_to_left) {
  const Side side = panel_side(plan.edge, right_to_left);
  const bool aside = side == Side::left || side == Side::right;
  return {.axis = aside ? Axis::horizontal : Axis::vertical,
          .min = 0.0,
          .max = plan.snap_points.back(),
          .dp_per_unit = side == Side::right || side == Side::down ? -1.0 : 1.0,
          .snap_points =
              [&] {
                std::vector<double> places = plan.snap_points;
                places.push_back(0.0);
                return SnapPoints::list(places);
              }(),
          .transition = plan.transition,
          .projection_time = plan.projection_time,
          .commit_distance = plan.commit_distance,
          .overscroll_min = plan.drag_closes ? Overscroll{} : plan.overscroll_in,
          .overscroll_max = plan.overscroll_out,
          .tells = Tells::rest,
          .reduced_motion = plan.reduced_motion};
}

EdgePanel::EdgePanel(std::string id, const Box& box, Context& context, Plan plan)
    : Sliding(std::move(id), box, context, {rail_plan(plan, context.right_to_left)}), plan_(std::move(plan)) {
  take_rests();
}

void EdgePanel::take_rests() {
  snap_points_ = rail_.plan().snap_points;
  open_rests_ = SnapPoints::list(plan_.snap_points);
}

Side EdgePanel::side() const { return panel_side(plan_.edge, context().right_to_left); }

double EdgePanel::place_of(int snap_point) const {
  return snap_point <= 0
             ? 0.0
             : plan_.snap_points[static_cast<std::size_t>(std::min(snap_point, max_snap_point()) - 1)];
}

void EdgePanel::follow(Link<int> snap_point, Link<bool> open, bool first) {
  rest_watch_.stop();
  open_watch_.stop();
  snap_point_cell_ = std::move(snap_point);
  open_cell_ = std::move(open);
  if (snap_point_cell_.linked())
    rest_watch_ = snap_point_cell_.watch([this](int wanted) {
      if (wanted != snap_point_) hear();
    });
  if (open_cell_.linked())
    open_watch_ = open_cell_.watch([this](bool wanted) {
      if (wanted != (snap_point_ > 0)) hear();
    });
  const int wanted = asked_for();
  if (wanted == snap_point_) return;
  if (!first) return hear();
  snap_point_ = wanted;
  rail_.put_at(place_of(snap_point_));
  put_dim();
  told_state_ = state_ = snap_point_ > 0 ? EnterExit::State::present : EnterExit::State::absent;
}

// The rest that its cells ask for.
int EdgePanel::asked_for() const {
  if (snap_point_cell_.linked() && snap_point_cell_.get() != snap_point_)
    return std::clamp(snap_point_cell_.get(), 0, max_snap_point());
  if (open_cell_.linked() && open_cell_.get() != (snap_point_ > 0)) return open_cell_.get() ? 1 : 0;
  return snap_point_;
}

// Where it is.

Point EdgePanel::moved() const { return towards(side(), length() - shown()); }

Box EdgePanel::box_at(double out) const { return layout_box() + towards(side(), length() - out); }

double EdgePanel::dim() const {
  const double share = plan_.dim_follows ? out() / plan_.snap_points.front() : dim_.at(context().now).value;
  return plan_.dim * std::clamp(share, 0.0, 1.0);
}

bool EdgePanel::pulls_in(Point at) const {
  if (!plan_.edge_swipe_opens) return false;
  const Box& screen = context().screen;
  const std::array depths{at.x, at.y, screen.w - at.x, screen.h - at.y};
  return depths[static_cast<std::size_t>(side())] <= feel_for(Tool::finger).edge_width;
}

bool EdgePanel::takes(Point at) const { return is_modal() || (is_absent() ? pulls_in(at) : Part::takes(at)); }

// How far a place is beside the grip, along the axis; not above 0 on it.
double EdgePanel::off_grip(Point at) const {
  const Box here = box();
  const std::array depths{here.right() - at.x, here.bottom() - at.y, at.x - here.x, at.y - here.y};
  return depths[static_cast<std::size_t>(side())] - plan_.grip;
}

DragInterest EdgePanel::drag_interest(const Sample& sample) const {
  const bool away = is_absent();
  const bool on_it = away || box().contains(sample.at);
  const bool on_grip = off_grip(sample.at) <= 0.0;
  if (!on_it || (plan_.grip_only && !on_grip && !away)) return {};
  DragInterest drag_interest = Sliding::drag_interest(sample);
  drag_interest.handle = on_grip && !away;
  return drag_interest;
}

// Fingers.

// Below its lowest rest it yields, where a drag does not close it; never does it jump there.
void EdgePanel::wait_for_finger() {
  const bool closes = plan_.drag_closes || snap_point_ == 0;
  rail_.set_snap_points(closes ? snap_points_ : open_rests_);
  rail_.set_bounds(closes ? 0.0 : std::min(plan_.snap_points.front(), out()), max());
}

bool EdgePanel::capture(const Contact& contact, const Sample& sample) {
  const bool away = is_absent();
  if (!away && !Part::takes(sample.at)) return outside_.down(contact, sample, On::backdrop) || is_modal();
  if (pressed()) return is_modal();
  wait_for_finger();
  const double off = plan_.grip_only && !away ? off_grip(sample.at) : 0.0;
  return rail_.down(contact, sample, off, plan_.grip);
}

void EdgePanel::lift(const Contact& contact, const Sample& sample) {
  if (!outside_.mine(contact)) return Sliding::lift(contact, sample);
  if (!outside_.lift(*this, contact, sample) || !is_open()) return;
  decide(plan_.backdrop_closes ? answers::closed_by_backdrop : answers::backdrop_stays);
  if (plan_.backdrop_closes) to(0);
}

Point EdgePanel::drag_to(const Contact& contact, const Sample& sample) {
  if (outside_.mine(contact)) outside_.follow(sample);
  return Sliding::drag_to(contact, sample);
}

void EdgePanel::let_go(const Contact& contact, LetGo how) {
  if (outside_.mine(contact)) outside_.end();
  Sliding::let_go(contact, how);
}

bool EdgePanel::take_over(const Contact& contact, Point anchor) {
  if (!pressed()) wait_for_finger();
  return Sliding::take_over(contact, anchor);
}

bool EdgePanel::take_momentum(Point velocity) {
  if (pressed()) return false;
  wait_for_finger();
  return Sliding::take_momentum(velocity);
}

// Rests.

// Where it goes is settled once no finger has it: from then on every rest may be asked for.
void EdgePanel::update() {
  if (dragging() && state_ == EnterExit::State::absent) {
    state_ = EnterExit::State::entering;
    decide(answers::state_entering);
    tell_state();
  }
  if (pressed()) backs_ = false;
  if (pressed() || backs_ || rail_.owes_landing()) return;
  rail_.set_bounds(0.0, max());
  rail_.set_snap_points(snap_points_);
  set_out();
  if (rail_.settled()) rested();
}

// Tells where it goes, if that has changed.
void EdgePanel::set_out() {
  set_out_for(target() > 0.0 ? static_cast<int>(rail_.plan().snap_points.nearest(target())) : 0);
}

void EdgePanel::set_out_for(int goal) {
  const int before = std::exchange(snap_point_, goal);
  if (goal == before) return;
  if ((goal > 0) != (before > 0)) {
    const EnterExit::State now = goal > 0 ? EnterExit::State::entering : EnterExit::State::leaving;
    if (std::exchange(state_, now) != now)
      decide(goal > 0 ? answers::state_entering : answers::state_leaving);
    if (!plan_.dim_follows) {
      dim_.set_reduced(reduced(plan_.reduced_motion));
      dim_.send(goal > 0 ? 1.0 : 0.0, plan_.dim_transition, context().now);
    }
  }
  tell_snap_point();
  tell_state();
}

void EdgePanel::tell_snap_point() {
  if (asked()) return;  // what the app has written counts
  if (snap_point_cell_.linked()) snap_point_cell_.set(snap_point_);
  if (open_cell_.linked()) open_cell_.set(snap_point_ > 0);
}

void EdgePanel::rested() {
  if (dim_.moving()) return;  // the slower one ends the way
  const EnterExit::State now = out() > 0.0 ? EnterExit::State::present : EnterExit::State::absent;
  if (std::exchange(state_, now) == now) return;
  decide(now == EnterExit::State::present ? answers::state_present : answers::state_absent);
  tell_state();
}

void EdgePanel::tell_state() {
  const bool other = std::exchange(told_state_, state_) != state_;
  went(other);
}

void EdgePanel::to(int snap_point) {
  snap_point = std::clamp(snap_point, 0, max_snap_point());
  if (snap_point == snap_point_) {
    decide(snap_point > 0 ? answers::state_open_already : answers::state_closed_already);
    return tell_snap_point();  // a finger may have brought it here while that waited
  }
  backs_ = false;
  rail_.set_bounds(0.0, max());
  rail_.set_snap_points(snap_points_);
  set_out_for(snap_point);
  rail_.go_to(place_of(snap_point));
}

void EdgePanel::go_to(int snap_point) {
  ask([this, snap_point] { to(snap_point); }, WhileHeld::waits);
}

void EdgePanel::toggle() {
  ask([this] { to(snap_point_ > 0 ? 0 : 1); }, WhileHeld::waits);
}

void EdgePanel::step(int by) {
  ask([this, by] { to(snap_point_ + by); }, WhileHeld::waits);
}

bool EdgePanel::press(Key key) {
  if (key == Key::escape) {
    if (!wants_back()) return false;
    if (pressed())
      decide(answers::key_held);
    else
      back();
    return true;
  }
  if (snap_point_ == 0) return false;
  const std::array outwards{Key::right, Key::down, Key::left, Key::up};
  const std::array inwards{Key::left, Key::up, Key::right, Key::down};
  const auto at = static_cast<std::size_t>(side());
  int wanted = snap_point_;
  if (key == outwards[at])
    ++wanted;
  else if (key == inwards[at])
    --wanted;
  else if (key == Key::home)
    wanted = 1;
  else if (key == Key::end)
    wanted = max_snap_point();
  else
    return false;
  if (pressed()) {
    decide(answers::key_held);
    return true;
  }
  wanted = std::clamp(wanted, plan_.drag_closes ? 0 : 1, max_snap_point());
  decide(wanted == snap_point_ ? answers::key_at_end : answers::key_moves, {place_of(snap_point_), "dp"},
         {place_of(wanted), "dp"});
  if (wanted != snap_point_) to(wanted);
  return true;
}

void EdgePanel::back_moves(double progress) {
  if (!plan_.back_closes) return;
  backs_ = true;
  rail_.put_at((1.0 - progress) * place_of(snap_point_));
}

void EdgePanel::back_cancelled() {
  if (std::exchange(backs_, false)) rail_.go_to(place_of(snap_point_));
}

void EdgePanel::back() {
  backs_ = false;
  decide(plan_.back_closes ? answers::closed_by_back : answers::back_stays);
  if (plan_.back_closes) to(0);
}

void EdgePanel::leave() {
  if (snap_point_ > 0) to(0);
}

void EdgePanel::cell_changed() {
  const int wanted = asked_for();
  if (wanted == snap_point_) {  // what it cannot follow is put right
    if (snap_point_cell_.linked()) snap_point_cell_.set(snap_point_);
    if (open_cell_.linked()) open_cell_.set(snap_point_ > 0);
  } else {
    to(wanted);
  }
}

void EdgePanel::resized() { take(planned(), false); }

// On the same rest as before, at the place it now has.
void EdgePanel::take(Plan plan, bool glides) {
  plan_ = std::move(plan);
  const bool stood = rail_.settled();
  rail_.change(rail_plan(plan_, context().right_to_left), {});
  take_rests();
  snap_point_ = std::min(snap_point_, max_snap_point());
  if (!dim_.moving() || plan_.dim_follows) put_dim();
  if (pressed()) return wait_for_finger();
  const double place = place_of(snap_point_);
  if (stood && !glides)
    rail_.put_at(place);
  else if (target() != place)
    rail_.go_to(place);
}

}  // namespace ubbo
