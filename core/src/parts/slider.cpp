#include "ubbo/parts/slider.hpp"

#include <array>
#include <cmath>
#include <stdexcept>

namespace ubbo {

namespace {

constexpr std::array axis_names{"horizontal", "vertical"};
constexpr std::array follow_names{"finger", "rest"};
constexpr std::array grab_names{"thumb", "anywhere"};

constexpr double rest_floor_dp = 0.05;  // a twentieth of a dp: under a fifth of a pixel on any phone

// The space a thumb's middle may take along the axis.
double travel_room(const Box& box, const SliderSettings& settings) {
  return along(settings.axis, {box.w, box.h}) - settings.thumb;
}

SliderSettings checked(const std::string& id, const Box& box, SliderSettings settings) {
  const std::string owner = "slider '" + id + "'";
  check_settings(owner, settings);
  check_passage(owner, settings.passage);
  auto refuse = [&owner](const std::string& what) { throw std::invalid_argument(owner + ": " + what); };
  if (!(settings.to > settings.from))
    refuse("to = " + plain_number(settings.to) +
           " is not taken; it takes more than from = " + plain_number(settings.from));
  if (!(travel_room(box, settings) > 0.0))
    refuse("a track of " + plain_number(along(settings.axis, {box.w, box.h})) +
           " dp leaves the thumb no room; it takes more than thumb = " + plain_number(settings.thumb) +
           " dp");
  if (!settings.value.linked())
    refuse("value is not linked; it takes a cell, which the app owns and the slider shows and changes");
  if (!std::isfinite(settings.value.get())) refuse("value: its cell holds no finite number");
  return settings;
}

double rest_floor(const Box& box, const SliderSettings& settings) {
  return rest_floor_dp * (settings.to - settings.from) / travel_room(box, settings);
}

}  // namespace

template <>
std::span<const Setting<SliderSettings>> settings_of<SliderSettings>() {
  using detail::setting;
  using S = SliderSettings;
  static const std::array table{
      detail::text<&S::label>("label", "what the slider is called, for people and screen readers"),
      detail::cell<&S::value>("value", "the cell the slider shows and changes"),
      setting<&S::from>("from", "", -1e9, 1e9, "the value at the start of the track"),
      setting<&S::to>("to", "", -1e9, 1e9, "the value at the end of the track; above `from`"),
      setting<&S::step>("step", "", 0.0, 1e9,
                        "distance between snap points; 0: none, any value may be chosen"),
      setting<&S::large_step>("large_step", "", 0.0, 1e9,
                              "what the page keys change the value by; 0: a tenth of the range"),
      detail::choice<&S::axis>("axis", axis_names, "the direction of the track; vertical grows upwards"),
      detail::choice<&S::follow>("follow", follow_names,
                                 "when the cell follows: with the finger, or when the thumb is at rest"),
      detail::choice<&S::grab>("grab", grab_names, "where a drag may begin"),
      detail::flag<&S::tap_travels>("tap_travels", "a tap on the track sends the thumb there"),
      setting<&S::thumb>("thumb", "dp", 1.0, 400.0, "the thumb's width"),
      setting<&S::thickness>("thickness", "dp", 0.5, 400.0, "how thick the track is"),
      detail::passage<&S::passage>("passage", "how the thumb goes where it is sent"),
      detail::choice<&S::reduced_motion>(
          "reduced_motion", part_reduced_names,
          "what becomes of the thumb's travel for people who asked for less motion"),
      setting<&S::carry>("carry", "ms", 0.0, 2000.0,
                         "how much of the release velocity counts for where it lands; 0: none"),
  };
  return table;
}

Slider::Slider(std::string id, Box box, SliderSettings settings, Surroundings& around)
    : Part(std::move(id), box, around),
      settings_(checked(this->id(), box, std::move(settings))),
      snaps_(settings_.step > 0.0 ? SnapPoints::even(settings_.from, settings_.to, settings_.step)
                                  : SnapPoints{}),
      mover_(clamp(settings_.value.get()), rest_floor(box, settings_)),
      drag_(settings_.axis),
      cell_value_(settings_.value.get()) {
  watch_ = settings_.value.watch([this](double value) { app_wrote(value); });
}

double Slider::clamp(double value) const { return std::fmin(std::fmax(value, settings_.from), settings_.to); }

double Slider::value() const {
  const double place = position();
  if (snaps_.empty() || place == clamp(cell_value_)) return place;
  return snaps_.at(snaps_.nearest(place));
}

double Slider::share() const { return (position() - settings_.from) / (settings_.to - settings_.from); }

double Slider::start_coordinate() const {
  const double inset = settings_.thumb / 2;
  if (settings_.axis == Axis::vertical) return box().bottom() - inset;
  return around().right_to_left ? box().right() - inset : box().x + inset;
}

double Slider::dp_per_unit() const {
  const double size = travel_room(box(), settings_) / (settings_.to - settings_.from);
  return settings_.axis == Axis::vertical || around().right_to_left ? -size : size;
}

Point Slider::place_of(double value) const {
  const double main = start_coordinate() + (value - settings_.from) * dp_per_unit();
  const Point middle = box().centre();
  return settings_.axis == Axis::horizontal ? Point{main, middle.y} : Point{middle.x, main};
}

Box Slider::track() const {
  const Point middle = box().centre();
  const double thick = settings_.thickness;
  if (settings_.axis == Axis::horizontal)
    return {box().x + settings_.thumb / 2, middle.y - thick / 2, travel_room(box(), settings_), thick};
  return {middle.x - thick / 2, box().y + settings_.thumb / 2, thick, travel_room(box(), settings_)};
}

Box Slider::fill() const {
  Box filled = track();
  const Point start = place_of(settings_.from);
  const Point end = thumb();
  if (settings_.axis == Axis::horizontal) {
    filled.x = std::fmin(start.x, end.x);
    filled.w = std::fabs(end.x - start.x);
  } else {
    filled.y = std::fmin(start.y, end.y);
    filled.h = std::fabs(end.y - start.y);
  }
  return filled;
}

Accessible Slider::accessible() const {
  return {.role = "slider",
          .label = settings_.label,
          .value_now = value(),
          .value_min = settings_.from,
          .value_max = settings_.to,
          .orientation = axis_names[static_cast<std::size_t>(settings_.axis)],
          .keys = "arrows, Page Up, Page Down, Home, End"};
}

bool Slider::on_thumb(Point at) const {
  // A thumb smaller than a finger is grabbed all the same: reach 24 dp around its middle at least.
  const double reach = std::fmax(settings_.thumb / 2, 24.0);
  return std::fabs(along(settings_.axis, at - thumb())) <= reach;
}

bool Slider::touch(const Contact& contact, const Sample& sample) {
  advance(around().now);
  if (sample.phase == Phase::down) {
    if (pressed()) return false;
    held_by_ = contact.id;
    begin(sample);
    return true;
  }
  if (!pressed() || contact.id != held_by_) return false;
  switch (sample.phase) {
    case Phase::down:
      break;
    case Phase::move:
      follow_finger(contact, sample);
      break;
    case Phase::up:
      release(contact, sample);
      break;
    case Phase::cancel:
      give_back();
      break;
  }
  return true;
}

Wish Slider::wish(const Sample& sample) const {
  // A thumb under the finger is a handle: nothing around it may take it away.
  return {.at_once = on_thumb(sample.at),
          .horizontal = settings_.grab == Grab::anywhere && settings_.axis == Axis::horizontal,
          .vertical = settings_.grab == Grab::anywhere && settings_.axis == Axis::vertical};
}

void Slider::begin(const Sample& sample) {
  drag_.press(sample.at);
  pressed_at_ = sample.at;
  may_drag_ = settings_.grab == Grab::anywhere || on_thumb(sample.at);
  return_to_ = mover_.target();
  return_cell_ = cell_value_;
  stopped_ = mover_.moving();
  mover_.put(position());
}

void Slider::follow_finger(const Contact& contact, const Sample& sample) {
  const double threshold = around().feel_for(sample.tool).threshold(settings_.axis);
  if (drag_.move(sample.at, may_drag_ ? threshold : HUGE_VAL)) {
    grabbed_ = mover_.value();
    decide(questions::drag, "yes",
           {Fact::above("travel", drag_.travel(), "dp", threshold),
            Fact::plain("after", to_ms(sample.time - contact.down.time), "ms")});
  }
  if (!drag_.dragging()) return;
  mover_.put(clamp(grabbed_ + along(settings_.axis, drag_.offset()) / dp_per_unit()));
  if (settings_.follow == Follow::finger) tell(value());
}

void Slider::release(const Contact& contact, const Sample& sample) {
  follow_finger(contact, sample);
  const bool dragged = drag_.dragging();
  drag_.end();
  if (dragged)
    let_go(contact, sample);
  else
    lift(contact, sample);
}

void Slider::let_go(const Contact& contact, const Sample& sample) {
  const double velocity = decide_speed(contact, sample, settings_.axis);
  // Where the velocity counts for nothing it must not fling the thumb about either.
  const double counted = settings_.carry > Micros{0} ? velocity / dp_per_unit() : 0.0;
  land(mover_.value(), counted);
}

void Slider::lift(const Contact& contact, const Sample& sample) {
  const Feel& feel = around().feel_for(sample.tool);
  const bool tap = drag_.strayed() <= feel.tap_reach;
  decide(questions::tap, tap ? "yes" : "no, it strayed",
         {Fact::below("strayed", drag_.strayed(), "dp", feel.tap_reach),
          Fact::plain("held", to_ms(sample.time - contact.down.time), "ms")});
  if (tap && settings_.tap_travels && !on_thumb(contact.down.at)) {
    const double from_start = along(settings_.axis, contact.down.at) - start_coordinate();
    land(clamp(settings_.from + from_start / dp_per_unit()), 0.0);
  } else {
    go_back();
  }
}

void Slider::give_back() {
  drag_.end();
  decide(questions::cancelled, "back to where it was going",
         {Fact::plain("from", mover_.value(), ""), Fact::plain("to", return_to_, "")});
  go_back();
}

void Slider::go_back() {
  if (stopped_ || mover_.value() != return_to_) go(return_to_, 0.0);
  if (settings_.follow == Follow::finger) tell(return_cell_);
}

void Slider::land(double place, double velocity) {
  const Landing landing =
      choose_landing(snaps_, place, velocity, to_seconds(settings_.carry), settings_.from, settings_.to);
  decide_landing(landing, "");
  choose(landing.place, velocity);
}

void Slider::choose(double target, double velocity) {
  owes_cell_ = true;
  go(target, velocity);
  if (settings_.follow == Follow::finger) tell(target);
}

void Slider::go(double target, double velocity) {
  mover_.set_reduced(reduced_for(settings_.reduced_motion, around().reduced_motion));
  mover_.send(target, settings_.passage, around().now, velocity);
  if (!mover_.moving()) rest();
}

void Slider::rest() {
  const double value = mover_.value();
  decide(questions::rest, "yes", {Fact::plain("value", value, "")});
  // What the app itself wrote is not written back to it, not even clamped.
  if (owes_cell_) tell(value);
  owes_cell_ = false;
  if (settings_.on_rest) settings_.on_rest(value);
}

void Slider::advance(Micros now) {
  if (mover_.advance(now)) rest();
}

void Slider::tell(double value) {
  cell_value_ = value;
  settings_.value.set(value);
}

void Slider::app_wrote(double value) {
  if (value == cell_value_) return;  // our own write coming round
  if (!std::isfinite(value)) {
    decide(questions::app_write, "nothing, it is not a finite number");
    return;
  }
  cell_value_ = value;
  owes_cell_ = false;
  const double target = clamp(value);
  const Fact written = value > settings_.to ? Fact::below("written", value, "", settings_.to)
                                            : Fact::above("written", value, "", settings_.from);
  if (pressed()) {
    return_to_ = target;
    return_cell_ = value;
    decide(questions::app_write, "nothing yet, the finger has the thumb", {written});
    return;
  }
  decide(questions::app_write, "moves the thumb", {written});
  if (mover_.target() != target) go(target, mover_.velocity());
}

bool Slider::press(Key key) {
  const double range = settings_.to - settings_.from;
  const double small = settings_.step > 0.0 ? settings_.step : range / 100.0;
  const double large = settings_.large_step > 0.0 ? settings_.large_step : range / 10.0;
  const bool mirrored = settings_.axis == Axis::horizontal && around().right_to_left;
  const double base = mover_.target();
  double wanted = base;
  switch (key) {
    case Key::left:
      wanted += mirrored ? small : -small;
      break;
    case Key::right:
      wanted += mirrored ? -small : small;
      break;
    case Key::up:
      wanted += small;
      break;
    case Key::down:
      wanted -= small;
      break;
    case Key::page_up:
      wanted += large;
      break;
    case Key::page_down:
      wanted -= large;
      break;
    case Key::home:
      wanted = settings_.from;
      break;
    case Key::end:
      wanted = settings_.to;
      break;
    case Key::tab:
    case Key::back_tab:
      return false;
  }
  if (pressed()) {
    decide(questions::key, "nothing, the finger has the thumb");
    return true;
  }
  wanted = clamp(wanted);
  if (!snaps_.empty()) wanted = snaps_.at(snaps_.nearest(wanted));
  decide(questions::key, "moves the thumb", {Fact::plain("from", base, ""), Fact::plain("to", wanted, "")});
  if (wanted == base) return true;
  choose(wanted, mover_.velocity());
  return true;
}

}  // namespace ubbo
