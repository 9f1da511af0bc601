#include "ubbo/parts/edge_panel.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "panel_kind.hpp"

namespace ubbo {

namespace {

Side panel_side(Edge edge, bool right_to_left) { return side_at(edge, right_to_left).value_or(Side::down); }

}  // namespace

RailPlan EdgePanel::rail_plan(const Plan& plan, bool right_to_left) {
  const Side side = panel_side(plan.edge, right_to_left);
  const bool aside = side == Side::left || side == Side::right;
  return {.axis = aside ? Axis::horizontal : Axis::vertical,
          .least = 0.0,
          .most = plan.rests.back(),
          .dp_per_unit = side == Side::right || side == Side::down ? -1.0 : 1.0,
          .rests =
              [&] {
                std::vector<double> places = plan.rests;
                places.push_back(0.0);
                return SnapPoints::list(places);
              }(),
          .passage = plan.passage,
          .carry = plan.carry,
          .commit = {.share = plan.commit, .distance = plan.commit_distance},
          .give_least = plan.drag_closes ? Give{} : plan.give_in,
          .give_most = plan.give_out,
          .tells = Tells::rest,
          .reduced_motion = plan.reduced_motion};
}

EdgePanel::EdgePanel(std::string id, const Box& box, Surroundings& around, Plan plan)
    : Sliding(std::move(id), box, around, {rail_plan(plan, around.right_to_left)}), plan_(std::move(plan)) {
  take_rests();
}

void EdgePanel::take_rests() {
  rests_ = rail_.plan().rests;
  open_rests_ = SnapPoints::list(plan_.rests);
}

Side EdgePanel::side() const { return panel_side(plan_.edge, around().right_to_left); }

double EdgePanel::place_of(int rest) const {
  return rest <= 0 ? 0.0 : plan_.rests[static_cast<std::size_t>(std::min(rest, most_rest()) - 1)];
}

void EdgePanel::follow(Link<int> rest, Link<bool> open, bool first) {
  rest_watch_.stop();
  open_watch_.stop();
  rest_cell_ = std::move(rest);
  open_cell_ = std::move(open);
  if (rest_cell_.linked())
    rest_watch_ = rest_cell_.watch([this](int wanted) {
      if (wanted != rest_) hear();
    });
  if (open_cell_.linked())
    open_watch_ = open_cell_.watch([this](bool wanted) {
      if (wanted != (rest_ > 0)) hear();
    });
  const int wanted = asked_for();
  if (wanted == rest_) return;
  if (!first) return hear();
  rest_ = wanted;
  rail_.put_at(place_of(rest_));
  state_ = rest_ > 0 ? Visit::State::here : Visit::State::away;
}

// The rest that its cells ask for.
int EdgePanel::asked_for() const {
  if (rest_cell_.linked() && rest_cell_.get() != rest_) return std::clamp(rest_cell_.get(), 0, most_rest());
  if (open_cell_.linked() && open_cell_.get() != (rest_ > 0)) return open_cell_.get() ? 1 : 0;
  return rest_;
}

// Where it is.

Point EdgePanel::moved() const { return towards(side(), length() - shown()); }

Box EdgePanel::box_at(double out) const { return laid() + towards(side(), length() - out); }

double EdgePanel::veil() const { return plan_.veil * std::clamp(out() / plan_.rests.front(), 0.0, 1.0); }

bool EdgePanel::pulls_in(Point at) const {
  if (!plan_.edge_opens) return false;
  const Box& screen = around().screen;
  const std::array depths{at.x, at.y, screen.w - at.x, screen.h - at.y};
  return depths[static_cast<std::size_t>(side())] <= feel_for(Tool::finger).edge_width;
}

bool EdgePanel::takes(Point at) const { return is_modal() || (is_away() ? pulls_in(at) : Part::takes(at)); }

// How far a place is beside the grip, along the axis; not above 0 on it.
double EdgePanel::off_grip(Point at) const {
  const Box here = box();
  const std::array depths{here.right() - at.x, here.bottom() - at.y, at.x - here.x, at.y - here.y};
  return depths[static_cast<std::size_t>(side())] - plan_.grip;
}

Wish EdgePanel::wish(const Sample& sample) const {
  const bool away = is_away();
  const bool on_it = away || box().contains(sample.at);
  const bool on_grip = off_grip(sample.at) <= 0.0;
  if (!on_it || (plan_.grip_only && !on_grip && !away)) return {};
  Wish wish = Sliding::wish(sample);
  wish.handle = on_grip && !away;
  return wish;
}

// Fingers.

// Below its lowest rest it yields, where a drag does not close it; never does it jump there.
void EdgePanel::wait_for_finger() {
  const bool closes = plan_.drag_closes || rest_ == 0;
  rail_.set_rests(closes ? rests_ : open_rests_);
  rail_.set_bounds(closes ? 0.0 : std::min(plan_.rests.front(), out()), most());
}

bool EdgePanel::touch(const Contact& contact, const Sample& sample) {
  if (sample.phase == Phase::down) {
    const bool away = is_away();
    if (!away && !Part::takes(sample.at)) return outside_.down(contact, sample, On::backdrop) || is_modal();
    if (pressed()) return is_modal();
    wait_for_finger();
    const double off = plan_.grip_only && !away ? off_grip(sample.at) : 0.0;
    return Sliding::hold(contact, sample, off, plan_.grip);
  }
  if (outside_.mine(contact)) {
    if (sample.phase == Phase::move) outside_.follow(sample);
    if (sample.phase == Phase::up && outside_.lift(*this, contact, sample) && is_open()) {
      decide(plan_.backdrop_closes ? answers::closed_by_backdrop : answers::backdrop_stays);
      if (plan_.backdrop_closes) to(0);
    }
    return true;
  }
  return mine(contact) ? Sliding::touch(contact, sample) : is_modal();
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
  if (dragging() && state_ == Visit::State::away) {
    state_ = Visit::State::arriving;
    decide(answers::visit_arrives);
    went(state_);
  }
  if (pressed()) backs_ = false;
  if (pressed() || backs_ || rail_.owes_landing()) return;
  rail_.set_bounds(0.0, most());
  rail_.set_rests(rests_);
  set_out();
  if (rail_.settled()) rested();
}

// Tells where it goes, if that has changed.
void EdgePanel::set_out() {
  set_out_for(target() > 0.0 ? static_cast<int>(rail_.plan().rests.nearest(target())) : 0);
}

void EdgePanel::set_out_for(int goal) {
  const int before = std::exchange(rest_, goal);
  if (goal == before) return;
  if ((goal > 0) != (before > 0)) {
    const Visit::State now = goal > 0 ? Visit::State::arriving : Visit::State::leaving;
    if (std::exchange(state_, now) != now) decide(goal > 0 ? answers::visit_arrives : answers::visit_leaves);
  }
  tell_rest();
  went(state_);
}

void EdgePanel::tell_rest() {
  if (asked()) return;  // what the app has written counts
  if (rest_cell_.linked()) rest_cell_.set(rest_);
  if (open_cell_.linked()) open_cell_.set(rest_ > 0);
}

void EdgePanel::rested() {
  const Visit::State now = out() > 0.0 ? Visit::State::here : Visit::State::away;
  if (std::exchange(state_, now) == now) return;
  decide(now == Visit::State::here ? answers::visit_here : answers::visit_away);
  went(now);
}

void EdgePanel::to(int rest) {
  rest = std::clamp(rest, 0, most_rest());
  if (rest == rest_) {
    decide(rest > 0 ? answers::visit_open_already : answers::visit_closed_already);
    return tell_rest();  // a finger may have brought it here while that waited
  }
  backs_ = false;
  rail_.set_bounds(0.0, most());
  rail_.set_rests(rests_);
  set_out_for(rest);
  rail_.go_to(place_of(rest));
}

void EdgePanel::go_to(int rest) {
  ask([this, rest] { to(rest); }, WhileHeld::waits);
}

void EdgePanel::toggle() {
  ask([this] { to(rest_ > 0 ? 0 : 1); }, WhileHeld::waits);
}

void EdgePanel::step(int by) {
  ask([this, by] { to(rest_ + by); }, WhileHeld::waits);
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
  if (rest_ == 0) return false;
  const std::array outwards{Key::right, Key::down, Key::left, Key::up};
  const std::array inwards{Key::left, Key::up, Key::right, Key::down};
  const auto at = static_cast<std::size_t>(side());
  int wanted = rest_;
  if (key == outwards[at])
    ++wanted;
  else if (key == inwards[at])
    --wanted;
  else if (key == Key::home)
    wanted = 1;
  else if (key == Key::end)
    wanted = most_rest();
  else
    return false;
  if (pressed()) {
    decide(answers::key_held);
    return true;
  }
  wanted = std::clamp(wanted, plan_.drag_closes ? 0 : 1, most_rest());
  decide(wanted == rest_ ? answers::key_at_end : answers::key_moves, {place_of(rest_), "dp"},
         {place_of(wanted), "dp"});
  if (wanted != rest_) to(wanted);
  return true;
}

void EdgePanel::back_moves(double progress) {
  if (!plan_.back_closes) return;
  backs_ = true;
  rail_.put_at((1.0 - progress) * place_of(rest_));
}

void EdgePanel::back_cancelled() {
  if (std::exchange(backs_, false)) rail_.go_to(place_of(rest_));
}

void EdgePanel::back() {
  backs_ = false;
  decide(plan_.back_closes ? answers::closed_by_back : answers::back_stays);
  if (plan_.back_closes) to(0);
}

void EdgePanel::leave() {
  if (rest_ > 0) to(0);
}

void EdgePanel::cell_changed() {
  const int wanted = asked_for();
  if (wanted == rest_) {  // what it cannot follow is put right
    if (rest_cell_.linked()) rest_cell_.set(rest_);
    if (open_cell_.linked()) open_cell_.set(rest_ > 0);
  } else {
    to(wanted);
  }
}

void EdgePanel::resized() { take(planned(), false); }

// On the same rest as before, at the place it now has.
void EdgePanel::take(Plan plan, bool glides) {
  plan_ = std::move(plan);
  const bool stood = rail_.settled();
  rail_.change(rail_plan(plan_, around().right_to_left), {});
  take_rests();
  rest_ = std::min(rest_, most_rest());
  if (pressed()) return wait_for_finger();
  const double place = place_of(rest_);
  if (stood && !glides)
    rail_.put_at(place);
  else if (target() != place)
    rail_.go_to(place);
}

}  // namespace ubbo
