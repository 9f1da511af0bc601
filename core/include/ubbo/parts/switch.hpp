#pragma once

#include <functional>
#include <string>

#include "ubbo/parts/part_of.hpp"
#include "ubbo/parts/rail.hpp"
#include "ubbo/parts/slider_track.hpp"

namespace ubbo {

/// The settings of a switch. Units, ranges and meanings stand in the settings table.
struct SwitchSettings {
  std::string label{};
  Link<bool> on{};
  Axis axis = Axis::horizontal;  ///< vertical: yes is above
  Transition transition = Spring::settling(Micros{220'000}, 0.04);
  PartReduced reduced_motion = PartReduced::as_screen;
  Micros projection_time{110'000};
  std::function<void(bool)> on_rest{};  ///< told each time the thumb comes to rest
};

template <>
std::span<const Setting<SwitchSettings>> settings_of<SwitchSettings>();

/// A switch: yes or no, by a tap anywhere on it, by dragging its thumb across, or by a flick. A drag that
/// comes back changes nothing.
///
/// The cell is told at the lift where the thumb goes. A write by the app sends the thumb; under a finger it
/// waits for the lift.
class Switch final : public PartOf<Switch, SwitchSettings> {
 public:
  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static std::string misfit(const Box& box, const SwitchSettings& settings);

  Switch(std::string id, const Box& box, SwitchSettings&& settings, Context& context);

  void changed();

  /// What the cell says; where the thumb is going, or stands.
  [[nodiscard]] bool on() const { return rail_.target() > 0.5; }
  /// How far the thumb is from no (0) to yes (1).
  [[nodiscard]] double fraction() const { return rail_.position(); }
  /// Shares a second.
  [[nodiscard]] double velocity() const { return rail_.velocity(); }
  /// The middle of the thumb, dp.
  [[nodiscard]] Point thumb() const { return place_of(fraction()); }
  /// Where the thumb's middle is at a share of its way.
  [[nodiscard]] Point place_of(double fraction) const;
  [[nodiscard]] bool pressed() const { return rail_.pressed(); }
  [[nodiscard]] bool dragging() const { return rail_.dragging(); }
  /// What the thumb goes along, as a share.
  [[nodiscard]] const Rail& rail() const { return rail_; }
  [[nodiscard]] double thumb_opacity() const { return rail_.opacity(); }
  /// Switches over, as a tap does.
  void toggle();

  void present(Accessible& told) const override;
  [[nodiscard]] DragInterest drag_interest(const Sample&) const override {
    return {.handle = true,
            .horizontal = settings_.axis == Axis::horizontal,
            .vertical = settings_.axis == Axis::vertical};
  }
  void resized() override;
  bool capture(const Contact& contact, const Sample& sample) override;
  void move(const Contact& contact, const Sample& sample) override;
  void lift(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  bool press(Key key) override;
  void cell_changed() override { rail_.cell_changed(); }

  [[nodiscard]] std::array<double, 1> saved() const { return {on() ? 1.0 : 0.0}; }
  void restore(std::span<const double> saved) { settings_.on.set(saved[0] != 0.0); }

 private:
  [[nodiscard]] RailPlan plan() const;
  [[nodiscard]] SliderTrack way(const Box& box) const;
  [[nodiscard]] NumberLink number() const;

  Rail rail_;
};

namespace questions {
inline constexpr Question toggle{"switch.toggle"};
}
namespace answers {
inline constexpr AnswerWith<> toggled_on{"switch.toggled-on", &questions::toggle, true};
inline constexpr AnswerWith<> toggled_off{"switch.toggled-off", &questions::toggle, true};
inline constexpr std::array<const Answer*, 2> switch_answers{&toggled_on, &toggled_off};
}  // namespace answers

}  // namespace ubbo
