#include "ubbo/parts/swipe_row.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

namespace ubbo {

namespace {

constexpr std::array state_names{"closed", "open", "committed", "troubled", "removed"};
constexpr std::array swipe_actions{"open leading", "reset", "open trailing"};
constexpr std::array swipe_calls{"reset", "fail", "remove"};
constexpr std::array<std::array<const char*, 2>, 2> side_names{{{"leading", "trailing"}, {"above", "below"}}};

// Closed, and open over either side of an axis, if it opens there.
SnapPoints places_of(const std::array<double, 2>& sides) {
  std::vector<double> places{0.0};
  for (const double side : {sides[0], -sides[1]})
    if (side != 0.0) places.push_back(side);
  return SnapPoints::list(std::move(places));
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
                          "how far it opens over what lies at its leading side; 0: not"),
      number<&S::trailing>("trailing", "dp", 0.0, 10000.0, "the same for its trailing side"),
      number<&S::above>("above", "dp", 0.0, 10000.0, "the same for what lies above it: it slides down"),
      number<&S::below>("below", "dp", 0.0, 10000.0, "the same for what lies below it: it slides up"),
      declare::text<&S::leading_label>(
          "leading_label",
          "what lies at its leading side, such as \"Visited\", for people and screen readers"),
      declare::text<&S::trailing_label>("trailing_label", "the same for its trailing side"),
      declare::text<&S::above_label>("above_label", "the same for what lies above it"),
      declare::text<&S::below_label>("below_label", "the same for what lies below it"),
      number<&S::opens_at>("opens_at", "", 0.01, 1.0,
                           "the share of that from which it opens when it is let go"),
      number<&S::commits_at>("commits_at", "", 0.0, 1.0,
                             "the share of its own length from which a long swipe commits; 0: none does"),
      number<&S::returns_after>("returns_after", "ms", 0.0, 600000.0,
                                "once open, it goes back by itself after so long; 0: it stays"),
      number<&S::patience>("patience", "ms", 0.0, 600000.0,
                           "once committed, it shows trouble when nothing came of it for so long; 0: never"),
      declare::cell<&S::open>(
          "open",
          "a cell with the id of the row that is open; those that share it are open one at "
          "a time; may be left out"),
      declare::passage<&S::passage>("passage", "how it goes where it is sent"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of its travel for people who asked for less motion"),
      number<&S::carry>(
          "carry", "ms", 0.0, 2000.0,
          "how much of the release velocity counts for where it lands; 0: none, and a flick does not "
          "count either"),
  };
  return table;
}

std::string SwipeRow::fault(const std::string& id, const Box& box, const SwipeRowSettings& settings) {
  const std::string owner = "swipe row '" + id + "'";
  std::string fault = settings_fault(owner, settings);
  if (!fault.empty()) return fault;
  if (fault = passage_fault(settings.passage); !fault.empty()) return owner + ": " + fault;
  if (settings.leading + settings.trailing + settings.above + settings.below <= 0.0)
    return owner + ": it opens to no side; it takes leading, trailing, above or below more than 0";
  for (const auto& [name, opens, whole] : {std::tuple{"leading", settings.leading, box.w},
                                           {"trailing", settings.trailing, box.w},
                                           {"above", settings.above, box.h},
                                           {"below", settings.below, box.h}})
    if (opens >= whole)
      return owner + ": " + name + " = " + plain_number(opens) +
             " is not taken; it takes less than the row's own " + plain_number(whole) + " dp";
  return {};
}

SwipeRow::SwipeRow(std::string id, const Box& box, SwipeRowSettings settings, Surroundings& around)
    : Part(std::move(id), box, around),
      settings_(checked_settings<SwipeRow>(this->id(), box, std::move(settings))),
      rails_{Rail(*this, plan(Axis::horizontal), {}), Rail(*this, plan(Axis::vertical), {})} {
  for (const int axis : {0, 1})
    rails_[static_cast<std::size_t>(axis)].on_rest = [this, axis](double place) {
      came_to_rest(axis, place);
    };
  if (settings_.open.linked()) watch_ = settings_.open.watch([this](const std::string&) { hear(); });
}

std::array<double, 2> SwipeRow::sides(int axis) const {
  return axis == 0 ? std::array{settings_.leading, settings_.trailing}
                   : std::array{settings_.above, settings_.below};
}

SnapPoints SwipeRow::rests(int axis, bool committing) const {
  if (!committing) return places_of(sides(axis));
  const double away = rails_[static_cast<std::size_t>(axis)].position() > 0.0 ? length(axis) : -length(axis);
  return SnapPoints::list({away});
}

RailPlan SwipeRow::plan(Axis axis) const {
  const int which = axis == Axis::horizontal ? 0 : 1;
  const auto [first, last] = sides(which);
  const bool commits = settings_.commits_at > 0.0;
  return {.axis = axis,
          .least = last > 0.0 ? (commits ? -length(which) : -last) : 0.0,
          .most = first > 0.0 ? (commits ? length(which) : first) : 0.0,
          .dp_per_unit = axis == Axis::horizontal && around().right_to_left ? -1.0 : 1.0,
          .unit = "dp",
          .rests = places_of({first, last}),
          .passage = settings_.passage,
          .carry = settings_.carry,
          .commit = {.share = settings_.opens_at},
          .tells = Tells::target,
          .reduced_motion = settings_.reduced_motion,
          .stays_caught = false};
}

void SwipeRow::change(SwipeRowSettings settings) {
  settings_ = std::move(settings);
  rails_[0].change(plan(Axis::horizontal), {});
  rails_[1].change(plan(Axis::vertical), {});
  watch_.stop();
  if (settings_.open.linked()) watch_ = settings_.open.watch([this](const std::string&) { hear(); });
}

void SwipeRow::resized() {
  for (const int axis : {0, 1}) {
    Rail& rail = rails_[static_cast<std::size_t>(axis)];
    const RailPlan other = plan(axis == 0 ? Axis::horizontal : Axis::vertical);
    rail.set_bounds(other.least, other.most);
    rail.set_dp_per_unit(other.dp_per_unit);
  }
}

int SwipeRow::moving_axis() const { return rails_[1].position() != 0.0 || rails_[1].target() != 0.0 ? 1 : 0; }

Point SwipeRow::offset() const {
  return {rails_[0].position() * rails_[0].plan().dp_per_unit, rails_[1].position()};
}

double SwipeRow::share() const {
  const int axis = moving_axis();
  const double place = rails_[static_cast<std::size_t>(axis)].position();
  const auto [first, last] = sides(axis);
  const double side = place > 0.0 ? first : last;
  return side > 0.0 ? place / side : 0.0;
}

const char* SwipeRow::side() const {
  const int axis = moving_axis();
  const Rail& rail = rails_[static_cast<std::size_t>(axis)];
  const double place = rail.position() != 0.0 ? rail.position() : rail.target();
  if (place == 0.0) return "";
  return side_names[static_cast<std::size_t>(axis)][place > 0.0 ? 0 : 1];
}

bool SwipeRow::settled() const {
  return rails_[0].settled() && rails_[1].settled() && !room_.moving() && returns_at_ == never &&
         troubled_at_ == never;
}

const std::string& SwipeRow::side_label() const {
  static const std::string none;
  const std::string_view at = side();
  return at == "leading"    ? settings_.leading_label
         : at == "trailing" ? settings_.trailing_label
         : at == "above"    ? settings_.above_label
         : at == "below"    ? settings_.below_label
                            : none;
}

Accessible SwipeRow::accessible() const {
  // Only what it can do: over a side that it has.
  const std::size_t first = settings_.leading > 0.0 ? 0 : 1, last = settings_.trailing > 0.0 ? 3 : 2;
  const bool says_side = state_ != State::closed && !side_label().empty();
  return {.role = described().role,
          .label = settings_.label,
          .value_text = says_side ? std::string(name_of(state_)) + ": " + side_label() : name_of(state_),
          .expanded = state_ != State::closed,
          .disabled = !enabled(),
          .keys = described().keys,
          .actions = std::span(swipe_actions).subspan(first, last - first)};
}

Wish SwipeRow::wish(const Sample&) const {
  if (state_ == State::removed) return {};
  return {.horizontal = settings_.leading + settings_.trailing > 0.0,
          .vertical = settings_.above + settings_.below > 0.0};
}

bool SwipeRow::takes(Point at) const { return state_ != State::removed && Part::takes(at); }

bool SwipeRow::can_go(Side side) const {
  const bool sideways = side == Side::left || side == Side::right;
  return rails_[sideways ? 0 : 1].can_go(side);
}

bool SwipeRow::touch(const Contact& contact, const Sample& sample) {
  if (sample.phase == Phase::down) {
    if (pressed()) return false;
    for (Rail& rail : rails_) rail.down(contact, sample);
    held_by_ = contact.slot;
    return true;
  }
  if (!mine(contact)) return false;
  if (sample.phase == Phase::up) {
    lift(contact, sample);
  } else {
    for (const std::size_t axis : {0U, 1U}) {
      Rail& rail = rails_[axis];
      if (!rail.pressed()) continue;
      if (sample.phase == Phase::cancel) {
        rail.cancel();
        continue;
      }
      rail.follow(contact, sample);
      // The first that drags has the finger alone.
      if (Rail& other = rails_[1 - axis]; rail.dragging() && other.pressed()) other.lose();
    }
  }
  share_told();
  return true;
}

void SwipeRow::lose(const Contact& contact, const Sample&) {
  if (!mine(contact)) return;
  for (Rail& rail : rails_)
    if (rail.pressed()) rail.lose();
}

bool SwipeRow::take_over(const Contact& contact, Point anchor) {
  const Point way = contact.seen.at - anchor;
  const bool sideways = std::fabs(way.x) >= std::fabs(way.y) ? wish({}).horizontal : !wish({}).vertical;
  Rail& rail = rails_[sideways ? 0 : 1];
  if (pressed() || !rail.take_over(contact, anchor)) return false;
  held_by_ = contact.slot;
  return true;
}

void SwipeRow::hand_over() {
  for (Rail& rail : rails_)
    if (rail.pressed()) rail.hand_over();
}

void SwipeRow::lift(const Contact& contact, const Sample& sample) {
  for (const int axis : {0, 1}) {
    Rail& rail = rails_[static_cast<std::size_t>(axis)];
    if (!rail.pressed()) continue;
    rail.follow(contact, sample);
    const double from = std::fabs(rail.position());
    const double needed = settings_.commits_at * length(axis);
    const bool commits = rail.dragging() && settings_.commits_at > 0.0 && from >= needed;
    rail.set_rests(rests(axis, commits));
    if (!rail.lift(contact, sample)) {
      rail.explain_press(contact, sample);
      rail.resume();
      continue;
    }
    if (commits) {
      decide(answers::swipe_commits, {Fact::above("from", from, "dp", needed)});
      state_ = State::committed;
      returns_at_ = never;
      if (settings_.on_commit) settings_.on_commit(side());
    } else {
      chosen();
    }
    Rail& other = rails_[static_cast<std::size_t>(1 - axis)];
    if (other.pressed()) other.lose();  // the drag began with the lift itself
    if (other.target() != 0.0) other.go_to(0.0);
    return;
  }
}

// Where it goes is chosen: open or closed.
void SwipeRow::chosen() {
  const Rail& rail = rails_[static_cast<std::size_t>(moving_axis())];
  const State before = std::exchange(state_, rail.target() != 0.0 ? State::open : State::closed);
  troubled_at_ = returns_at_ = never;
  if (state_ == State::open) {
    decide(answers::swipe_opens, {Fact::plain("place", std::fabs(rail.target()), "dp")});
    if (settings_.open.linked()) settings_.open.set(id());
    if (settings_.on_open && before != State::open) settings_.on_open(side());
  } else if (before != State::closed) {
    decide(answers::swipe_closes);
    if (settings_.open.linked() && settings_.open.get() == id()) settings_.open.set("");
  }
}

void SwipeRow::came_to_rest(int axis, double place) {
  if (place != 0.0 && axis == moving_axis()) {
    if (state_ == State::open && settings_.returns_after > Micros{0})
      returns_at_ = around().now + settings_.returns_after;
    if (state_ == State::committed && settings_.patience > Micros{0})
      troubled_at_ = around().now + settings_.patience;
  }
  share_told();
}

void SwipeRow::close() {
  troubled_at_ = returns_at_ = never;
  for (const int axis : {0, 1}) {
    Rail& rail = rails_[static_cast<std::size_t>(axis)];
    rail.set_rests(rests(axis, false));
    if (!rail.pressed() && rail.target() != 0.0) rail.go_to(0.0);
  }
  state_ = State::closed;
  if (settings_.open.linked() && settings_.open.get() == id()) settings_.open.set("");
}

void SwipeRow::goes_back() {
  if (state_ == State::closed || state_ == State::removed) return;
  decide(answers::swipe_closes);
  close();
}

void SwipeRow::reset() {
  ask([this] { act(swipe_calls[0]); });
}

void SwipeRow::fail() {
  ask([this] { act(swipe_calls[1]); });
}

void SwipeRow::remove() {
  ask([this] { act(swipe_calls[2]); });
}

bool SwipeRow::act(std::string_view action) {
  if (action == swipe_calls[0]) {
    room_.put(1.0);
    if (state_ == State::removed) state_ = State::committed;
    goes_back();
    return true;
  }
  if (action == swipe_calls[1]) {
    if (state_ != State::committed) return false;
    decide(answers::swipe_failed);
    troubled_at_ = never;
    state_ = State::troubled;
    return true;
  }
  if (action == swipe_calls[2]) {
    if (state_ == State::removed || pressed()) return false;
    decide(answers::swipe_removed);
    troubled_at_ = returns_at_ = never;
    state_ = State::removed;
    room_.set_reduced(reduced_for(settings_.reduced_motion, around().reduced_motion));
    room_.send(0.0, settings_.passage, around().now);
    if (!room_.moving() && settings_.on_removed) settings_.on_removed();
    return true;
  }
  const bool leading = action == swipe_actions[0];
  if ((!leading && action != swipe_actions[2]) || state_ == State::removed || pressed()) return false;
  const double to = leading ? settings_.leading : -settings_.trailing;
  if (to == 0.0) return false;
  rails_[0].set_rests(rests(0, false));
  rails_[0].go_to(to);
  chosen();
  return true;
}

bool SwipeRow::press(Key key) {
  if (key == Key::escape) return back();
  const bool sideways = key == Key::left || key == Key::right;
  if ((!sideways && key != Key::up && key != Key::down) || state_ == State::removed) return false;
  const int axis = sideways ? 0 : 1;
  const auto [first, last] = sides(axis);
  if (first + last <= 0.0) return false;
  if (pressed()) {
    decide(answers::key_held);
    return true;
  }
  Rail& rail = rails_[static_cast<std::size_t>(axis)];
  const bool mirrored = sideways && around().right_to_left;
  const bool onwards = (key == Key::right || key == Key::down) != mirrored;
  rail.set_rests(rests(axis, false));
  const SnapPoints& places = rail.plan().rests;
  std::size_t at = places.nearest(rail.target());
  if (onwards && at + 1 < places.size()) ++at;
  if (!onwards && at > 0) --at;
  const double from = rail.target();
  rail.key(places.at(at));
  if (rail.target() != from) chosen();
  return true;
}

bool SwipeRow::back() {
  if (state_ != State::open) return false;
  goes_back();
  return true;
}

void SwipeRow::heard() {
  if (!settings_.open.linked()) return;
  const bool meant = settings_.open.get() == id();
  if (!meant && state_ == State::open && !dragging()) goes_back();
  if (meant && state_ == State::closed && !pressed()) {
    const double to = settings_.leading > 0.0 ? settings_.leading : -settings_.trailing;
    Rail& rail = rails_[to != 0.0 ? 0 : 1];
    rail.go_to(to != 0.0 ? to : settings_.above > 0.0 ? settings_.above : -settings_.below);
    chosen();
  }
}

Micros SwipeRow::due() const {
  return std::min({rails_[0].due(), rails_[1].due(), room_.due(), returns_at_, troubled_at_});
}

void SwipeRow::advance(Micros now) {
  for (Rail& rail : rails_) rail.advance(now);
  if (room_.advance(now) && settings_.on_removed) settings_.on_removed();
  if (returns_at_ <= now && !pressed()) {
    decide(answers::swipe_returns, {Fact::plain("waited", to_ms(settings_.returns_after), "ms")});
    close();
  }
  if (troubled_at_ <= now) {
    troubled_at_ = never;
    decide(answers::swipe_troubled, {Fact::plain("waited", to_ms(settings_.patience), "ms")});
    state_ = State::troubled;
  }
}

void SwipeRow::share_told() {
  const double now = share();
  if (now == told_) return;
  told_ = now;
  if (settings_.on_share) settings_.on_share(now);
}

namespace {

const SwipeRow& row_of(const Part& part) { return static_cast<const SwipeRow&>(part); }

double offset_x(const SwipeRow& it) { return it.offset().x; }
double offset_y(const SwipeRow& it) { return it.offset().y; }
std::string state_name(const SwipeRow& it) { return name_of(it.state()); }
std::string side_name(const SwipeRow& it) { return it.side(); }

constexpr std::array swipe_row_readings{
    ReadingInfo{"offset.x", "dp", "how far it has slid to the right", &read<SwipeRow, &offset_x>, nullptr,
                true},
    ReadingInfo{"offset.y", "dp", "how far it has slid down", &read<SwipeRow, &offset_y>, nullptr, true},
    ReadingInfo{"share", "", "how far it is open", &read<SwipeRow, &SwipeRow::share>},
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
    // What it uncovers, seen as far as it is open.
    Box bare = box;
    if (offset.x != 0.0) {
      bare.x = offset.x > 0.0 ? box.x - offset.x : box.right();
      bare.w = std::fabs(offset.x);
    } else {
      bare.y = offset.y > 0.0 ? box.y - offset.y : box.bottom();
      bare.h = std::fabs(offset.y);
    }
    out({.role = Role::backdrop,
         .name = it.side(),
         .box = bare,
         .words = it.side_label(),
         .opacity = std::clamp(0.25 + 0.75 * std::fabs(it.share()), 0.0, 1.0),
         .on = side == "leading" || side == "above"});
  }
  out({.role = Role::surface, .box = box, .held = it.dragging()});
  if (it.state() == SwipeRow::State::committed || it.state() == SwipeRow::State::troubled) {
    const std::string words =
        (it.state() == SwipeRow::State::troubled ? "not done: " : "") + it.settings().label;
    const Box place = box + Point{-offset.x, -offset.y};
    out({.role = Role::value,
         .name = "state",
         .box = {place.x, place.centre().y - 10.0, place.w, 20.0},
         .words = words,
         .opacity = std::clamp(2.0 * std::fabs(offset.x) / std::max(box.w, 1.0) - 1.0, 0.0, 1.0)});
  }
  if (it.room() > 0.5)
    out({.role = Role::label,
         .box = {box.x + 16.0, box.centre().y - 10.0, box.w - 32.0, 20.0},
         .words = it.settings().label});
}

}  // namespace

const PartKind& SwipeRow::described() {
  static const PartKind kind =
      describe<SwipeRow>({.name = "swipe-row",
                          .means = "a row that slides aside over what lies behind it",
                          .role = "group",
                          .readings = swipe_row_readings,
                          .pieces = &swipe_row_pieces,
                          .keys = "arrows, Escape",
                          .calls = swipe_calls,
                          .answers = answers::swipe_row_answers});
  return kind;
}

}  // namespace ubbo
