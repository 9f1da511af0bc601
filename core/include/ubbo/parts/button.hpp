#pragma once

#include <functional>
#include <string>

#include "ubbo/motion/mover.hpp"
#include "ubbo/parts/part_of.hpp"
#include "ubbo/parts/press.hpp"

namespace ubbo {

/// The settings of a button. Units, ranges and meanings stand in the settings table.
struct ButtonSettings {
  std::string label{};
  Link<bool> down{};    ///< linked: it stays down, and up again with the next press
  Link<bool> opens{};   ///< whether what it opens is open; a press turns that over
  Link<int> presses{};  ///< counts the presses
  Transition transition = Timed{Curve::ease_out(), Micros{90'000}};
  PartReduced reduced_motion = PartReduced::as_screen;
  std::function<void()> on_press{};
};

template <>
std::span<const Setting<ButtonSettings>> settings_of<ButtonSettings>();

/// A button: a press counts when it is lifted over it. With a cell `down` it stays down until it is pressed
/// again, or until the app says so.
///
/// What is pressed looks pressed at once; a press that a list around it takes for a scroll is taken back.
class Button final : public PartOf<Button, ButtonSettings> {
 public:
  [[nodiscard]] static const PartKind& described();
  Button(std::string id, const Box& box, ButtonSettings&& settings, Context& context);

  void changed();

  /// A finger is on it, and lifting it would count.
  [[nodiscard]] bool pressed() const { return press_.over(); }
  /// It stays down, as its cell says; false without one.
  [[nodiscard]] bool down() const { return settings_.down.linked() && settings_.down.get(); }
  /// How far it looks pressed: 0 up, 1 down.
  [[nodiscard]] double sunk() const { return mover_.at(context().now).value; }

  void present(Accessible& told) const override;
  bool capture(const Contact& contact, const Sample& sample) override;
  void move(const Contact& contact, const Sample& sample) override;
  void lift(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  bool press(Key key) override;
  void update() override;

  [[nodiscard]] std::array<double, 1> saved() const { return {down() ? 1.0 : 0.0}; }
  void restore(std::span<const double> saved) { settings_.down.set(saved[0] != 0.0); }

 private:
  void activate();

  Watch watch_;
  Watch watch_opens_;
  Press press_;
  Clocked<Mover> mover_{*this, 0.0, 1e-3};
};

namespace answers {
inline constexpr AnswerWith<> button_pressed{"button.pressed", &questions::press, true};
inline constexpr AnswerWith<> button_stays_down{"button.stays-down", &questions::press, true};
inline constexpr AnswerWith<> button_comes_up{"button.comes-up", &questions::press, true};
inline constexpr std::array<const Answer*, 5> button_answers{&press_left, &press_cancelled, &button_pressed,
                                                             &button_stays_down, &button_comes_up};
}  // namespace answers

}  // namespace ubbo
