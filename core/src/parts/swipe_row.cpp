#include "ubbo/parts/swipe_row.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <span>
#include <utility>

namespace ubbo {

namespace {

constexpr std::array state_names{"closed", "open", "committed", "failed", "removed"};
constexpr std::array side_names{"leading", "trailing", "above", "below"};

const char* name_of_side(int side) { return side < 0 ? "" : side_names[static_cast<std::size_t>(side)]; }

// That one of four values which belongs to a side.
template <class T>
const T& at_side(int side, const T& leading, const T& trailing, const T& above, const T& below) {
  static const T none{};
  const std::array<const T*, 4> all{&leading, &trailing, &above, &below};
  return side < 0 ? none : *all[static_cast<std::size_t>(side)];
}

const Link<int>& presses_at(int side, const SwipeRowSettings& settings) {
  return at_side(side, settings.leading_presses, settings.trailing_presses, settings.above_presses,
                 settings.below_presses);
}

// Closed, and open over either side of an axis, if it opens there.
SnapPoints places_of(const std::array<double, 2>& sides) {
  return SnapPoints::list({0.0, sides[0], 0.0 - sides[1]});
}

}  // namespace

const char* name_of(SwipeRow::State state) { return state_names[static_cast<std::size_t>(state)]; }

std::string SwipeRow::misfit(const Box& box, const SwipeRowSettings& settings) {
  if (settings.leading + settings.trailing + settings.above + settings.below <= 0.0)
    return "it opens to no side; it takes leading, trailing, above or below more than 0";
  for (const auto& [name, opens, whole] : {std::tuple{"leading", settings.leading, box.w},
                                           {"trailing", settings.trailing, box.w},
                                           {"above", settings.above, box.h},
                                           {"below", settings.below, box.h}})
    if (opens >= whole)
      return std::string(name) + " = " + plain_number(opens) +
             " is not taken; it takes less than the row's own " + plain_number(whole) + " dp";
  return {};
}

SwipeRow::SwipeRow(std::string id, const Box& box, SwipeRowSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context),
      rails_{Rail(*this, plan(0), {}), Rail(*this, plan(1), {})},
      returns_(*this,
               [this] {
                 decide(answers::swipe_returns, to_ms(settings_.closes_after));
                 close();
               }),
      timeout_(*this, [this] {
        decide(answers::swipe_timed_out, to_ms(settings_.timeout));
        state_ = State::failed;
      }) {
  watch();
  if (!settings_.open.linked() || settings_.open.get() != this->id()) return;
  // Open from the first.
  const int side = first_side();
  if (side < 0) return;
  rails_[aim_at(side)].put_at(place_of(side));
  state_ = State::open;
}

double SwipeRow::place_of(int side) const {
  const auto [first, last] = sides(side < 2 ? 0 : 1);
  return side % 2 == 0 ? first : -last;
}

std::size_t SwipeRow::aim_at(int side) {
  axis_ = side < 2 ? 0 : 1;
  rails_[axis_].set_snap_points(places_of(sides(axis_)));
  return axis_;
}

int SwipeRow::first_side() const {
  for (const int side : {0, 1, 2, 3})
    if (can_open(side)) return side;
  return -1;
}

void SwipeRow::watch() {
  watch_.stop();
  if (settings_.open.linked()) watch_ = settings_.open.watch([this](const std::string&) { hear(); });
}

std::array<double, 2> SwipeRow::sides(std::size_t axis) const {
  return axis == 0 ? std::array{settings_.leading, settings_.trailing}
                   : std::array{settings_.above, settings_.below};
}

RailPlan SwipeRow::plan(std::size_t axis) const {
  const auto [first, last] = sides(axis);
  const bool commits = commit_from(axis) > 0.0;
  const Overscroll overscroll{settings_.overscroll, settings_.overscroll == Overscroll::How::linear
                                                        ? settings_.overscroll_fraction
                                                        : settings_.overscroll_reach};
  RailPlan made{.axis = axis == 0 ? Axis::horizontal : Axis::vertical,
                .min = last > 0.0 ? (commits ? -length(axis) : -last) : 0.0,
                .max = first > 0.0 ? (commits ? length(axis) : first) : 0.0,
                .dp_per_unit = axis == 0 && context().right_to_left ? -1.0 : 1.0,
                .unit = "dp",
                .sense = sense_along(axis == 0 ? Axis::horizontal : Axis::vertical),
                .snap_points = places_of({first, last}),
                .transition = settings_.transition,
                .projection_time = settings_.projection_time,
                .commit_distance = settings_.open_distance,
                .overscroll_min = last > 0.0 ? overscroll : Overscroll{},
                .overscroll_max = first > 0.0 ? overscroll : Overscroll{},
                .tells = Tells::target,
                .reduced_motion = settings_.reduced_motion,
                .stays_caught = false};
  return made;
}

// Committed it stays away, whatever its settings are.
void SwipeRow::changed() {
  resized();
  watch();
}

void SwipeRow::resized() {
  for (const std::size_t axis : {0U, 1U}) {
    RailPlan next = plan(axis);
    if (committed() && axis == axis_)
      next.snap_points = SnapPoints::list({rails_[axis].target() > 0.0 ? length(axis) : -length(axis)});
    rails_[axis].change(std::move(next), {});
  }
}

// From how far on a long swipe commits; 0: none does.
double SwipeRow::commit_from(std::size_t axis) const { return settings_.commit_distance.in(length(axis)); }

// Where both axes are off their place, as after it was caught and dragged across, the last one counts.
std::size_t SwipeRow::moving_axis() const {
  const auto off = [](const Rail& rail) { return rail.position() != 0.0 || rail.target() != 0.0; };
  return off(rails_[axis_]) || !off(rails_[1 - axis_]) ? axis_ : 1 - axis_;
}

Point SwipeRow::offset() const {
  return {rails_[0].position() * rails_[0].plan().dp_per_unit, rails_[1].position()};
}

double SwipeRow::fraction() const {
  const std::size_t axis = moving_axis();
  const double place = rails_[axis].position();
  const auto [first, last] = sides(axis);
  const double side = place > 0.0 ? first : last;
  return side > 0.0 ? place / side : 0.0;
}

int SwipeRow::uncovered_side() const {
  const std::size_t axis = moving_axis();
  const Rail& rail = rails_[axis];
  const double place = rail.position() != 0.0 ? rail.position() : rail.target();
  if (place == 0.0) return -1;
  return 2 * static_cast<int>(axis) + (place > 0.0 ? 0 : 1);
}

const char* SwipeRow::side() const { return name_of_side(uncovered_side()); }

const std::string& SwipeRow::side_label() const {
  return at_side(uncovered_side(), settings_.leading_label, settings_.trailing_label, settings_.above_label,
                 settings_.below_label);
}

const std::string& SwipeRow::side_glyph() const {
  return at_side(uncovered_side(), settings_.leading_glyph, settings_.trailing_glyph, settings_.above_glyph,
                 settings_.below_glyph);
}

Rank SwipeRow::side_rank() const {
  return at_side(uncovered_side(), settings_.leading_rank, settings_.trailing_rank, settings_.above_rank,
                 settings_.below_rank);
}

void SwipeRow::present(Accessible& told) const {
  const bool says_side = state_ != State::closed && !side_label().empty();
  told.label = settings_.label;
  told.value_text = says_side ? ShortText::of(name_of(state_), ": ", side_label()) : name_of(state_);
  told.expanded = state_ != State::closed;
}

DragInterest SwipeRow::drag_interest(const Sample&) const {
  if (state_ == State::removed) return {};
  return {.horizontal = settings_.leading + settings_.trailing > 0.0,
          .vertical = settings_.above + settings_.below > 0.0,
          .after_hold = state_ == State::closed};
}

bool SwipeRow::takes(Point at) const {
  return state_ != State::removed && (Part::takes(at) || (on_action(at) && reached(at)));
}

std::optional<Box> SwipeRow::window() const {
  Box seen = box();
  seen.h *= std::clamp(room(), 0.0, 1.0);
  return offset().y == 0.0 ? seen : common(seen, place());
}

Box SwipeRow::uncovered() const {
  Box box = this->box();
  box.h *= std::clamp(room(), 0.0, 1.0);
  const Point by = offset();
  if (by.x != 0.0) {
    box.x = by.x > 0.0 ? box.x - by.x : box.right();
    box.w = std::fabs(by.x);
  } else {
    box.y = by.y > 0.0 ? box.y - by.y : box.bottom();
    box.h = std::fabs(by.y);
    box = common(box, place());
  }
  return box;
}

bool SwipeRow::has_action(int side) const {
  if (side < 0 || side > 3 || committed() || place_of(side) == 0.0) return false;
  return presses_at(side, settings_).linked() || settings_.on_action;
}

bool SwipeRow::on_action(Point at) const {
  return offset() != Point{} && has_action(uncovered_side()) && uncovered().contains(at) &&
         !box().contains(at);
}

void SwipeRow::act(int side) {
  const Link<int>& presses = presses_at(side, settings_);
  if (presses.linked() && presses.get() < std::numeric_limits<int>::max()) presses.set(presses.get() + 1);
  decide(answers::swipe_action_pressed);
  tell(settings_.on_action, name_of_side(side));
  if (settings_.action_closes) goes_back();
}

void SwipeRow::press_action(int side) {
  ask(
      [this, side] {
        if (has_action(side)) act(side);
      },
      WhileHeld::waits);
}

bool SwipeRow::can_go(Side side) const {
  const bool sideways = side == Side::left || side == Side::right;
  return rails_[sideways ? 0 : 1].can_go(side);
}

bool SwipeRow::capture(const Contact& contact, const Sample& sample) {
  if (pressed()) return false;
  const bool presses = on_action(sample.at);
  // Along an axis on which it opens to no side there is nothing to drag.
  for (const std::size_t axis : {0U, 1U})
    if (sides(axis)[0] + sides(axis)[1] > 0.0 || rails_[axis].position() != 0.0)
      rails_[axis].down(contact, sample);
  if (presses) press_.down(sample);
  return true;
}

void SwipeRow::move(const Contact& contact, const Sample& sample) {
  if (dragging())
    press_.end();
  else if (press_.held())
    press_.follow(*this, sample, uncovered());
  if (!(drag_to(contact, sample) == Point{})) overscroll();
}

void SwipeRow::lift(const Contact& contact, const Sample& sample) {
  if (press_.held()) {
    // The way may have begun a drag with the lift itself.
    for (Rail& rail : rails_)
      if (rail.pressed()) rail.follow(contact, sample);
    if (dragging()) {
      press_.end();
    } else if (press_.lift(*this, sample, uncovered()) && has_action(uncovered_side())) {
      for (Rail& rail : rails_)
        if (rail.pressed()) rail.let_go(LetGo::lost);
      return act(uncovered_side());
    }
  }
  land(contact, sample);
}

Point SwipeRow::drag_to(const Contact& contact, const Sample& sample) {
  Point left{};
  for (const std::size_t axis : {0U, 1U}) {
    Rail& rail = rails_[axis];
    if (!rail.pressed()) continue;
    left = left + rail.follow(contact, sample);
    // The first that drags has the finger alone.
    if (Rail& other = rails_[1 - axis]; rail.dragging() && other.pressed()) other.let_go(LetGo::lost);
    if (rail.dragging()) axis_ = axis;
  }
  return left;
}

void SwipeRow::overscroll() {
  for (Rail& rail : rails_) rail.overscroll();
}

void SwipeRow::let_go(const Contact&, LetGo how) {
  press_.let_go(*this, how);
  for (Rail& rail : rails_)
    if (rail.pressed()) rail.let_go(how);
}

bool SwipeRow::take_over(const Contact& contact, Point anchor) {
  const Point way = contact.seen.at - anchor;
  const bool sideways =
      std::fabs(way.x) >= std::fabs(way.y) ? drag_interest({}).horizontal : !drag_interest({}).vertical;
  Rail& rail = rails_[sideways ? 0 : 1];
  if (pressed() || !rail.take_over(contact, anchor)) return false;
  axis_ = sideways ? 0 : 1;
  return true;
}

void SwipeRow::hand_over() {
  for (Rail& rail : rails_)
    if (rail.pressed()) rail.hand_over();
}

void SwipeRow::left_behind() {
  for (Rail& rail : rails_) rail.left_behind();
  if (!pressed() && !committed()) chosen(moving_axis());
}

bool SwipeRow::take_momentum(Point velocity) {
  const std::size_t axis = std::fabs(velocity.x) >= std::fabs(velocity.y) ? 0 : 1;
  if (pressed() || committed() || !rails_[axis].take_momentum(velocity)) return false;
  chosen(axis);
  return true;
}

void SwipeRow::land(const Contact& contact, const Sample& sample) {
  for (const std::size_t axis : {0U, 1U}) {
    Rail& rail = rails_[axis];
    if (!rail.pressed()) continue;
    rail.follow(contact, sample);
    const double from = std::fabs(rail.position());
    const double needed = commit_from(axis);
    const bool commits = rail.dragging() && needed > 0.0 && from >= needed;
    const double away = rail.position() > 0.0 ? length(axis) : -length(axis);
    rail.set_snap_points(commits ? SnapPoints::list({away}) : places_of(sides(axis)));
    if (!rail.lift(contact, sample)) {
      rail.explain_press(contact, sample);
      rail.resume();
      continue;
    }
    Rail& other = rails_[1 - axis];
    if (other.pressed()) other.let_go(LetGo::lost);  // the drag began with the lift itself
    if (other.target() != 0.0) other.go_to(0.0);
    if (!commits) return chosen(axis);
    axis_ = axis;
    state_ = State::committed;
    decide(answers::swipe_commits, {from, needed});
    moment(MomentKind::committed);
    tell(settings_.on_commit, side());
    return;
  }
}

// Where it goes is chosen: open or closed.
void SwipeRow::chosen(std::size_t axis) {
  axis_ = axis;
  const double place = rails_[axis].target();
  const State before = std::exchange(state_, place != 0.0 ? State::open : State::closed);
  if (state_ == State::open) {
    decide(answers::swipe_opens, std::fabs(place));
    if (settings_.open.linked() && !asked()) settings_.open.set(id());
    if (before != State::open) tell(settings_.on_open, side());
  } else if (before != State::closed) {
    decide(answers::swipe_closes);
    if (settings_.open.linked() && settings_.open.get() == id()) settings_.open.set({});
  }
}

// Its times, and what the app is told, follow from what it is now.
void SwipeRow::update() {
  const Micros now = context().now;
  returns_.run(state_ == State::open && !moving(), settings_.closes_after, now, pressed());
  timeout_.run(state_ == State::committed && !moving(), settings_.timeout, now, pressed());
  const bool gone = state_ == State::removed && !room_.moving();
  if (!std::exchange(told_removed_, gone) && gone) tell(settings_.on_removed);
  tell_fraction();
}

void SwipeRow::close() {
  for (const std::size_t axis : {0U, 1U}) {
    Rail& rail = rails_[axis];
    rail.set_snap_points(places_of(sides(axis)));
    if (rail.target() != 0.0) rail.go_to(0.0);
  }
  state_ = State::closed;
  if (settings_.open.linked() && settings_.open.get() == id()) settings_.open.set({});
}

void SwipeRow::goes_back() {
  if (state_ == State::closed) return;
  decide(answers::swipe_closes);
  close();
}

bool SwipeRow::can_open(int side) const { return !committed() && place_of(side) != 0.0; }

void SwipeRow::open_to(int side) {
  Rail& rail = rails_[aim_at(side)];
  const double to = place_of(side);
  if (rail.target() != to) rail.go_to(to);
  if (rails_[1 - axis_].target() != 0.0) rails_[1 - axis_].go_to(0.0);
  chosen(axis_);
}

void SwipeRow::open(int side) {
  ask(
      [this, side] {
        if (can_open(side)) open_to(side);
      },
      WhileHeld::waits);
}

void SwipeRow::reset() {
  ask(
      [this] {
        const bool removed = state_ == State::removed;
        room_.put(1.0);
        goes_back();
        if (removed && context().part_owner != nullptr)
          context().part_owner->closing(*this, settings_.transition, false);
      },
      WhileHeld::cancels);
}

void SwipeRow::fail() {
  ask([this] {
    if (state_ != State::committed) return;
    decide(answers::swipe_failed);
    state_ = State::failed;
  });
}

void SwipeRow::remove() {
  ask(
      [this] {
        if (state_ == State::removed) return;
        decide(answers::swipe_removed);
        state_ = State::removed;
        room_.set_reduced(reduced(settings_.reduced_motion));
        room_.send(0.0, settings_.transition, context().now);
        // What holds it closes the gap by the same motion.
        if (context().part_owner != nullptr) context().part_owner->closing(*this, settings_.transition, true);
      },
      WhileHeld::cancels);
}

bool SwipeRow::press(Key key) {
  if (key == Key::escape) {
    if (!wants_back()) return false;
    if (pressed())
      decide(answers::key_held);
    else
      goes_back();
    return true;
  }
  if (key == Key::enter || key == Key::space) {
    const int side = saved_side();
    if (!has_action(side)) return false;
    if (pressed())
      decide(answers::key_held);
    else
      act(side);
    return true;
  }
  const bool sideways = key == Key::left || key == Key::right;
  if ((!sideways && key != Key::up && key != Key::down) || committed()) return false;
  const std::size_t axis = sideways ? 0 : 1;
  const auto [first, last] = sides(axis);
  if (first + last <= 0.0) return false;
  if (pressed()) {
    decide(answers::key_held);
    return true;
  }
  Rail& rail = rails_[axis];
  const bool mirrored = sideways && context().right_to_left;
  const bool onwards = (key == Key::right || key == Key::down) != mirrored;
  rail.set_snap_points(places_of(sides(axis)));
  const SnapPoints& places = rail.plan().snap_points;
  std::size_t at = places.nearest(rail.target());
  if (onwards && at + 1 < places.size()) ++at;
  if (!onwards && at > 0) --at;
  const double from = rail.target();
  rail.key(places.at(at));
  if (rail.target() == from) return true;
  if (rails_[1 - axis].target() != 0.0) rails_[1 - axis].go_to(0.0);
  chosen(axis);
  return true;
}

int SwipeRow::saved_side() const {
  if (state_ != State::open) return -1;
  return 2 * static_cast<int>(axis_) + (rails_[axis_].target() < 0.0 ? 1 : 0);
}

void SwipeRow::restore(std::span<const double> saved) {
  ask(
      [this, side = whole(saved[0])] {
        if (saved_side() == side) return;
        goes_back();
        if (side >= 0 && side <= 3 && can_open(side)) open_to(side);
      },
      WhileHeld::waits);
}

void SwipeRow::cell_changed() {
  if (!settings_.open.linked()) return;
  const bool meant = settings_.open.get() == id();
  if (!meant && state_ == State::open) goes_back();
  if (!meant || state_ != State::closed) return;
  if (const int side = first_side(); side >= 0) open_to(side);
}

void SwipeRow::tell_fraction() {
  const double now = fraction();
  if (now == told_) return;
  const bool closed = now == 0.0;
  const char* at = closed ? name_of_side(2 * static_cast<int>(axis_) + (told_ > 0.0 ? 0 : 1)) : side();
  told_ = now;
  tell(settings_.on_fraction, at, std::fabs(now));
}

}  // namespace ubbo
