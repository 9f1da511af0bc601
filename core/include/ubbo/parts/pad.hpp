#pragma once

#include <functional>
#include <string>
#include <vector>

#include "ubbo/parts/kind.hpp"
#include "ubbo/touch/gestures.hpp"

namespace ubbo {

/// The settings of a pad. Units, ranges and meanings stand in the settings table.
struct PadSettings {
  std::string label{};
  bool opaque = false;  ///< it hides what lies below it, such as a page; its label stands at its top
  GestureSettings gestures{};
  Link<int> taps{};                                  ///< optional: gets the count of each row of taps
  std::vector<double> marks{};                       ///< dp; x and y of each in turn, from its middle
  std::function<void(const Gesture&)> on_gesture{};  ///< told every piece of news
};

template <>
std::span<const Setting<PadSettings>> settings_of<PadSettings>();

/// An area that tells the app what its touches were taken for. Space and enter tap it.
class Pad final : public Part {
 public:
  using Settings = PadSettings;

  [[nodiscard]] static const PartKind& described();
  /// "" or what is wrong: a setting out of its range, marks that are no pairs.
  [[nodiscard]] static std::string fault(const std::string& id, const Box& box, const PadSettings& settings);

  /// Throws `std::invalid_argument` with the fault, if there is one.
  Pad(std::string id, const Box& box, PadSettings settings, Surroundings& around);

  [[nodiscard]] const PadSettings& settings() const { return settings_; }
  /// Takes other settings, which must be without fault, while no contact has it. Through a stage:
  /// `Stage::change`.
  void change(PadSettings settings);
  /// True from down on until the press is withdrawn or ends, so that it can be shown at once.
  [[nodiscard]] bool pressed() const { return gestures_.pressed(); }
  /// The last gesture that was reported; how far it has come while it goes on.
  [[nodiscard]] const Gesture& last() const { return last_; }
  /// What two contacts last did to what lies on it: moved, scaled and turned as the last gesture says.
  [[nodiscard]] double scale() const { return last_.scale; }
  [[nodiscard]] double angle() const { return last_.angle; }
  /// Where a mark that the app put at `mark`, dp from the middle, is on the screen.
  [[nodiscard]] Point place_of(Point mark) const;

  [[nodiscard]] const PartKind& kind() const override { return described(); }
  [[nodiscard]] Accessible accessible() const override;
  [[nodiscard]] Wish wish(const Sample& sample) const override;
  bool touch(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  bool press(Key key) override;

 private:
  void report(const Gesture& news);

  PadSettings settings_;
  Gesture last_{};
  Clocked<Gestures> gestures_;
};

}  // namespace ubbo
