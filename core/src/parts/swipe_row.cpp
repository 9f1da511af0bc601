#include "ubbo/parts/swipe_row.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <span>
#include <string_view>
#include <utility>

namespace ubbo {

namespace {

constexpr std::array state_names{"closed", "open", "committed", "failed", "removed"};
constexpr std::array<std::array<const char*, 2>, 2> side_names{{{"leading", "trailing"}, {"above", "below"}}};

// Closed, and open over either side of an axis, if it opens there.
SnapPoints places_of(const std::array<double, 2>& sides) {
  return SnapPoints::list({0.0, sides[0], 0.0 - sides[1]});
}

}  // namespace

const char* name_of(SwipeRow::State state) { return state_names[static_cast<std::size_t>(state)]; }

template <>
std::span<const Setting<SwipeRowSettings>> settings_of<SwipeRowSettings>() {
  using declare::number;
  using S = SwipeRowSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the row is, for people and screen readers"),
      number<&S::leading>("leading", "dp", 0.0, 10000.0,
                          "how far it opens over the action at its leading side; 0: there is none"),
      number<&S::trailing>("trailing", "dp", 0.0, 10000.0,
                           "how far it opens over the action at its trailing side; 0: there is none"),
      number<&S::above>("above", "dp", 0.0, 10000.0,
                        "how far it slides down over the action above it; 0: there is none"),
      number<&S::below>("below", "dp", 0.0, 10000.0,
                        "how far it slides up over the action below it; 0: there is none"),
      declare::text<&S::leading_label>("leading_label",
                                       "the action at its leading side, such as \"Water\", for people and "
                                       "screen readers"),
      declare::text<&S::trailing_label>("trailing_label", "the action at its trailing side, in words"),
      declare::text<&S::above_label>("above_label", "the action above it, in words"),
      declare::text<&S::below_label>("below_label", "the action below it, in words"),
      declare::text<&S::leading_glyph>("leading_glyph", "the sign of the action at its leading side"),
      declare::text<&S::trailing_glyph>("trailing_glyph", "the sign of the action at its trailing side"),
      declare::text<&S::above_glyph>("above_glyph", "the sign of the action above it"),
      declare::text<&S::below_glyph>("below_glyph", "the sign of the action below it"),
      declare::choice<&S::leading_rank>("leading_rank", rank_names,
                                        "what the action at its leading side is to people"),
      declare::choice<&S::trailing_rank>("trailing_rank", rank_names,
                                         "what the action at its trailing side is to people"),
      declare::choice<&S::above_rank>("above_rank", rank_names, "what the action above it is to people"),
      declare::choice<&S::below_rank>("below_rank", rank_names, "what the action below it is to people"),
      declare::cell<&S::leading_presses>("leading_presses",
                                         "a cell that counts the presses of the action at its leading side; "
                                         "without one, what lies behind the row gets them; may be left out"),
      declare::cell<&S::trailing_presses>(
          "trailing_presses",
          "a cell that counts the presses of the action at its trailing side; "
          "may be left out"),
      declare::cell<&S::above_presses>(
          "above_presses", "a cell that counts the presses of the action above it; may be left out"),
      declare::cell<&S::below_presses>(
          "below_presses", "a cell that counts the presses of the action below it; may be left out"),
      declare::flag<&S::action_closes>("action_closes", "a press of an action closes the row"),
      declare::length<&S::open_distance>(
          "open_distance",
          "how far it must be dragged to open when it is let go: a length, or a share of the way to where it "
          "is open; 0: half-way"),
      declare::length<&S::commit_distance>(
          "commit_distance",
          "how far a long swipe must go to commit: a length, or a share of the row's own length; 0: none "
          "does"),
      number<&S::closes_after>("closes_after", "ms", 0.0, 600000.0,
                               "once open, it closes by itself after this time; 0: it stays open"),
      number<&S::timeout>("timeout", "ms", 0.0, 600000.0,
                          "once committed, it has failed when nothing came of it within this time; 0: never"),
      declare::cell<&S::open>(
          "open",
          "a cell with the id of the row that is open; those that share it are open one at "
          "a time; may be left out"),
      declare::transition<&S::transition>("transition", "how it goes where it is sent"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of its travel for people who asked for less motion"),
      number<&S::projection_time>(
          "projection_time", "ms", 0.0, 2000.0,
          "how much of the release velocity counts for where it lands; 0: none, and a flick does not "
          "count either"),
      declare::choice<&S::overscroll>(
          "overscroll", overscroll_names,
          "how it yields when it is dragged past its furthest place on a side it opens to: not at all, by a "
          "share of the finger's way, or less and less"),
      number<&S::overscroll_fraction>(
          "overscroll_fraction", "", 0.0, 1.0,
          "with linear overscroll: how much of the finger's way it follows, as a share"),
      number<&S::overscroll_reach>("overscroll_reach", "dp", 1.0, 10000.0,
                                   "with damped overscroll: how far it goes at most"),
  };
  return table;
}

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

const char* SwipeRow::side() const {
  const std::size_t axis = moving_axis();
  const Rail& rail = rails_[axis];
  const double place = rail.position() != 0.0 ? rail.position() : rail.target();
  if (place == 0.0) return "";
  return side_names[axis][place > 0.0 ? 0 : 1];
}

namespace {

// That one of four values which belongs to a side.
template <class T>
const T& at_side(std::string_view side, const T& leading, const T& trailing, const T& above, const T& below) {
  static const T none{};
  return side == "leading"    ? leading
         : side == "trailing" ? trailing
         : side == "above"    ? above
         : side == "below"    ? below
                              : none;
}

}  // namespace

const std::string& SwipeRow::side_label() const {
  return at_side(side(), settings_.leading_label, settings_.trailing_label, settings_.above_label,
                 settings_.below_label);
}

const std::string& SwipeRow::side_glyph() const {
  return at_side(side(), settings_.leading_glyph, settings_.trailing_glyph, settings_.above_glyph,
                 settings_.below_glyph);
}

Rank SwipeRow::side_rank() const {
  return at_side(side(), settings_.leading_rank, settings_.trailing_rank, settings_.above_rank,
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

// Which side it shows the action of, as `open` takes it; below 0: none.
int SwipeRow::uncovered_side() const {
  const std::string_view now = side();
  for (int side = 0; side < 4; ++side)
    if (now == side_names[static_cast<std::size_t>(side / 2)][static_cast<std::size_t>(side % 2)])
      return side;
  return -1;
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
  }
  return box;
}

namespace {

const Link<int>& presses_at(int side, const SwipeRowSettings& settings) {
  return side == 0   ? settings.leading_presses
         : side == 1 ? settings.trailing_presses
         : side == 2 ? settings.above_presses
                     : settings.below_presses;
}

}  // namespace

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
  tell(settings_.on_action,
       side_names[static_cast<std::size_t>(side / 2)][static_cast<std::size_t>(side % 2)]);
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

bool SwipeRow::touch(const Contact& contact, const Sample& sample) {
  if (sample.phase == Phase::down) {
    if (pressed()) return false;
    const bool presses = on_action(sample.at);
    // Along an axis on which it opens to no side there is nothing to drag.
    for (const std::size_t axis : {0U, 1U})
      if (sides(axis)[0] + sides(axis)[1] > 0.0 || rails_[axis].position() != 0.0)
        rails_[axis].down(contact, sample);
    held_by_ = contact.slot;
    if (presses) press_.down(contact, sample);
    return true;
  }
  if (!mine(contact)) return false;
  if (press_.mine(contact)) {
    if (sample.phase == Phase::up)  // the way may have begun a drag with the lift itself
      for (Rail& rail : rails_)
        if (rail.pressed()) rail.follow(contact, sample);
    if (dragging()) {
      press_.end();
    } else if (sample.phase == Phase::move) {
      press_.follow(*this, sample, uncovered());
    } else if (press_.lift(*this, sample, uncovered()) && has_action(uncovered_side())) {
      for (Rail& rail : rails_)
        if (rail.pressed()) rail.let_go(LetGo::lost);
      act(uncovered_side());
      return true;
    }
  }
  if (sample.phase == Phase::up)
    lift(contact, sample);
  else if (!(drag_to(contact, sample) == Point{}))
    overscroll();
  return true;
}

Point SwipeRow::drag_to(const Contact& contact, const Sample& sample) {
  Point left{};
  if (!mine(contact)) return left;
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

void SwipeRow::let_go(const Contact& contact, LetGo how) {
  if (!mine(contact)) return;
  press_.let_go(*this, contact, how);
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
  held_by_ = contact.slot;
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

void SwipeRow::lift(const Contact& contact, const Sample& sample) {
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
  const char* at = closed ? (told_ > 0.0 ? side_names[axis_][0] : side_names[axis_][1]) : side();
  told_ = now;
  tell(settings_.on_fraction, at, std::fabs(now));
}

namespace {

const SwipeRow& row_of(const Part& part) { return static_cast<const SwipeRow&>(part); }

template <Axis axis>
void row_thresholds(const Part& part, std::vector<Threshold>& out) {
  const auto& it = static_cast<const SwipeRow&>(part);
  const RailPlan& plan = it.rail(axis).plan();
  const std::size_t first = out.size();
  it.rail(axis).add_thresholds(out);
  const Box& box = it.layout_box();
  const double commit = it.settings().commit_distance.in(axis == Axis::horizontal ? box.w : box.h);
  if (commit > 0.0 && plan.max > 0.0) out.push_back({commit, 1});
  if (commit > 0.0 && plan.min < 0.0) out.push_back({-commit, -1});
  if (plan.dp_per_unit < 0.0)
    for (Threshold& one : std::span(out).subspan(first)) one = {-one.value, -one.way};
}
double offset_x(const SwipeRow& it) { return it.offset().x; }
double offset_y(const SwipeRow& it) { return it.offset().y; }
std::string state_name(const SwipeRow& it) { return name_of(it.state()); }
std::string side_name(const SwipeRow& it) { return it.side(); }

constexpr std::array swipe_row_readings{
    ReadingInfo{"offset.x", "dp", "how far it has slid to the right", &read<SwipeRow, &offset_x>, nullptr,
                true, &row_thresholds<Axis::horizontal>},
    ReadingInfo{"offset.y", "dp", "how far it has slid down", &read<SwipeRow, &offset_y>, nullptr, true,
                &row_thresholds<Axis::vertical>},
    ReadingInfo{"fraction", "", "how far it is open", &read<SwipeRow, &SwipeRow::fraction>},
    ReadingInfo{"side", "", "the side it is open over", &read<SwipeRow, &side_name>},
    ReadingInfo{"state", "", "closed, open, committed, troubled or removed", &read<SwipeRow, &state_name>},
    ReadingInfo{"room", "", "how much of its place is left", &read<SwipeRow, &SwipeRow::room>},
    ReadingInfo{"pressed", "", "a finger has it", &read<SwipeRow, &SwipeRow::pressed>},
    ReadingInfo{"dragging", "", "a finger drags it", &read<SwipeRow, &SwipeRow::dragging>},
};

void swipe_row_pieces(const Part& part, const PieceTaker& out) {
  const SwipeRow& it = row_of(part);
  Box box = it.box();
  box.h *= std::clamp(it.room(), 0.0, 1.0);
  const Point offset = it.offset();
  const std::string_view side = it.side();
  if (offset != Point{}) {
    out({.role = Role::behind,
         .name = it.side(),
         .box = it.uncovered(),
         .words = it.side_label(),
         .on = side == "leading" || side == "above",
         .held = it.action_pressed(),
         .rank = it.side_rank(),
         .glyph = it.side_glyph(),
         .failed = it.state() == SwipeRow::State::failed,
         .cursor = it.has_action(it.uncovered_side()) ? Cursor::pointer : Cursor::automatic});
  }
  out({.role = Role::row, .box = box, .held = it.dragging(), .cursor = Cursor::grab});
  if (it.room() > 0.5)
    out({.role = Role::label,
         .box = {box.x + 16.0, box.centre().y - 10.0, std::fmax(box.w - 32.0, 0.0), 20.0},
         .words = it.settings().label});
}

template <int Side>
constexpr PartAction press_side(const char* name, const char* means) {
  return {name, means, [](Part& part) { static_cast<SwipeRow&>(part).press_action(Side); },
          [](const Part& part) { return row_of(part).has_action(Side); }};
}

template <int Side>
constexpr PartAction open_action(const char* name, const char* means) {
  return {name, means, [](Part& part) { static_cast<SwipeRow&>(part).open(Side); },
          [](const Part& part) { return row_of(part).can_open(Side); }};
}

constexpr std::array swipe_actions{
    open_action<0>("open leading", "opens over what lies at its leading side"),
    open_action<1>("open trailing", "opens over what lies at its trailing side"),
    open_action<2>("open above", "opens over what lies above it"),
    open_action<3>("open below", "opens over what lies below it"),
    press_side<0>("press leading", "presses the action at its leading side, open or not"),
    press_side<1>("press trailing", "presses the action at its trailing side"),
    press_side<2>("press above", "presses the action above it"),
    press_side<3>("press below", "presses the action below it"),
    PartAction{.name = "reset",
               .means = "goes back and is as it was",
               .run = &run_action<SwipeRow, &SwipeRow::reset>,
               .while_held = WhileHeld::cancels},
    PartAction{.name = "fail",
               .means = "what was committed has failed, and the row shows that",
               .run = &run_action<SwipeRow, &SwipeRow::fail>,
               .can = [](const Part& part) { return row_of(part).state() == SwipeRow::State::committed; },
               .while_held = WhileHeld::immediate,
               .offered = false},
    PartAction{.name = "remove",
               .means = "its place closes, and then it may be taken away",
               .run = &run_action<SwipeRow, &SwipeRow::remove>,
               .can = [](const Part& part) { return row_of(part).state() != SwipeRow::State::removed; },
               .while_held = WhileHeld::cancels,
               .offered = false}};

}  // namespace

const PartKind& SwipeRow::described() {
  static const PartKind kind = describe<SwipeRow>(
      {.name = "swipe-row",
       .means = "a row that slides aside over what lies behind it",
       .role = "group",
       .example = {.box = "0, 200, \"100%\", 72",
                   .lines = "label = \"Heather\"\nleading = 96\nleading_label = \"Water\"\n",
                   .cells = ""},
       .readings = swipe_row_readings,
       .pieces = &swipe_row_pieces,
       .own_state = true,
       .reaches_out = true,
       .content_size =
           [](const AnySettings&, const Content& content, const TextWidth&) {
             return Size{0.0, content.detail.empty() ? 56.0 : 72.0};
           },
       .keys = "arrows, Enter, Space, Escape",
       .actions = swipe_actions,
       .answers = answers::swipe_row_answers});
  return kind;
}

}  // namespace ubbo
