#include "ubbo/parts/pane.hpp"

#include <array>
#include <cmath>
#include <stdexcept>

namespace ubbo {

namespace {

constexpr std::array axis_names{"horizontal", "vertical"};
constexpr std::array moves_names{"itself", "content"};
constexpr double rest_floor_dp = 0.05;

PaneSettings checked(const std::string& id, PaneSettings settings) {
  const std::string owner = "pane '" + id + "'";
  check_settings(owner, settings);
  check_passage(owner, settings.passage);
  if (settings.most < settings.least)
    throw std::invalid_argument(owner + ": most = " + plain_number(settings.most) +
                                " is not taken; it takes least = " + plain_number(settings.least) +
                                " or more");
  for (const double rest : settings.rests)
    if (!(rest >= settings.least && rest <= settings.most))
      throw std::invalid_argument(owner + ": rests holds " + plain_number(rest) + "; it takes " +
                                  plain_number(settings.least) + " to " + plain_number(settings.most) +
                                  " dp");
  return settings;
}

}  // namespace

template <>
std::span<const Setting<PaneSettings>> settings_of<PaneSettings>() {
  using detail::setting;
  using S = PaneSettings;
  static const std::array table{
      detail::text<&S::label>("label", "what the pane is called, for people and screen readers"),
      detail::cell<&S::offset>("offset", "the cell that holds where the pane is, in dp; may be left out"),
      setting<&S::least>("least", "dp", -100000.0, 100000.0, "how far it goes to the left or up"),
      setting<&S::most>("most", "dp", -100000.0, 100000.0, "how far it goes to the right or down"),
      detail::choice<&S::axis>("axis", axis_names, "the direction in which it moves"),
      detail::choice<&S::moves>("moves", moves_names,
                                "itself with all that lies in it, or only what lies in it"),
      detail::numbers<&S::rests>("rests", "dp", -100000.0, 100000.0,
                                 "where it may come to rest; none: anywhere"),
      detail::passage<&S::passage>("passage", "how it goes where it is sent"),
      detail::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                         "what becomes of its travel for people who asked for less motion"),
      setting<&S::carry>("carry", "ms", 0.0, 2000.0,
                         "how much of the release velocity counts for where it lands"),
  };
  return table;
}

Pane::Pane(std::string id, Box box, PaneSettings settings, Surroundings& around)
    : Part(std::move(id), box, around),
      settings_(checked(this->id(), std::move(settings))),
      snaps_(settings_.rests.empty() ? SnapPoints{} : SnapPoints::list(settings_.rests)),
      mover_(clamp(settings_.offset.linked() ? settings_.offset.get() : 0.0), rest_floor_dp),
      drag_(settings_.axis) {
  if (!settings_.offset.linked()) return;
  cell_value_ = settings_.offset.get();
  watch_ = settings_.offset.watch([this](double value) {
    if (value == cell_value_ || !std::isfinite(value)) return;
    cell_value_ = value;
    return_to_ = clamp(value);
    if (held_by_ == nullptr) send(return_to_, mover_.velocity());
  });
}

Accessible Pane::accessible() const {
  return {.role = "group",
          .label = settings_.label,
          .value_now = offset(),
          .value_min = settings_.least,
          .value_max = settings_.most,
          .orientation = axis_names[static_cast<std::size_t>(settings_.axis)]};
}

Wish Pane::wish(const Sample&) const {
  return {.horizontal = settings_.axis == Axis::horizontal, .vertical = settings_.axis == Axis::vertical};
}

bool Pane::can_go(Side side) const {
  const bool sideways = side == Side::left || side == Side::right;
  if (sideways != (settings_.axis == Axis::horizontal)) return false;
  return side == Side::left || side == Side::up ? offset() > settings_.least : offset() < settings_.most;
}

Point Pane::carries() const {
  return settings_.axis == Axis::horizontal ? Point{shown(), 0.0} : Point{0.0, shown()};
}

Point Pane::leftover() const {
  return settings_.axis == Axis::horizontal ? Point{leftover_, 0.0} : Point{0.0, leftover_};
}

void Pane::hold(const Contact& contact, Point at) {
  held_by_ = &contact;
  return_to_ = mover_.target();
  mover_.put(offset());
  grabbed_ = offset();
  leftover_ = 0.0;
  drag_.press(at);
}

bool Pane::take_over(const Contact& contact, Point anchor) {
  if (held_by_ != nullptr && held_by_ != &contact) return false;
  hold(contact, anchor);
  // Already a drag: the threshold was passed elsewhere.
  drag_.move(anchor + (settings_.axis == Axis::horizontal ? Point{1e-9, 0} : Point{0, 1e-9}), 0.0);
  follow(contact, contact.last);
  return true;
}

void Pane::hand_over() {
  held_by_ = nullptr;
  leftover_ = 0.0;
  drag_.end();
  ahead_ = 0.0;
  tell(mover_.value());
}

bool Pane::touch(const Contact& contact, const Sample& sample) {
  advance(around().now);
  if (sample.phase == Phase::down) {
    if (held_by_ != nullptr) return false;
    hold(contact, sample.at);
    return true;
  }
  if (held_by_ != &contact) return false;
  if (sample.phase == Phase::cancel) {
    const bool moved = mover_.value() != return_to_;
    drag_.end();
    ahead_ = 0.0;
    held_by_ = nullptr;
    leftover_ = 0.0;
    if (moved) {
      decide(questions::cancelled, "back to where it was going",
             {Fact::plain("from", mover_.value(), "dp"), Fact::plain("to", return_to_, "dp")});
      go(return_to_, 0.0);
    }
    return true;
  }
  follow(contact, sample);
  if (sample.phase == Phase::up) let_go(contact, sample);
  return true;
}

void Pane::follow(const Contact& contact, const Sample& sample) {
  const double threshold = around().feel_for(sample.tool).threshold(settings_.axis);
  if (drag_.move(sample.at, threshold))
    decide(questions::drag, "yes",
           {Fact::above("travel", drag_.travel(), "dp", threshold),
            Fact::plain("after", to_ms(sample.time - contact.down.time), "ms")});
  if (!drag_.dragging()) return;
  const double wanted = grabbed_ + along(settings_.axis, drag_.offset());
  mover_.put(clamp(wanted));
  leftover_ = wanted - mover_.value();
  const Feel& feel = around().feel_for(sample.tool);
  const Point seen = predict(contact.history, sample.at, sample.time, feel.prediction, feel.velocity_rules());
  ahead_ = along(settings_.axis, seen - sample.at);
  tell(mover_.value());
}

void Pane::let_go(const Contact& contact, const Sample& sample) {
  const bool dragged = drag_.dragging();
  drag_.end();
  ahead_ = 0.0;
  held_by_ = nullptr;
  leftover_ = 0.0;
  if (!dragged) {
    if (mover_.value() != return_to_) go(return_to_, 0.0);
    return;
  }
  const double speed = decide_speed(contact, sample, settings_.axis);
  const double velocity = settings_.carry > Micros{0} ? speed : 0.0;
  const Landing landing = choose_landing(snaps_, mover_.value(), velocity, to_seconds(settings_.carry),
                                         settings_.least, settings_.most);
  decide_landing(landing, "dp");
  go(landing.place, velocity);
}

void Pane::send(double target, double velocity) {
  mover_.set_reduced(reduced_for(settings_.reduced_motion, around().reduced_motion));
  mover_.send(target, settings_.passage, around().now, velocity);
}

void Pane::go(double target, double velocity) {
  tell(target);
  send(target, velocity);
  if (!mover_.moving()) decide(questions::rest, "yes", {Fact::plain("value", target, "dp")});
}

void Pane::advance(Micros now) {
  if (mover_.advance(now)) decide(questions::rest, "yes", {Fact::plain("value", mover_.value(), "dp")});
}

void Pane::tell(double value) {
  cell_value_ = value;
  settings_.offset.set(value);
}

}  // namespace ubbo
