#include "ubbo/parts/range_slider.hpp"

#include <algorithm>
#include <cmath>

#include "ubbo/parts/value_keys.hpp"

namespace ubbo {

namespace {

constexpr std::array meet_names{"stops", "pushes"};

}  // namespace

template <>
std::span<const Setting<RangeSliderSettings>> settings_of<RangeSliderSettings>() {
  using declare::number;
  using S = RangeSliderSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the range is of, for people and screen readers"),
      declare::needed_cell<&S::low>("low", "the cell of the low thumb"),
      declare::needed_cell<&S::high>("high", "the cell of the high thumb"),
      number<&S::from>("from", "", -1e9, 1e9, "the value at the start of the track"),
      number<&S::to>("to", "", -1e9, 1e9, "the value at the end of the track; above `from`"),
      number<&S::step>("step", "", 0.0, 1e9,
                       "distance between snap points; 0: none, any value may be chosen"),
      number<&S::min_gap>("min_gap", "", 0.0, 1e9, "how near the thumbs may come to each other"),
      declare::choice<&S::meet>("meet", meet_names, "whether a thumb stops at the other, or takes it along"),
      declare::choice<&S::axis>("axis", axis_names, "the direction of the track; vertical grows upwards"),
      number<&S::thumb>("thumb", "dp", 1.0, 400.0, "a thumb's width"),
      number<&S::thickness>("thickness", "dp", 0.5, 400.0, "how thick the track is"),
      declare::transition<&S::transition>("transition", "how a thumb goes where it is sent"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of that travel for people who asked for less motion"),
      number<&S::projection_time>("projection_time", "ms", 0.0, 2000.0,
                                  "how much of the release velocity counts for where a thumb lands; 0: none"),
  };
  return table;
}

std::string RangeSlider::misfit(const Box& box, const RangeSliderSettings& settings) {
  const double range = settings.to - settings.from;
  const double min = 1e-9 * std::fmax(1.0, std::fmax(std::fabs(settings.from), std::fabs(settings.to)));
  if (!(range >= min))
    return "to = " + plain_number(settings.to) +
           " is not taken; it takes more than from = " + plain_number(settings.from);
  if (settings.step > 0.0 && range / settings.step > 1e9)
    return "step = " + plain_number(settings.step) + " is not taken; it takes at most 1e9 steps in the range";
  const double steps = settings.step > 0.0 ? settings.min_gap / settings.step : 0.0;
  if (settings.min_gap > range || std::fabs(steps - std::round(steps)) > 1e-6)
    return "min_gap = " + plain_number(settings.min_gap) +
           " is not taken; it takes a whole number of steps, no more than the range";
  if (!(slider_track(box, settings, false).room() > 0.0))
    return "a track of " + plain_number(along(settings.axis, {box.w, box.h})) +
           " dp leaves the thumbs no room; it takes more than thumb = " + plain_number(settings.thumb) +
           " dp";
  return {};
}

RangeSlider::RangeSlider(std::string id, const Box& box, RangeSliderSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context),
      rails_{Rail(*this, plan(), settings_.low), Rail(*this, plan(), settings_.high)} {
  for (Rail& rail : rails_) rail.on_rest = [this](double) { tell(settings_.on_rest, low(), high()); };
  bound(settings_.low.get(), settings_.high.get());
}

RailPlan RangeSlider::plan() const {
  return {.axis = settings_.axis,
          .min = settings_.from,
          .max = settings_.to,
          .dp_per_unit = way().dp_per_unit(),
          .unit = "",
          .snap_points = settings_.step > 0.0 ? SnapPoints::even(settings_.from, settings_.to, settings_.step)
                                              : SnapPoints{},
          .transition = settings_.transition,
          .projection_time = settings_.projection_time,
          .tells = Tells::choice,
          .reduced_motion = settings_.reduced_motion,
          .stays_caught = false,
          .snaps_writes = true};
}

void RangeSlider::changed() {
  rails_[0].change(plan(), settings_.low);
  rails_[1].change(plan(), settings_.high);
  bound(settings_.low.get(), settings_.high.get());
}

void RangeSlider::resized() {
  for (Rail& rail : rails_) rail.set_dp_per_unit(way().dp_per_unit());
}

// How far each may go while the other stands, or goes, there.
void RangeSlider::bound(double low, double high) {
  const double gap = settings_.min_gap;
  const double top = snaps().snapped(std::clamp(high, settings_.from + gap, settings_.to));
  const double bottom = snaps().snapped(std::clamp(low, settings_.from, top - gap));
  rails_[0].set_bounds(settings_.from, top - gap);
  rails_[1].set_bounds(bottom + gap, settings_.to);
}

void RangeSlider::present(Accessible& told) const {
  told.label = settings_.label;
  told.value_text = ShortText::of(plain_number(target(0)), " to ", plain_number(target(1)));
  told.orientation = name_of(settings_.axis);
}

int RangeSlider::held_by(const Contact& contact) const {
  for (const int which : {0, 1})
    if (rails_[index(which)].held_by(contact)) return which;
  return none;
}

// The one that is nearer, or `none` where they lie together.
int RangeSlider::nearer(Point at) const {
  constexpr double one_place = 1.0;  // dp
  if (way().apart(thumb(0), thumb(1)) < one_place) return none;
  return way().apart(at, thumb(0)) < way().apart(at, thumb(1)) ? 0 : 1;
}

void RangeSlider::grab(int which, const Contact& contact) {
  bound(target(0), target(1));
  before_ = {target(0), target(1)};
  if (!rails_[index(which)].down(contact, contact.down)) return;
  chosen_ = which;
}

bool RangeSlider::capture(const Contact& contact, const Sample& sample) {
  const int which = nearer(sample.at);
  if (which == none) {
    if (undecided_ != none || pressed(0) || pressed(1)) return false;
    undecided_ = contact.slot;
    return true;
  }
  if (pressed(which) || undecided_ != none) return false;
  decide(which == 0 ? answers::thumb_low : answers::thumb_high, way().apart(sample.at, thumb(0)),
         way().apart(sample.at, thumb(1)));
  grab(which, contact);
  return true;
}

// The thumb that the contact has; where it lay between both, the one on the side it has gone to.
int RangeSlider::thumb_of(const Contact& contact, const Sample& sample) {
  if (contact.slot == undecided_) {
    const double way =
        along(settings_.axis, sample.at - contact.down.at) * (this->way().dp_per_unit() < 0.0 ? -1.0 : 1.0);
    if (std::fabs(way) <= feel_for(sample.tool).rest_radius) return none;
    undecided_ = none;
    const int which = way < 0.0 ? 0 : 1;
    decide(which == 0 ? answers::low_by_way : answers::high_by_way, way);
    grab(which, contact);
  }
  return held_by(contact);
}

void RangeSlider::move(const Contact& contact, const Sample& sample) {
  if (const int which = thumb_of(contact, sample); which != none) move(which, contact, sample);
}

void RangeSlider::lift(const Contact& contact, const Sample& sample) {
  if (const int which = thumb_of(contact, sample); which != none) lift(which, contact, sample);
  if (contact.slot == undecided_) undecided_ = none;  // it meant neither
}

void RangeSlider::move(int which, const Contact& contact, const Sample& sample) {
  const int other = 1 - which;
  Rail& rail = rails_[index(which)];
  const bool pushes = settings_.meet == Meet::pushes && !pressed(other);
  if (!pushes) {
    bound(target(0), target(1));
    rail.follow(contact, sample);
    return;
  }
  const double gap = settings_.min_gap;
  if (which == 0)
    rail.set_bounds(settings_.from, settings_.to - gap);
  else
    rail.set_bounds(settings_.from + gap, settings_.to);
  rail.follow(contact, sample);
  if (!rail.dragging()) return;
  Rail& pushed = rails_[index(other)];
  pushed.set_bounds(settings_.from, settings_.to);
  const double edge = which == 0 ? rail.position() + gap : rail.position() - gap;
  const bool meets = which == 0 ? pushed.target() < edge : pushed.target() > edge;
  if (meets) pushed.put(edge);
}

void RangeSlider::lift(int which, const Contact& contact, const Sample& sample) {
  move(which, contact, sample);
  const int other = 1 - which;
  Rail& rail = rails_[index(which)];
  if (rail.lift(contact, sample)) {
    // One that was pushed lands too: on the snap point beyond where this one does.
    Rail& pushed = rails_[index(other)];
    if (!pressed(other)) {
      const double gap = settings_.min_gap;
      double place = snaps().snapped(pushed.target());
      place = which == 0 ? std::fmax(place, rail.target() + gap) : std::fmin(place, rail.target() - gap);
      if (place != pushed.target()) pushed.go_to(place);
    }
    return bound(target(0), target(1));
  }
  const bool was_tap = rail.was_tap(contact, sample);
  bound(target(0), target(1));
  const bool on_thumb = way().apart(contact.down.at, thumb(which)) <= std::fmax(settings_.thumb / 2, 24.0);
  if (!was_tap) rail.explain_press(contact, sample);
  if (!was_tap || on_thumb) return rail.resume();
  rail.tapped_at(way().value_at(contact.down.at));
}

void RangeSlider::let_go(const Contact& contact, LetGo how) {
  if (contact.slot == undecided_) undecided_ = none;
  const int which = held_by(contact);
  if (which == none) return;
  rails_[index(which)].let_go(how);
  // One that was pushed goes back as well.
  const int other = 1 - which;
  if (how == LetGo::cancelled && !pressed(other) && target(other) != before_[index(other)]) {
    bound(before_[0], before_[1]);
    rails_[index(other)].go_to(before_[index(other)]);
  }
  bound(target(0), target(1));
}

void RangeSlider::cell_changed() {
  // What a finger has stands where it is; of the rest, what is written counts.
  const auto wished = [this](int which, const Link<double>& cell) {
    const double value = cell.linked() ? cell.get() : target(which);
    return pressed(which) || !std::isfinite(value) ? target(which) : value;
  };
  bound(wished(0, settings_.low), wished(1, settings_.high));
  for (Rail& rail : rails_) {
    rail.heed_cell();  // what the other thumb has kept from it may be free now
    rail.cell_changed();
  }
}

bool RangeSlider::press(Key key) {
  const double range = settings_.to - settings_.from;
  const double small = settings_.step > 0.0 ? settings_.step : range / 100.0;
  const double large = std::fmax(range / 10.0, 2.0 * small);
  if (key == Key::space) {
    chosen_ = 1 - chosen_;
    return true;
  }
  Rail& rail = rails_[index(chosen_)];
  const auto wanted = ValueKeys{small, large, settings_.from, settings_.to,
                                context().right_to_left && settings_.axis == Axis::horizontal}
                          .apply(key, rail.target());
  if (!wanted) return false;
  bound(target(0), target(1));
  rail.key(*wanted);
  return true;
}

void RangeSlider::step(int which, Key key) {
  chosen_ = which;
  press(key);
}

namespace {

const RangeSlider& range_slider(const Part& part) { return static_cast<const RangeSlider&>(part); }

constexpr std::size_t max_range_marks = 200;

// A thumb leaves the other its room.
template <int Which>
void range_rests(const Part& part, std::vector<double>& snap_points) {
  const RangeSlider& it = range_slider(part);
  const RangeSliderSettings& settings = it.settings();
  const SnapPoints& snaps = it.snaps();
  for (std::size_t i = 0; i < snaps.size() && snaps.size() <= max_range_marks; ++i) {
    const double place = snaps.at(i);
    const bool has_room =
        Which == 0 ? place <= settings.to - settings.min_gap : place >= settings.from + settings.min_gap;
    if (has_room) snap_points.push_back(place);
  }
}

double low_x(const RangeSlider& it) { return it.thumb(0).x; }
double high_x(const RangeSlider& it) { return it.thumb(1).x; }
double low_y(const RangeSlider& it) { return it.thumb(0).y; }
double high_y(const RangeSlider& it) { return it.thumb(1).y; }
bool range_pressed(const RangeSlider& it) { return it.pressed(0) || it.pressed(1); }

constexpr std::array range_readings{
    ReadingInfo{"low.x", "dp", "how far the middle of the low thumb is from the left of the screen",
                &read<RangeSlider, &low_x>, nullptr, true},
    ReadingInfo{"high.x", "dp", "how far the middle of the high thumb is from the left of the screen",
                &read<RangeSlider, &high_x>, nullptr, true},
    ReadingInfo{"low.y", "dp", "how far the middle of the low thumb is from the top of the screen",
                &read<RangeSlider, &low_y>},
    ReadingInfo{"high.y", "dp", "how far the middle of the high thumb is from the top of the screen",
                &read<RangeSlider, &high_y>},
    ReadingInfo{"low", "", "where the low thumb stands", &read<RangeSlider, &RangeSlider::low>,
                &range_rests<0>},
    ReadingInfo{"high", "", "where the high thumb stands", &read<RangeSlider, &RangeSlider::high>,
                &range_rests<1>},
    ReadingInfo{"pressed", "", "a finger has a thumb", &read<RangeSlider, &range_pressed>},
    ReadingInfo{"dragging", "", "a finger drags a thumb", &read<RangeSlider, &RangeSlider::dragging>},
};

void range_pieces(const Part& part, const PieceTaker& out) {
  const RangeSlider& it = range_slider(part);
  out({.role = Role::label,
       .box = {it.box().x, it.box().y - 22.0, it.box().w, 20.0},
       .words = it.settings().label});
  out({.role = Role::track, .box = it.track()});
  out({.role = Role::fill, .box = it.fill(), .on = true});
  const SnapPoints& snaps = it.snaps();
  constexpr double min_gap = 8.0;  // marks closer than this would run into each other
  const bool marks = snaps.size() > 1 && snaps.size() <= max_range_marks &&
                     std::fmax(it.track().w, it.track().h) / static_cast<double>(snaps.size() - 1) >= min_gap;
  for (std::size_t i = 0; marks && i < snaps.size(); ++i) {
    const double value = snaps.at(i);
    const double radius = it.settings().thickness * 0.75;
    const Point at = it.place_of(value);
    out({.role = Role::mark,
         .box = {at.x - radius, at.y - radius, 2 * radius, 2 * radius},
         .on = value >= it.low() && value <= it.high()});
  }
  for (const int which : {0, 1}) {
    const double radius = it.settings().thumb / 2 * (it.pressed(which) ? 1.18 : 1.05);
    const Point at = it.thumb(which);
    const std::string words =
        plain_number(std::round(it.snaps().snapped(it.position(which)) * 100.0) / 100.0);
    out({.role = Role::handle,
         .name = which == 0 ? "low" : "high",
         .box = {at.x - radius, at.y - radius, 2 * radius, 2 * radius},
         .words = words,
         .on = true,
         .held = it.pressed(which)});
  }
}

std::optional<Point> range_place(const Part& part, double value) {
  const RangeSlider& it = range_slider(part);
  if (!(value >= it.settings().from && value <= it.settings().to)) return std::nullopt;
  return it.place_of(value);
}

template <int Which, Key Way>
constexpr PartAction step_action(const char* name, const char* means) {
  return {name, means, [](Part& part) { static_cast<RangeSlider&>(part).step(Which, Way); }};
}

constexpr std::array range_actions{
    step_action<1, Key::up>("increase", "the high thumb goes up by a step"),
    step_action<1, Key::down>("decrease", "the high thumb goes down by a step"),
    step_action<0, Key::up>("increase low", "the low thumb goes up by a step"),
    step_action<0, Key::down>("decrease low", "the low thumb goes down by a step")};

}  // namespace

const PartKind& RangeSlider::described() {
  static const PartKind kind = describe<RangeSlider>(
      {.name = "range-slider",
       .means = "two thumbs on a track, for a number and a larger one",
       .role = "group",
       .example = {.box = R"(40, 200, "100% - 80dp", 48)",
                   .lines = "label = \"Brood frames\"\nlow = \"from\"\nhigh = \"to\"\nto = 10\nstep = 1\n",
                   .cells = "from = 2\nto = 5\n"},
       .readings = range_readings,
       .pieces = &range_pieces,
       .place_of = &range_place,
       .upright = Upright::upwards,
       .own_state = true,
       .wheel = WheelUse::steps,
       .margin = {.top = 24.0},
       .usual_size = {0.0, 48.0},
       .keys = "arrows, Page Up, Page Down, Home, End; Space for the other thumb",
       .actions = range_actions,
       .answers = answers::range_slider_answers});
  return kind;
}

}  // namespace ubbo
