// A part of an app's own: numbers that a finger spins, round and round. docs/own-part.md builds it.
#pragma once

#include <cmath>
#include <ubbo/ubbo.hpp>

namespace rounds {
using namespace ubbo;
struct WheelSettings {
  std::string label{};
  Link<int> value{};
  double count = 14.0;  ///< how many numbers there are
};
class Wheel final : public PartOf<Wheel, WheelSettings, Sliding> {
 public:
  static constexpr double item = 40.0;  // dp from one number to the next
  static const PartKind& described();
  // It snaps to whole numbers, a flick coasts to the one it reaches, and there is no end either way.
  static Plan base_plan(const WheelSettings&, const Box&, const Context&) {
    return {{.min = -1e6,
             .max = 1e6,
             .dp_per_unit = -item,
             .unit = "numbers",
             .snap_points = SnapPoints::even(-1e6, 1e6, 1.0),
             .transition = Coast::half_life(std::chrono::milliseconds(180)),
             .projection_time = std::chrono::milliseconds(260),
             .tells = Tells::target}};
  }
  Wheel(std::string id, const Box& box, WheelSettings settings, Context& context)
      : PartOf(std::move(id), box, std::move(settings), context) {
    changed();
    rail_.put_at(place_near(settings_.value.get()));  // there from the first, without motion
  }
  void changed() {
    const std::function place = [this](const int& number) { return place_near(number); };
    const std::function number = [this](double at, const int&) { return number_at(at); };
    rail_.change(rail_.plan(), {settings_.value, place, number});
  }
  // The number at a place of the endless row, and the place of a number that is nearest to where it goes.
  int number_at(double place) const {
    const double at = std::round(place);
    return static_cast<int>(at - std::floor(at / settings_.count) * settings_.count);
  }
  double place_near(int number) const {
    return number + std::round((target() - number) / settings_.count) * settings_.count;
  }
  int number() const { return number_at(target()); }
  void present(Accessible& told) const override {
    told.label = settings_.label;
    told.value_now = number();
  }
  bool press(Key key) override {
    if (key != Key::up && key != Key::down) return false;
    rail_.key(std::round(target()) + (key == Key::up ? 1.0 : -1.0));
    return true;
  }
};

inline constexpr std::array wheel_readings{
    ReadingInfo{"number", "", "the number it shows or goes to", &read<Wheel, &Wheel::number>},
    ReadingInfo{"dragging", "", "a finger spins it", &read<Wheel, &Wheel::dragging>}};
inline constexpr std::array wheel_actions{
    PartAction{"increase", "goes on by one", [](Part& part) { part.press(Key::up); }},
    PartAction{"decrease", "goes back by one", [](Part& part) { part.press(Key::down); }}};
inline void wheel_pieces(const Part& part, const PieceTaker& out) {
  const auto& it = static_cast<const Wheel&>(part);
  const Box box = it.box();
  const double high = Wheel::item, half = box.h / high / 2 - 0.5;
  out({.role = Role::surface, .box = box, .held = it.dragging()});
  for (double at = std::ceil(it.offset() - half); at <= it.offset() + half; ++at) {
    const double away = at - it.offset();
    const std::string words = std::to_string(it.number_at(at));
    out({.role = Role::value,
         .box = {box.x, box.centre().y + (away - 0.5) * high, box.w, high},
         .words = words,
         .opacity = 1.0 - std::fabs(away) / (half + 1.0)});
  }
}
}  // namespace rounds

template <>
inline std::span<const ubbo::Setting<rounds::WheelSettings>> ubbo::settings_of<rounds::WheelSettings>() {
  using S = rounds::WheelSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the number is"),
      declare::needed_cell<&S::value>("value", "the cell it shows and changes"),
      declare::whole<&S::count>("count", "", 2.0, 1000.0, "how many numbers there are")};
  return table;
}
inline const ubbo::PartKind& rounds::Wheel::described() {
  static const PartKind kind = describe<Wheel>({.name = "wheel",
                                                .means = "numbers that a finger spins, round and round",
                                                .role = "spinbutton",
                                                .readings = wheel_readings,
                                                .pieces = &wheel_pieces,
                                                .wheel = WheelUse::scrolls,
                                                .keys = "Up, Down",
                                                .actions = wheel_actions});
  return kind;
}
