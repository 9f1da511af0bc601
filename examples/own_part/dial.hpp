// A part of an app's own: a dial that a finger turns about its middle. docs/own-part.md goes through it.
#pragma once

#include <cmath>
#include <numbers>
#include <ubbo/ubbo.hpp>

namespace smoker {
using namespace ubbo;

inline constexpr double radians_per_unit = 27.0 * std::numbers::pi / 180.0;

struct DialSettings {
  std::string label{};
  Link<double> value{};
  double max = 10.0;
  Transition transition = Spring::settling(std::chrono::milliseconds(240), 0.1);
};

inline constexpr Question how_far{"dial.how-far", "how far was it turned?"};
inline constexpr AnswerWith<Number<"by", "degrees">, Number<"at", "">> turned{
    "dial.turned", &how_far, true, "so far", "it was turned by {by} to {at}", "turned by {by}"};

class Dial final : public PartOf<Dial, DialSettings> {
 public:
  static const PartKind& described();
  Dial(std::string id, const Box& box, DialSettings settings, Context& context)
      : PartOf(std::move(id), box, std::move(settings), context) {
    changed();
  }
  void changed() {
    watch_ = settings_.value.watch([this](double) { hear(); });
    mover_.put(rest_near(said_ = settings_.value.get()));
  }

  double value() const { return mover_.at(context().now).value; }
  bool turning() const { return drag_.dragging(); }
  Point knob() const {
    const double angle = (value() - settings_.max / 2) * radians_per_unit;
    return box().centre() + Point{std::sin(angle), -std::cos(angle)} * (0.36 * box().w);
  }

  void present(Accessible& told) const override {
    told.label = settings_.label;
    told.value_now = value();
    told.value_max = settings_.max;
  }
  DragInterest drag_interest(const Sample&) const override {
    return {.handle = true, .horizontal = true, .vertical = true};
  }
  bool capture(const Contact&, const Sample& sample) override {
    if (drag_.pressed() || drag_.dragging()) return false;
    back_ = mover_.target();
    mover_.put(start_ = value());
    way_ = 0.0;
    drag_.press(sample.at);
    heading_ = heading(sample.at);
    return true;
  }
  void move(const Contact& contact, const Sample& sample) override {
    drag_.move(sample.at, contact.contested ? HUGE_VAL : feel_for(sample.tool).drag_threshold);
    const double step = std::remainder(heading(sample.at) - heading_, 2.0 * std::numbers::pi);
    heading_ += step;
    if (drag_.dragging()) mover_.put(within(start_ + (way_ += step) / radians_per_unit));
  }
  void lift(const Contact& contact, const Sample& sample) override {
    move(contact, sample);
    if (drag_.dragging()) decide(turned, way_ * 180.0 / std::numbers::pi, value());
    release(drag_.dragging() ? rest_near(value()) : back_);
  }
  void let_go(const Contact&, LetGo) override { release(back_); }
  void cell_changed() override {
    const double written = settings_.value.get();
    if (written == std::exchange(said_, written) || !std::isfinite(written)) return;
    mover_.send(rest_near(written), settings_.transition, context().now);
  }

 private:
  double within(double value) const { return std::clamp(value, 0.0, settings_.max); }
  double rest_near(double value) const { return within(std::round(value)); }
  double heading(Point at) const { return std::atan2(at.y - box().centre().y, at.x - box().centre().x); }
  void release(double to) {
    drag_.end();
    mover_.send(to, settings_.transition, context().now);
    if (!asked()) settings_.value.set(said_ = to);  // else what the app has written waits, and counts
  }

  Clocked<Mover> mover_{*this, 0.0, 1e-3};
  Drag drag_;
  Watch watch_;
  double said_ = 0.0, start_ = 0.0, back_ = 0.0, way_ = 0.0, heading_ = 0.0;
};

inline void whole_numbers(const Part& part, std::vector<double>& snap_points) {
  const double max = static_cast<const Dial&>(part).settings().max;
  for (double number = 0.0; number < max + 1.0; ++number) snap_points.push_back(std::fmin(number, max));
}

inline constexpr std::array readings{
    ReadingInfo{"value", "", "what it shows", &read<Dial, &Dial::value>, &whole_numbers},
    ReadingInfo{"dragging", "", "a finger turns it", &read<Dial, &Dial::turning>}};

inline void pieces(const Part& part, const PieceTaker& out) {
  const auto& dial = static_cast<const Dial&>(part);
  const Box box = dial.box();
  const Point knob = dial.knob() - Point{15.0, 15.0};
  const std::string number = plain_number(std::round(dial.value()));
  out({.role = Role::label, .box = {box.x, box.y - 24.0, box.w, 20.0}, .words = dial.settings().label});
  out({.role = Role::surface, .box = box});
  out({.role = Role::value, .box = {box.x, box.centre().y - 20.0, box.w, 36.0}, .words = number});
  out({.role = Role::handle, .name = "knob", .box = {knob.x, knob.y, 30.0, 30.0}, .held = dial.turning()});
}

}  // namespace smoker

template <>
inline std::span<const ubbo::Setting<smoker::DialSettings>> ubbo::settings_of<smoker::DialSettings>() {
  using smoker::DialSettings;
  static const std::array table{
      declare::text<&DialSettings::label>("label", "what the dial is called"),
      declare::needed_cell<&DialSettings::value>("value", "the cell it shows and changes"),
      declare::number<&DialSettings::max>("max", "", 1.0, 12.0, "the largest number it can be turned to"),
      declare::transition<&DialSettings::transition>("transition", "how it goes where it is sent")};
  return table;
}

inline const ubbo::PartKind& smoker::Dial::described() {
  static const PartKind kind = describe<Dial>({.name = "dial",
                                               .means = "a knob that is turned, for one number",
                                               .role = "slider",
                                               .readings = readings,
                                               .pieces = &pieces,
                                               .mirrors = false});
  return kind;
}
